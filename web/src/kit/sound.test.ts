// @vitest-environment happy-dom
import { flushPromises } from '@vue/test-utils'
import { expect, test } from 'vitest'
import { defineComponent, h, ref } from 'vue'
import { mounted } from '@/testing/mounted'
import FormDialog from './FormDialog.vue'
import NumberField from './NumberField.vue'

test('a form with a number that cannot be read sends nothing, and goes there', async () => {
  let saved = 0
  const value = ref<number | null>(4)
  const Form = defineComponent(
    () => () =>
      h(FormDialog, { open: true, does: 'Save', onSave: () => saved++ }, () =>
        h('div', { class: 'field' }, [
          h(NumberField, {
            id: 'kg',
            max: 100,
            modelValue: value.value,
            'onUpdate:modelValue': (now: number | null) => (value.value = now),
          }),
        ]),
      ),
  )
  mounted(Form, { attachTo: document.body })
  await flushPromises()
  const input = document.querySelector<HTMLInputElement>('#kg')!
  const type = async (text: string) => {
    input.value = text
    input.dispatchEvent(new Event('input'))
    await flushPromises()
  }
  const submit = async () => {
    document.querySelector('form')!.dispatchEvent(new Event('submit', { cancelable: true }))
    await flushPromises()
  }
  input.focus()
  await type('2000')
  await submit()
  expect([saved, value.value]).toEqual([0, 4])
  expect(document.activeElement).toBe(input)
  expect(document.querySelector('.number-fault')!.textContent).toBe('At most 100.')
  await type('20')
  await submit()
  expect([saved, value.value]).toEqual([1, 20])
})
