// @vitest-environment happy-dom
import { flushPromises } from '@vue/test-utils'
import { expect, test } from 'vitest'
import { defineComponent, h } from 'vue'
import { Refused } from '@/api/client'
import { mounted } from '@/testing/mounted'
import FormDialog from './FormDialog.vue'
import FormField from './FormField.vue'
import { atFields, fieldAmong, told } from './refusals'
import { useRefusals } from './useRefusals'

const refused = (...errors: [field: string, reason: string, code?: string][]) =>
  new Refused({
    status: 422,
    title: 'Unprocessable Entity',
    detail: 'no',
    errors: errors.map(([field, reason, code = 'negative']) => ({
      field,
      reason,
      code,
      params: {},
    })) as never,
  })
const words = { noServer: 'no server', stale: 'changed elsewhere' }
const shows = (path: string) => (path === 'amount' ? path : null)

test('a failure is one line: the field before its reason, a sentence as one, silence as silence', () => {
  expect(told(refused(['kg', 'must not be less than 0']), words)).toBe('kg must not be less than 0')
  expect(told(refused(['', 'this lot is not there']), words)).toBe('This lot is not there')
  expect(told(refused(['', 'x', 'stale']), words)).toBe('changed elsewhere')
  expect(told(refused(['', 'x', 'stale']), { noServer: '' })).toBe('X')
  expect(told(new TypeError('failed to fetch'), words)).toBe('no server')
})

test('each reason stands at its field, and what no field shows is said of the whole', () => {
  const both = refused(['amount', 'is too much'], ['own.c_n', 'is odd'], ['amount', 'again'])
  expect(atFields(both, words, shows)).toEqual({ amount: 'is too much', whole: 'amount is too much' })
  expect(atFields(refused(['amount', 'is too much']), words, shows)).toEqual({ amount: 'is too much' })
  expect(atFields(refused(['', 'x', 'stale']), words, shows)).toEqual({ whole: 'changed elsewhere' })
})

test('a form forgets what was refused before it tries again', async () => {
  let failure: unknown = refused(['amount', 'is too much'])
  let form!: ReturnType<typeof useRefusals>
  mounted(
    defineComponent(() => {
      form = useRefusals('lot.stale', shows)
      return () => h('div')
    }),
  )
  expect(await form.tried(() => Promise.reject(failure))).toBe(false)
  expect(form.faults.amount).toBe('is too much')
  failure = new TypeError('failed to fetch')
  await form.tried(() => Promise.reject(failure))
  await flushPromises()
  expect(Object.keys(form.faults)).toEqual(['whole'])
  expect(await form.tried(() => Promise.resolve())).toBe(true)
  expect(Object.keys(form.faults)).toEqual([])
})

test('a path is shown by the field of its last name, or else of its first', () => {
  const fieldOf = fieldAmong('name', 'height_cm', 'dried_g', 'climate')
  expect(fieldOf('way.height_cm')).toBe('height_cm')
  expect(fieldOf('readings.dried_g[1]')).toBe('dried_g')
  expect(fieldOf('climate[3].mean_c')).toBe('climate')
  expect(fieldOf('version')).toBe(null)
})

test('what is refused on saving stands at its field, describes it and is gone to', async () => {
  const Form = defineComponent(() => {
    const { faults, tried } = useRefusals('lot.stale', fieldAmong('kg'))
    const save = () => tried(() => Promise.reject(refused(['mass.kg', 'is too much'])))
    const field = ({ described }: { described?: string }) =>
      h('input', { id: 'kg', 'aria-describedby': described })
    return () =>
      h(FormDialog, { open: true, does: 'Save', fault: faults.whole, onSave: save }, () =>
        h(FormField, { id: 'kg', field: 'kg', label: 'Weight', hint: 'of all of it' }, { default: field }),
      )
  })
  mounted(Form, { attachTo: document.body })
  await flushPromises()
  const input = () => document.querySelector<HTMLInputElement>('#kg')!
  const said = () => document.getElementById(input().getAttribute('aria-describedby')!)!
  expect(said().textContent).toBe('of all of it')
  document.querySelector('form')!.dispatchEvent(new Event('submit', { cancelable: true }))
  await flushPromises()
  expect(said().textContent).toBe('is too much')
  expect(said().getAttribute('role')).toBe('alert')
  expect(document.activeElement).toBe(input())
})
