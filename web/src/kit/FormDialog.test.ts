// @vitest-environment happy-dom
import { enableAutoUnmount, flushPromises } from '@vue/test-utils'
import { afterEach, expect, test } from 'vitest'
import FormDialog from './FormDialog.vue'
import { mounted } from '@/testing/mounted'

enableAutoUnmount(afterEach)

async function dialog(props: Record<string, unknown> = {}) {
  const part = mounted(FormDialog, {
    props: {
      open: true,
      does: 'Save',
      header: 'A lot',
      'onUpdate:open': (open: boolean) => part.setProps({ open }),
      ...props,
    } as never,
    slots: { default: '<input id="only" />' },
    attachTo: document.body,
  })
  await flushPromises()
  const button = (name: string) =>
    // One that is closing may still stand before it.
    [...document.querySelectorAll('button')].filter((one) => one.textContent?.trim() === name).at(-1)!
  return { part, button }
}

test('it is sent by its button and by the key that ends a line, and only by its owner closed', async () => {
  const { part, button } = await dialog()
  button('Save').click()
  document.querySelector('form')!.dispatchEvent(new Event('submit', { cancelable: true, bubbles: true }))
  expect(part.emitted('save')!.length).toBeGreaterThan(0)
  expect(part.props('open' as never)).toBe(true)
  button('Cancel').click()
  await flushPromises()
  expect(part.props('open' as never)).toBe(false)
})

test('what was refused of the whole is said aloud, and a form under way is not sent again', async () => {
  const { button } = await dialog({ fault: 'The data file is busy', pending: true })
  expect(document.querySelector('[role=alert]')!.textContent).toBe('The data file is busy')
  expect(button('Save').disabled).toBe(true)
})

test('whoever went on while it still opened stays in their field', async () => {
  const part = mounted(FormDialog, {
    props: { open: true, does: 'Save', header: 'A lot' } as never,
    slots: { default: '<input id="first" autofocus /><input id="second" />' },
    attachTo: document.body,
  })
  await flushPromises()
  const marked = () => [...document.querySelectorAll('[role=dialog] [autofocus]')].map(({ id }) => id)
  document.querySelector('#second')!.dispatchEvent(new FocusEvent('focusin', { bubbles: true }))
  expect(marked()).toEqual(['second'])
  part.unmount()
})
