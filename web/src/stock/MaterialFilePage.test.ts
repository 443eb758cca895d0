// @vitest-environment happy-dom
import { enableAutoUnmount, flushPromises } from '@vue/test-utils'
import { asked, refusal, serve, unserve } from '@/testing/served'
import { afterEach, beforeEach, expect, test } from 'vitest'
import { serveFarm } from '@/testing/samples'
import { mounted } from '@/testing/mounted'
import MaterialFilePage from './MaterialFilePage.vue'

enableAutoUnmount(afterEach)
beforeEach(() => {
  unserve()
  serveFarm()
})

const IMPORT = '/api/materials/import'
type Row = { line: number; id: string; name: string | null; what: string; faults: object[]; doubts: object[] }
const row = (line: number, what: string, faults: object[] = []): Row => ({
  line,
  id: `ours-${line}`,
  name: 'Ours',
  what,
  faults,
  doubts: [],
})
const fault = { field: 'c_n', line: 3, code: 'not-numeric', params: { got: 'many' } }

function page() {
  const part = mounted(MaterialFilePage, {
    global: { stubs: { RouterLink: { template: '<a><slot /></a>' } } },
  } as never)
  const choose = async (...bytes: number[]) => {
    const input = part.get('input[type=file]')
    const file = new File([new Uint8Array(bytes)], 'materials.csv')
    Object.defineProperty(input.element, 'files', { value: [file], configurable: true })
    await input.trigger('change')
    // A file is read outside of what flushes.
    await new Promise((done) => setTimeout(done, 20))
    await flushPromises()
  }
  const takeIn = () => part.findAll('button').find((one) => /^Take/.test(one.text()))!
  return { part, choose, takeIn }
}

test('a file of letters that cannot be read is told, and nothing of it is sent', async () => {
  const { part, choose } = page()
  await choose(0x70, 0xef, 0x73)
  expect(part.get('.faults').text()).toMatch(/UTF-8/)
  expect(asked('POST', IMPORT)).toEqual([])
})

test('a file is looked at, and can be taken in only when no row is bad', async () => {
  const { part, choose, takeIn } = page()
  serve(`POST ${IMPORT}`, { body: { written: false, rows: [row(2, 'new'), row(3, 'bad', [fault])] } })
  await choose(0x69, 0x64)
  expect(asked('POST', IMPORT)[0]!.body).toEqual({ csv: 'id', write: false })
  expect(part.get('.faults').text()).toMatch(/3/)
  expect(takeIn().attributes('disabled')).toBeDefined()

  serve(`POST ${IMPORT}`, { body: { written: false, rows: [row(2, 'new')] } })
  await choose(0x69, 0x64)
  expect(takeIn().attributes('disabled')).toBeUndefined()
  serve(`POST ${IMPORT}`, { body: { written: true, rows: [row(2, 'new')] } })
  await takeIn().trigger('click')
  await flushPromises()
  expect(asked('POST', IMPORT).at(-1)!.body).toEqual({ csv: 'id', write: true })
})

test('of more bad rows than anybody reads, it is said how many more there are', async () => {
  const { part, choose } = page()
  const rows = [row(2, 'bad', [fault]), row(3, 'bad'), row(4, 'bad')]
  serve(`POST ${IMPORT}`, { body: { written: false, rows } })
  await choose(0x69)
  const items = part.findAll('.faults > li').map((one) => one.text())
  expect(items.length).toBe(2)
  expect(items.at(-1)).toBe('and 2 more')
})

test('a file without the right columns says which, and what is said of the whole has no field before it', async () => {
  const { part, choose } = page()
  serve(
    `POST ${IMPORT}`,
    refusal(422, { field: 'c_n', reason: 'is no column of it' }, { reason: 'and 7 more' }),
  )
  await choose(0x69)
  expect(part.findAll('.faults > li').map((one) => one.text())).toEqual([
    'c_n: is no column of it',
    'and 7 more',
  ])
})
