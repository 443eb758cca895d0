// @vitest-environment happy-dom
import { enableAutoUnmount, flushPromises, type VueWrapper } from '@vue/test-utils'
import { asked, refusal, serve, unserve } from '@/testing/served'
import { afterEach, beforeEach, expect, test } from 'vitest'
import type { Site } from '@/api/client'
import { serveFarm, site } from '@/testing/samples'
import { mounted } from '@/testing/mounted'
import SiteDialog from './SiteDialog.vue'

enableAutoUnmount(afterEach)
beforeEach(() => {
  unserve()
  serveFarm()
  document.body.innerHTML = ''
})

async function dialog(of: Site | null) {
  const part: VueWrapper = mounted(SiteDialog, {
    props: { site: of, open: false, 'onUpdate:open': (open: boolean) => part.setProps({ open }) } as never,
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

test('a site needs a name, and opens once it is there', async () => {
  const part = await dialog(null)
  await save()
  expect(document.querySelector('#site-name-said')!.getAttribute('role')).toBe('alert')
  expect(asked('POST', '/api/sites')).toEqual([])
  serve('POST /api/sites', { status: 201, body: { ...site, id: 'site-2', name: 'Lower plot' } })
  await type('site-name', 'Lower plot')
  await save()
  expect(asked('POST', '/api/sites')[0]!.body).toEqual({
    name: 'Lower plot',
    altitude_m: null,
    climate: null,
  })
  expect(part.props('open' as never)).toBe(false)
})

test('a name that is taken and a month that cannot be are told where they stand', async () => {
  await dialog({
    ...site,
    climate: Array.from({ length: 12 }, () => ({ mean_c: 12, swing_c: 7, rain_mm: 50 })),
  })
  serve(
    'PUT /api/sites/site-1',
    refusal(422, { field: 'name', reason: 'is taken' }, { field: 'climate[3].mean_c', reason: 'is too hot' }),
  )
  await save()
  expect(document.querySelector('#site-name-said')!.textContent).toBe('is taken')
  const alerts = [...document.querySelectorAll('.fault')].map((one) => one.textContent)
  expect(alerts).toContain('is too hot')
})
