/** A working as it stands on a board: formulas with their letters, then with their numbers. */
import type { WorkingLine } from '@/api/client'

/** Lines of the same sum for one material after another, under their formula. */
export interface Block {
  formula: string
  symbol: string
  lines: WorkingLine[]
}

export function blocksOf(lines: WorkingLine[]): Block[] {
  const found: Block[] = []
  for (const line of lines) {
    const last = found.at(-1)
    if (last && last.formula === line.formula && last.symbol === line.symbol) last.lines.push(line)
    else found.push({ formula: line.formula, symbol: line.symbol, lines: [line] })
  }
  return found
}

/** A formula with its letters. */
export const letters = (formula: string) => formula.replace(/[{}]/g, '')

/** A formula with the numbers of a line in the places of its letters. */
export function withNumbers(line: WorkingLine, exact: (value: number) => string): string {
  return line.inputs.reduce(
    (text, input) =>
      text.replaceAll(`{${input.symbol}}`, `${exact(input.value)}${input.unit ? ` ${input.unit}` : ''}`),
    line.formula,
  )
}
