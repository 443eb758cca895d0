// @vitest-environment happy-dom
import { enableAutoUnmount, flushPromises } from '@vue/test-utils'
import { asked, refusal, serve, unserve } from '@/testing/served'
import { afterEach, beforeEach, expect, test, vi } from 'vitest'
import type { Lot } from '@/api/client'
import { lot, serveFarm } from '@/testing/samples'
import { mounted } from '@/testing/mounted'
import { defineComponent } from 'vue'
import StockRow from './StockRow.vue'
import { useStepped } from './useStepped'
import { useStock } from './useStock'

enableAutoUnmount(afterEach)
beforeEach(() => {
  unserve()
  vi.useFakeTimers({ shouldAdvanceTime: true })
})
afterEach(() => vi.useRealTimers())

/** The rows of the stock, each stepped as on its page. */
const Rows = defineComponent({
  components: { StockRow },
  setup: () => ({ ...useStock(), ...useStepped() }),
  template:
    '<StockRow v-for="lot in lots" :key="lot.id" :lot="lot" :amount="amountOf(lot)" @step="step(lot.id, $event)" />',
})

async function row(of: Lot) {
  serveFarm({ lots: [of] })
  const part = mounted(Rows, {
    global: { stubs: { RouterLink: { props: ['to'], template: '<a :href="to"><slot /></a>' } } },
  } as never)
  await flushPromises()
  const more = part.findAll('.stepper button')[1]!
  const settle = async () => {
    await vi.advanceTimersByTimeAsync(600)
    await flushPromises()
  }
  return { part, more, settle, typed: () => part.find('input').element.value }
}

test('five taps are one change, of the version that was shown', async () => {
  const { more, settle, typed } = await row(lot())
  serve('PUT /api/lots/lot-1', { body: lot({ amount: 9, version: 4 }) })
  for (let tap = 0; tap < 5; tap++) await more.trigger('click')
  expect(typed()).toBe('9')
  expect(asked('PUT', '/api/lots/lot-1')).toEqual([])
  await settle()
  const [only, ...others] = asked('PUT', '/api/lots/lot-1')
  expect(others).toEqual([])
  expect(only!.body).toMatchObject({ version: 3, lot: { amount: 9, material: 'barley-straw' } })
})

test('what is refused goes back to what the records have', async () => {
  const { more, settle, typed } = await row(lot())
  serve('PUT /api/lots/lot-1', refusal(409, { code: 'stale' }))
  await more.trigger('click')
  await settle()
  await settle()
  expect(typed()).toBe('4')
})

test('a tap while the last change is under way is written after it', async () => {
  const { more, settle } = await row(lot())
  let answerFirst!: () => void
  const first = new Promise<void>((done) => (answerFirst = done))
  serve('PUT /api/lots/lot-1', async () => {
    if (asked('PUT', '/api/lots/lot-1').length === 1) await first
    return { body: lot({ amount: 5, version: 4 }) }
  })
  await more.trigger('click')
  await settle()
  await more.trigger('click')
  answerFirst()
  await settle()
  await settle()
  const amounts = asked('PUT', '/api/lots/lot-1').map(({ body }) => (body as { lot: Lot }).lot.amount)
  expect(amounts[0]).toBe(5)
  expect(amounts.at(-1)).toBe(6)
})

test('what has lain too long says so, and what can still be done with it', async () => {
  const { part } = await row(lot({ days_left: -2, rescue: 'count-less-nitrogen' }))
  expect(part.find('.rescue').text().length).toBeGreaterThan(10)
  expect(part.find('.figures .alarm').text()).toMatch(/2 days/)
  const used = await row(lot({ days_left: -2, rescue: 'count-less-nitrogen', amount: 0 }))
  expect(used.part.find('.rescue').exists()).toBe(false)
})

test('what must not go in says so beside its name', async () => {
  const { part } = await row(lot({ must_not_go_in: true }))
  expect(part.find('.named .alarm').exists()).toBe(true)
})

test('a phone that is put away does not wait for the pause', async () => {
  const { more } = await row(lot())
  serve('PUT /api/lots/lot-1', { body: lot({ amount: 5, version: 4 }) })
  await more.trigger('click')
  const away = vi.spyOn(document, 'visibilityState', 'get').mockReturnValue('hidden')
  document.dispatchEvent(new Event('visibilitychange'))
  await flushPromises()
  away.mockRestore()
  await vi.waitFor(() => expect(asked('PUT', '/api/lots/lot-1')).toHaveLength(1))
})

test('what is stepped while a change is on its way is told after it, of the version that it made', async () => {
  const { more, settle } = await row(lot())
  let answers: (() => void)[] = []
  serve('PUT /api/lots/lot-1', async () => {
    await new Promise<void>((done) => answers.push(done))
    const puts = asked('PUT', '/api/lots/lot-1').length
    return { body: lot({ amount: 4 + puts, version: 3 + puts }) }
  })
  await more.trigger('click')
  await settle()
  await more.trigger('click')
  await settle()
  expect(asked('PUT', '/api/lots/lot-1')).toHaveLength(1)
  answers.forEach((done) => done())
  answers = []
  await settle()
  const versions = asked('PUT', '/api/lots/lot-1').map(({ body }) => (body as { version: number }).version)
  expect(versions).toEqual([3, 4])
  answers.forEach((done) => done())
  await settle()
})
