// @vitest-environment happy-dom
import { enableAutoUnmount, flushPromises, type VueWrapper } from '@vue/test-utils'
import { asked, refusal, serve, unserve } from '@/testing/served'
import { afterEach, beforeEach, expect, test } from 'vitest'
import type { Lot } from '@/api/client'
import { lot, serveFarm } from '@/testing/samples'
import { mounted } from '@/testing/mounted'
import LotDialog from './LotDialog.vue'

enableAutoUnmount(afterEach)
beforeEach(() => {
  unserve()
  serveFarm()
  serve('POST /api/mix', { body: { items: [{ kg: 14, litres: 280 }] } })
  document.body.innerHTML = ''
})

async function dialog(of: Lot | null) {
  const part: VueWrapper = mounted(LotDialog, {
    props: { lot: of, open: false, 'onUpdate:open': (open: boolean) => part.setProps({ open }) } as never,
    attachTo: document.body,
  }) as never
  await flushPromises()
  await part.setProps({ open: true } as never)
  await flushPromises()
  return part
}
const field = (id: string) => document.querySelector<HTMLInputElement>(`#${id}`)!
const type = async (id: string, text: string) => {
  field(id).value = text
  field(id).dispatchEvent(new Event('input'))
  await flushPromises()
}
const save = async () => {
  document.querySelector('form')!.dispatchEvent(new Event('submit', { cancelable: true, bubbles: true }))
  await flushPromises()
}
const saidOf = (id: string) => document.querySelector(`#${id}-said`)

test('a new lot asks for its material and its amount before anything is sent', async () => {
  await dialog(null)
  await save()
  expect(saidOf('lot-material')!.getAttribute('role')).toBe('alert')
  expect(saidOf('lot-amount')!.getAttribute('role')).toBe('alert')
  expect(asked('POST', /lots/)).toEqual([])
})

test('a lot is changed as it was shown, with its version and its day', async () => {
  await dialog(lot())
  expect(field('lot-amount').value).toBe('4')
  expect(field('lot-gathered').value).toBe('2026-03-01')
  serve('PUT /api/lots/lot-1', { body: lot({ amount: 6.5, version: 4 }) })
  await type('lot-amount', '6,5')
  await save()
  expect(asked('PUT', '/api/lots/lot-1')[0]!.body).toMatchObject({
    version: 3,
    lot: { amount: 6.5, unit: 'measure', measure_id: 'barrow', gathered_on: '2026-03-01' },
  })
})

test('figures of its own that are refused are told at the figure, in place of the book', async () => {
  await dialog(lot())
  expect(saidOf('own-c_n')!.textContent).toMatch(/80/)
  serve('PUT /api/lots/lot-1', refusal(422, { field: 'own.c_n', reason: 'is no ratio of straw' }))
  await type('own-c_n', '3')
  await save()
  expect(saidOf('own-c_n')!.textContent).toBe('is no ratio of straw')
})

test('somebody else was faster: what was typed stays, and it is said', async () => {
  const part = await dialog(lot())
  serve('PUT /api/lots/lot-1', refusal(409, { code: 'stale' }))
  await type('lot-amount', '2')
  await save()
  expect(part.props('open' as never)).toBe(true)
  expect(field('lot-amount').value).toBe('2')
  expect([...document.querySelectorAll('[role=alert]')].map((one) => one.textContent).join()).toMatch(
    /elsewhere/,
  )
})

test('what is out of bounds as the server has them does not count', async () => {
  await dialog(lot())
  await type('lot-amount', '2000000')
  expect(field('lot-amount').getAttribute('aria-invalid') ?? field('lot-amount').className).toMatch(
    /true|invalid/,
  )
  expect(field('own-moisture_pct').getAttribute('aria-valuemax')).toBe('99.9')
})
