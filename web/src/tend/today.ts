import type { Tended, TodayLine } from '@/api/client'
import type { TendKind } from './forms'

/** How a line of Today is ticked off: what is written into the log, or what is asked for first. */
export type DoneBy = { write: Tended[] } | { ask: TendKind }

const turn: Tended = { kind: 'turn' } as Tended
const water = (litres: number): Tended => ({ kind: 'water', litres, spread: 'even' }) as Tended
const rounded = (litres: number) => Math.max(1, Math.round(litres))

/** What ticking a line off writes down. What wants a choice or an amount of stuff is asked for. */
export function doneBy({ task, cause }: TodayLine): DoneBy {
  if (task) {
    switch (task.kind) {
      case 'turn':
        return { write: task.litres ? [turn, water(rounded(task.litres))] : [turn] }
      case 'water':
        return task.litres ? { write: [water(rounded(task.litres))] } : { ask: 'water' }
      case 'cover':
        return { ask: 'cover' }
      case 'worms-in':
        return { ask: 'worms' }
      case 'move':
        return { write: [{ kind: 'move' } as Tended] }
      case 'end':
        return { ask: 'seen' }
      default:
        return { ask: 'stick' }
    }
  }
  const acts = cause?.remedy ?? []
  const litres = acts.find(({ act }) => act === 'water')?.litres
  const isTurned = acts.some(({ act }) => act === 'turn' || act === 'turn-outside-in')
  const isMixed = acts.some(({ act, kg }) => act.startsWith('add-') && kg)
  if (isMixed) return { ask: 'add' }
  if (isTurned) return { write: litres ? [turn, water(rounded(litres))] : [turn] }
  if (acts.some(({ act }) => act === 'bury' || act.startsWith('cover-'))) return { ask: 'cover' }
  return { ask: 'note' }
}

/** All there is to do at one heap, or for one batch to come. */
export interface Group {
  whose: string
  heap: string | null
  name: string
  lines: TodayLine[]
}

/** Lines as the farm ordered them, those of one heap together. */
export function grouped(lines: TodayLine[]): Group[] {
  const groups: Group[] = []
  for (const line of lines) {
    const whose = line.heap ?? line.prepare?.batch ?? line.id
    const group = groups.find((one) => one.whose === whose)
    if (group) group.lines.push(line)
    else groups.push({ whose, heap: line.heap ?? null, name: line.name, lines: [line] })
  }
  return groups
}
