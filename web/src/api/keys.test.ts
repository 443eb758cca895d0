import { QueryClient } from '@tanstack/vue-query'
import { expect, test } from 'vitest'
import { changed, key, leaning } from './keys'

test('a changed material is felt by every sum that is made of it', () => {
  const felt = leaning('material')
  for (const name of ['lots', 'bench', 'choices', 'thumb', 'correct', 'suit', 'prepare', 'heap'] as const)
    expect(felt).toContain(name)
  expect(felt).not.toContain('sites')
})

test('what leans on a change is asked anew, and nothing else', async () => {
  const queries = new QueryClient()
  const names = [key('lots', 'a'), key('choices', {}), key('batches', 'a'), key('about')]
  for (const name of names) queries.setQueryData(name, [])
  await changed(queries, 'measure')
  const isOld = (name: readonly unknown[]) => queries.getQueryState(name)?.isInvalidated
  expect(names.map(isOld)).toEqual([true, true, false, false])
})
