import { readdirSync, readFileSync } from 'node:fs'
import { expect, test } from 'vitest'

const HERE = new URL('..', import.meta.url).pathname
/** These are no controls, and bring none. */
const PLAIN = ['primevue/usetoast', 'primevue/toastservice', 'primevue/config']

test('whatever has a control of the library brings what makes it ready', () => {
  const files = readdirSync(HERE, { recursive: true, encoding: 'utf8' }).filter(
    (file) => /\.(vue|ts)$/.test(file) && !file.startsWith('testing/') && !file.endsWith('.test.ts'),
  )
  const with_controls = files.filter((file) =>
    [...readFileSync(`${HERE}/${file}`, 'utf8').matchAll(/from '(primevue\/[^']+)'/g)].some(
      ([, name]) => !PLAIN.includes(name!),
    ),
  )
  expect(with_controls.length).toBeGreaterThan(8)
  const without = with_controls.filter(
    (file) => !readFileSync(`${HERE}/${file}`, 'utf8').includes("import '@/theme/controls'"),
  )
  expect(without).toEqual([])
})
