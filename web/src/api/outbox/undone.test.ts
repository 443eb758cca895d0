import { expect, test } from 'vitest'
import { type Act, actOf } from './act'
import type { ActKind } from './kinds'
import { standing, takerOf } from './undone'

const done = (kind: ActKind, id: string, entry?: string) => {
  const isTend = kind === 'heap-tend'
  const path: Record<string, string> = isTend || !entry ? { id } : { id, entry }
  return actOf({ kind, of: id, path, body: isTend ? { entry } : undefined, says: '' }, null)
}

test('what was taken off and brought back is as if nothing was done; of another thing all stays', () => {
  const other = done('lot-remove', 'b')
  expect(standing([done('lot-remove', 'a'), other, done('lot-restore', 'a')])).toEqual([other])
  // What was taken off before any of this was done here is brought back.
  const back = done('lot-restore', 'a')
  expect(standing([back])).toEqual([back])
})

test('of entries of one heap only the one that was meant is taken back, and it can be brought back', () => {
  const [one, two] = [done('heap-tend', 'h', 'e1'), done('heap-tend', 'h', 'e2')]
  const [taken, brought] = [done('heap-take-back', 'h', 'e1'), done('heap-bring-back', 'h', 'e1')]
  expect(standing([one, two, taken])).toEqual([two])
  expect(standing([taken, brought])).toEqual([])
})

test('whoever lets an act go is told what was there only to take it back', () => {
  const [lay, next, undo, undone] = (['heap-lay', 'heap-lay', 'heap-undo', 'heap-undo'] as const).map(
    (kind) => done(kind, 'h'),
  ) as [Act, Act, Act, Act]
  const all = [lay, done('heap-lay', 'other'), next, undo, undone]
  expect([takerOf(lay, all), takerOf(next, all)]).toEqual([undone, undo])
  expect(takerOf(lay, [lay, next, undo])).toBeUndefined()
  const [tend, taken] = [done('heap-tend', 'h', 'e1'), done('heap-take-back', 'h', 'e1')]
  expect(takerOf(tend, [tend, done('heap-take-back', 'h', 'e2'), taken])).toEqual(taken)
})
