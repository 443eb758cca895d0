import { expect, test } from 'vitest'
import { actOf } from '@/api/outbox/act'
import { asFile, fromFile } from './file'

const act = actOf({ kind: 'lot-remove', of: 'lot-1', path: { id: 'lot-1' }, says: 'Straw' }, 'somebody')

test('what is carried off comes back whole', () => {
  expect(fromFile(asFile([act], 'Phone'))).toEqual([act])
})

test('a file that is another, or not whole, brings nothing', () => {
  const broken = [
    '',
    'null',
    '[]',
    '{"format":"zymarch-waiting/1"}',
    JSON.stringify({ format: 'zymarch-recipe/1', acts: [act] }),
    JSON.stringify({ format: 'zymarch-waiting/1', acts: [act, null] }),
    ...[
      { kind: 'lot-sell' },
      { id: '' },
      { at: 'noon' },
      { of: 7 },
      { path: [] },
      { path: { id: 1 } },
      { body: 'x' },
    ].map((odd) => asFile([{ ...act, ...odd } as typeof act], '')),
  ]
  for (const text of broken) expect(fromFile(text), text).toBeNull()
})
