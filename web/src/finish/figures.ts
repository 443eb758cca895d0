import type { FigureTold, LabFigure } from '@/api/client'
import type { Quantity } from '@/words/units'

/** Figures of compost and soil in the order in which they are told; a figure is a row. */
export const FIGURES: readonly {
  figure: LabFigure
  unit: string
  quantity?: Quantity
  digits: number
  most: number
}[] = [
  { figure: 'n-pct', unit: '%', digits: 2, most: 15 },
  { figure: 'p-pct', unit: '%', digits: 2, most: 15 },
  { figure: 'k-pct', unit: '%', digits: 2, most: 20 },
  { figure: 'c-n', unit: '', digits: 1, most: 200 },
  { figure: 'organic-matter-pct', unit: '%', digits: 0, most: 100 },
  { figure: 'moisture-pct', unit: '%', digits: 0, most: 95 },
  { figure: 'ph', unit: '', digits: 1, most: 13 },
  { figure: 'ec-ds-m', unit: 'dS/m', digits: 1, most: 60 },
  { figure: 'microbial-mass', unit: 'µg/g', digits: 0, most: 50_000 },
  { figure: 'fungus-to-bacteria', unit: '', digits: 2, most: 100 },
]
export const figureRow = (figure: LabFigure) => FIGURES.find((row) => row.figure === figure)!

/** Something that holds figures, to be drawn beside others. */
export interface Held {
  key: string
  /** What it is, and when. */
  name: string
  kind: 'estimated' | 'compost' | 'soil'
  figures: Pick<FigureTold, 'figure' | 'value' | 'low' | 'high'>[]
}

export interface Mark {
  key: string
  name: string
  kind: Held['kind']
  value: number
  /** Where it lies from the left, and where its range begins and ends: 0 to 1. */
  at: number
  from: number
  to: number
}

/** Each figure that at least one of these tells, with a mark for each that does, from nothing to the most of them. */
export function beside(all: readonly Held[]): { figure: LabFigure; most: number; marks: Mark[] }[] {
  return FIGURES.map(({ figure }) => {
    const told = all.flatMap((held) =>
      held.figures.filter((one) => one.figure === figure).map((one) => ({ ...held, ...one })),
    )
    const most = Math.max(0, ...told.map(({ value, high }) => Math.max(value, high ?? 0)))
    const marks = told.map(({ key, name, kind, value, low, high }) => ({
      key,
      name,
      kind,
      value,
      at: most ? value / most : 0,
      from: most ? (low ?? value) / most : 0,
      to: most ? (high ?? value) / most : 0,
    }))
    return { figure, most, marks }
  }).filter(({ marks }) => marks.length)
}
