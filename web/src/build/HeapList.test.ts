// @vitest-environment happy-dom
import { enableAutoUnmount, flushPromises } from '@vue/test-utils'
import { serve, unserve } from '@/testing/served'
import { afterEach, beforeEach, expect, test } from 'vitest'
import { heap, serveFarm } from '@/testing/samples'
import { mounted } from '@/testing/mounted'
import HeapList from './HeapList.vue'

enableAutoUnmount(afterEach)
beforeEach(() => {
  unserve()
  serveFarm()
})

async function listed(...heaps: object[]) {
  serve('GET /api/sites/site-1/heaps', { body: heaps })
  const part = mounted(HeapList, {
    global: { stubs: { 'router-link': { props: ['to'], template: '<a :href="to"><slot /></a>' } } },
  } as never)
  await flushPromises()
  return part
}

test('one being built says how far it is, and one that is built stands with the heaps', async () => {
  const part = await listed(heap(3, 1), heap(3, 3, { id: 'heap-2', name: 'Ring', height_cm: 84 }))
  const rows = part.findAll('li').map((one) => one.text())
  expect(rows).toHaveLength(1)
  expect(rows[0]).toMatch(/Terrace heap: 1 of 3 laid/)
})

test('without heaps there is no heading for them', async () => {
  expect((await listed()).text()).toBe('')
})
