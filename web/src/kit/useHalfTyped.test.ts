import { expect, test } from 'vitest'
import { nextTick, ref } from 'vue'
import { formOf, useHalfTyped } from './useHalfTyped'

test('what was half typed stays for the same thing, until it is sent or another is opened', async () => {
  const open = ref(false)
  const record = ref<{ id: string; version: number } | null>(null)
  let begun = 0
  const { ended } = useHalfTyped(
    () => open.value,
    () => formOf(record.value),
    () => begun++,
  )
  const again = async () => {
    open.value = false
    await nextTick()
    open.value = true
    await nextTick()
    return begun
  }
  expect(await again()).toBe(1)
  expect(await again()).toBe(1)
  ended()
  expect(await again()).toBe(2)
  record.value = { id: 'a', version: 1 }
  expect(await again()).toBe(3)
  expect(await again()).toBe(3)
  record.value = { id: 'a', version: 2 }
  expect(await again()).toBe(4)
})
