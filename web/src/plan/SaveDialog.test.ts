// @vitest-environment happy-dom
import { enableAutoUnmount, flushPromises } from '@vue/test-utils'
import { asked, refusal, serve, unserve } from '@/testing/served'
import { afterEach, beforeEach, expect, test } from 'vitest'
import { nextTick } from 'vue'
import { useDraft } from '@/mix/draft'
import { batch, serveFarm } from '@/testing/samples'
import { mounted } from '@/testing/mounted'
import SaveDialog from './SaveDialog.vue'

enableAutoUnmount(afterEach)
beforeEach(() => {
  unserve()
  serveFarm()
  serve('GET /api/sites/site-1/batches', { body: [batch] })
  localStorage.clear()
  document.body.innerHTML = ''
})

async function dialog(open: boolean) {
  const part = mounted(SaveDialog, {
    props: { open, 'onUpdate:open': (now: boolean) => part.setProps({ open: now }) } as never,
    attachTo: document.body,
  })
  await flushPromises()
  return { part, draft: useDraft() }
}
const text = () => document.body.textContent ?? ''
const submit = async () => {
  document.querySelector('form')!.dispatchEvent(new Event('submit', { cancelable: true, bubbles: true }))
  await flushPromises()
}
const type = async (name: string) => {
  const input = document.querySelector<HTMLInputElement>('#batch-name')!
  input.value = name
  input.dispatchEvent(new Event('input'))
  await nextTick()
}

test('a batch needs a name, and nothing is sent before it has one', async () => {
  const { part } = await dialog(false)
  await part.setProps({ open: true } as never)
  await flushPromises()
  await submit()
  expect(document.querySelector('#batch-name-said')!.getAttribute('role')).toBe('alert')
  expect(asked('POST', /batches/)).toEqual([])
  serve('POST /api/sites/site-1/batches', { body: { ...batch, name: 'Ring one' }, status: 201 })
  await type('Ring one')
  await submit()
  expect(asked('POST', /batches/)[0]!.body).toMatchObject({ name: 'Ring one' })
})

test('a name that is taken is told under the name', async () => {
  const { part } = await dialog(false)
  await part.setProps({ open: true } as never)
  await flushPromises()
  serve('POST /api/sites/site-1/batches', refusal(422, { field: 'name', code: 'taken', reason: 'is taken' }))
  await type('Terrace heap')
  await submit()
  expect(document.querySelector('#batch-name-said')!.textContent).toBe('is taken')
})

test('a batch changed elsewhere is shown beside what is here, and mine can be kept over it', async () => {
  const { part, draft } = await dialog(false)
  draft.open(batch)
  draft.setAmount(0, 7)
  const theirs = { ...batch, version: 5, water_l: 99 }
  serve('PUT /api/batches/batch-1', refusal(409, { code: 'stale' }))
  serve('GET /api/batches/batch-1', { body: theirs })
  serve('GET /api/sites/site-1/batches', { body: [theirs] })
  await (part.vm as unknown as { saveAgain: () => Promise<void> }).saveAgain()
  await flushPromises()
  expect(text()).toContain('7 barrows')
  expect(text()).toContain('3 barrows')

  serve('PUT /api/batches/batch-1', { body: { ...theirs, version: 6 } })
  const [keep] = [...document.querySelectorAll<HTMLButtonElement>('.both button')]
  keep!.click()
  await flushPromises()
  const versions = asked('PUT', '/api/batches/batch-1').map(
    ({ body }) => (body as { version: number }).version,
  )
  expect(versions).toEqual([2, 5])
})

test('a batch removed meanwhile can still be kept under its name', async () => {
  const { part, draft } = await dialog(false)
  draft.open(batch)
  draft.setAmount(0, 7)
  serve('PUT /api/batches/batch-1', refusal(404, { code: 'nothing-there' }))
  await (part.vm as unknown as { saveAgain: () => Promise<void> }).saveAgain()
  await flushPromises()
  expect(document.querySelector<HTMLInputElement>('#batch-name')).not.toBe(null)
})
