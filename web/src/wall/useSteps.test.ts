// @vitest-environment happy-dom
import { enableAutoUnmount, mount } from '@vue/test-utils'
import { afterEach, expect, test, vi } from 'vitest'
import { defineComponent, h, nextTick, ref } from 'vue'
import { useSteps } from './useSteps'

enableAutoUnmount(afterEach)

function stepping(total = ref(3)) {
  const leave = vi.fn()
  let steps!: ReturnType<typeof useSteps>
  mount(
    defineComponent(() => {
      steps = useSteps(total, leave)
      return () => h('input')
    }),
    { attachTo: document.body },
  )
  const press = (key: string, target: EventTarget = window) =>
    target.dispatchEvent(new KeyboardEvent('keydown', { key, bubbles: true }))
  return { steps, leave, press, total }
}

test('arrows and a clicker step on and back, and stop at both ends', () => {
  const { steps, press } = stepping()
  for (const key of ['ArrowRight', 'PageDown', 'ArrowRight', ' ']) press(key)
  expect(steps.at.value).toBe(2)
  for (const key of ['ArrowLeft', 'PageUp', 'ArrowLeft']) press(key)
  expect(steps.at.value).toBe(0)
})

test('what is typed into a field does not step, and escape leaves from anywhere', () => {
  const { steps, leave, press } = stepping()
  press('ArrowRight', document.querySelector('input')!)
  expect(steps.at.value).toBe(0)
  press('Escape', document.querySelector('input')!)
  expect(leave).toHaveBeenCalledOnce()
})

test('where steps fall away the last that is left is shown', async () => {
  const { steps, press, total } = stepping()
  press('ArrowRight')
  press('ArrowRight')
  total.value = 2
  await nextTick()
  expect(steps.at.value).toBe(1)
})
