// @vitest-environment happy-dom
import { expect, test } from 'vitest'
import { mounted } from '@/testing/mounted'
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

test('what is no number or out of range stays to be mended, and the value is as it was', async () => {
  for (const [odd, said] of [
    ['four', /2\.5/],
    ['-1', /At least 0/],
    ['101', /At most 100/],
    ['1000000', /At most 100/],
    ['1e9', /2\.5/],
  ] as const) {
    const { part, input, value } = field()
    await input.trigger('focus')
    // Stroke by stroke, as it is typed: no half of it may count in the end.
    for (let at = 1; at <= odd.length; at++) await input.setValue(odd.slice(0, at))
    expect(value(), odd).toBe(4)
    expect(input.attributes('aria-invalid')).toBe('true')
    expect(part.find('[role=alert]').exists(), 'not while it is typed').toBe(false)
    await input.trigger('blur')
    expect((input.element as HTMLInputElement).value).toBe(odd)
    expect(part.get('[role=alert]').text()).toMatch(said)
    expect(
      document.getElementById(input.attributes('aria-describedby')!) ?? part.get('[role=alert]'),
    ).toBeTruthy()
    await input.trigger('keydown', { key: 'Escape' })
    expect((input.element as HTMLInputElement).value).toBe('4')
    expect(part.find('[role=alert]').exists()).toBe(false)
  }
})

test('what is set from outside takes the place of what cannot be read', async () => {
  const { part, input, type } = field()
  await input.trigger('focus')
  await type('four')
  await input.trigger('blur')
  await part.setProps({ modelValue: 7 } as never)
  expect((input.element as HTMLInputElement).value).toBe('7')
  expect(input.attributes('aria-invalid')).toBeUndefined()
})

test('nothing typed where something must stand goes back', async () => {
  const { input, type, value } = field()
  await input.trigger('focus')
  await type('')
  await input.trigger('blur')
  expect([(input.element as HTMLInputElement).value, value()]).toEqual(['4', 4])
})

test('it may be left empty only where that is allowed', async () => {
  const { type, value, input } = field({ empty: true })
  await type('')
  expect(value()).toBeNull()
  expect(input.classes()).not.toContain('p-invalid')
})

test('it shows what was stepped or typed before its owner has it', async () => {
  const part = mounted(NumberField, { props: { modelValue: 2, max: 100 } as never })
  const input = part.get('input')
  await input.trigger('keydown', { key: 'ArrowUp' })
  await input.trigger('keydown', { key: 'ArrowUp' })
  expect((input.element as HTMLInputElement).value).toBe('4')
  expect(part.emitted('update:modelValue')).toEqual([[3], [4]])
})

test('the arrow keys step it, and stop at its ends', async () => {
  const { input, value } = field({ modelValue: 99, step: 2 })
  await input.trigger('keydown', { key: 'ArrowUp' })
  expect(value()).toBe(100)
  for (let times = 0; times < 60; times++) await input.trigger('keydown', { key: 'ArrowDown' })
  expect(value()).toBe(0)
})
