// @vitest-environment happy-dom
import { expect, test } from 'vitest'
import { mounted } from './mounted'
import NumberField from './NumberField.vue'

function field(props: Record<string, unknown> = {}) {
  const part = mounted(NumberField, {
    props: {
      modelValue: 4,
      max: 100,
      'onUpdate:modelValue': (modelValue: number | null) => part.setProps({ modelValue }),
      ...props,
    } as never,
  })
  const input = part.get('input')
  const type = (text: string) => input.setValue(text)
  return { part, input, type, value: () => part.props('modelValue' as never) as number | null }
}

test('a comma and a point both count, at every stroke', async () => {
  const { type, value } = field()
  for (const [typed, number] of [
    ['2,5', 2.5],
    ['2.75', 2.75],
    ['7', 7],
  ] as const) {
    await type(typed)
    expect(value()).toBe(number)
  }
})

test('what is no number or out of range does not count, and goes back when the field is left', async () => {
  const { input, type, value } = field()
  for (const odd of ['four', '', '-1', '101', '1e9']) {
    await type(odd)
    expect(value()).toBe(4)
    expect(input.classes()).toContain('p-invalid')
  }
  await input.trigger('blur')
  expect((input.element as HTMLInputElement).value).toBe('4')
  expect(input.classes()).not.toContain('p-invalid')
})

test('it may be left empty only where that is allowed', async () => {
  const { type, value, input } = field({ empty: true })
  await type('')
  expect(value()).toBeNull()
  expect(input.classes()).not.toContain('p-invalid')
})

test('the arrow keys step it, and stop at its ends', async () => {
  const { input, value } = field({ modelValue: 99, step: 2 })
  await input.trigger('keydown', { key: 'ArrowUp' })
  expect(value()).toBe(100)
  for (let times = 0; times < 60; times++) await input.trigger('keydown', { key: 'ArrowDown' })
  expect(value()).toBe(0)
})
