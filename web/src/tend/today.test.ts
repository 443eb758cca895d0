import { describe, expect, it } from 'vitest'
import type { Cause, Task, TodayLine } from '@/api/client'
import { doneBy, grouped } from './today'

const line = (of: Partial<TodayLine>) => ({ id: '1', on: '2026-03-14', name: 'Heap', ...of }) as TodayLine
const task = (of: Partial<Task>) => line({ task: of as Task })
const cause = (remedy: Partial<Cause['remedy'][number]>[]) =>
  line({ cause: { code: 'too-dry', remedy } as Cause })

describe('ticking a line of Today off', () => {
  it('writes what was done, with its water', () => {
    expect(doneBy(task({ kind: 'turn' }))).toEqual({ write: [{ kind: 'turn' }] })
    expect(doneBy(task({ kind: 'turn', litres: 34.4 }))).toEqual({
      write: [{ kind: 'turn' }, { kind: 'water', litres: 34, spread: 'even' }],
    })
    expect(doneBy(task({ kind: 'move' }))).toEqual({ write: [{ kind: 'move' }] })
  })

  it('asks where a choice is to be made', () => {
    expect(doneBy(task({ kind: 'check' }))).toEqual({ ask: 'stick' })
    expect(doneBy(task({ kind: 'cover' }))).toEqual({ ask: 'cover' })
    expect(doneBy(task({ kind: 'water' }))).toEqual({ ask: 'water' })
  })

  it('mends a cause by its acts, and asks for stuff that is mixed in', () => {
    expect(doneBy(cause([{ act: 'turn' }, { act: 'water', litres: 48 }]))).toEqual({
      write: [{ kind: 'turn' }, { kind: 'water', litres: 48, spread: 'even' }],
    })
    expect(doneBy(cause([{ act: 'turn' }, { act: 'add-green', kg: 30 }]))).toEqual({ ask: 'add' })
    expect(doneBy(cause([{ act: 'bury' }]))).toEqual({ ask: 'cover' })
    expect(doneBy(cause([{ act: 'keep-away' }]))).toEqual({ ask: 'note' })
  })
})

it('what is to be done at one heap stands under its name once', () => {
  const lines = [
    line({ id: 'a', heap: 'h1', name: 'Bay' }),
    line({ id: 'b', heap: 'h1', name: 'Bay' }),
    line({ id: 'c', name: 'Ring', prepare: { batch: 'b1' } as TodayLine['prepare'] }),
    line({ id: 'd', name: 'Ring', prepare: { batch: 'b1' } as TodayLine['prepare'] }),
    line({ id: 'e', heap: 'h2', name: 'Ring' }),
  ]
  const found = grouped(lines).map(({ name, heap, lines: of }) => [
    name,
    heap,
    of.map(({ id }) => id).join(''),
  ])
  expect(found).toEqual([
    ['Bay', 'h1', 'ab'],
    ['Ring', null, 'cd'],
    ['Ring', 'h2', 'e'],
  ])
})
