// @vitest-environment happy-dom
import { enableAutoUnmount, flushPromises, type VueWrapper } from '@vue/test-utils'
import { asked, refusal, serve, unserve } from '@/testing/served'
import { afterEach, beforeEach, expect, test } from 'vitest'
import type { Measure } from '@/api/client'
import { bucket, serveFarm } from '@/testing/samples'
import { mounted } from '@/testing/mounted'
import MeasureDialog from './MeasureDialog.vue'

enableAutoUnmount(afterEach)
beforeEach(() => {
  unserve()
  serveFarm()
  document.body.innerHTML = ''
})

async function dialog(measure: Measure | null) {
  const part: VueWrapper = mounted(MeasureDialog, {
    props: { measure, open: false, 'onUpdate:open': (open: boolean) => part.setProps({ open }) } as never,
    attachTo: document.body,
  }) as never
  await flushPromises()
  await part.setProps({ open: true } as never)
  await flushPromises()
  return part
}
const type = async (id: string, text: string) => {
  const input = document.querySelector<HTMLInputElement>(`#${id}`)!
  input.value = text
  input.dispatchEvent(new Event('input'))
  await flushPromises()
}
const save = async () => {
  document.querySelector('form')!.dispatchEvent(new Event('submit', { cancelable: true, bubbles: true }))
  await flushPromises()
}
const alerts = () => [...document.querySelectorAll('.field .fault')].map((one) => one.id)

test('what is missing is asked for where it is missing', async () => {
  await dialog(null)
  await save()
  expect(alerts()).toEqual(['measure-one-said', 'side-of-litres-said'])
  expect(asked('POST', /measures$/)).toEqual([])
})

test('a side that makes no vessel is told at the side while it is typed', async () => {
  const cone = { by: 'cone', top_cm: 28, bottom_cm: 22, height_cm: 24 } as const
  serve('POST /api/measures/volume', { body: { litres: 11.8 } })
  await dialog({ ...bucket, way: cone })
  expect(document.body.textContent).toMatch(/11\.8 L|12 L/)
  serve('POST /api/measures/volume', refusal(422, { field: 'way.top_cm', reason: 'is wider than a barn' }))
  await type('side-of-top_cm', '900')
  expect(document.querySelector('#side-of-top_cm-said')!.textContent).toBe('is wider than a barn')
})

test('a name without a plural is its own, and filled higher than the rim is a share', async () => {
  serve('POST /api/measures/volume', { body: { litres: 12 } })
  serve('POST /api/sites/site-1/measures', { body: { ...bucket, id: 'new' }, status: 201 })
  await dialog(null)
  await type('measure-one', 'pail')
  await type('side-of-litres', '12')
  await type('measure-heaped', '120')
  await save()
  expect(asked('POST', '/api/sites/site-1/measures')[0]!.body).toMatchObject({
    name: 'pail',
    plural: 'pail',
    way: { by: 'litres', litres: 12 },
    heaped: 1.2,
  })
})
