import ICAL from 'ical.js'
import type { APIRequestContext, Page } from '@playwright/test'
import { atSite, expect, PHONE, test, WIDE } from '../page'

interface Named {
  id: string
  name: string
}

const NOW = Date.parse('2026-03-14T08:00:00Z')
const ago = (days: number) => new Date(NOW - days * 86_400_000).toISOString()

/** A heap of a good mix that was built so many days ago. */
async function built(page: Page, days: number): Promise<string> {
  const batches = (await (await page.request.get(await atSite(page.request, 'batches'))).json()) as Named[]
  const { id } = batches.find(({ name }) => name === 'Terrace heap')!
  const made = await page.request.post(`/api/batches/${id}/built`, {
    data: { at: ago(days) },
  })
  return `/heaps/${((await made.json()) as Named).id}`
}

/** What was written down of it so many days ago. */
async function was(page: Page, heap: string, days: number, what: Record<string, unknown>) {
  const said = await page.request.post(`/api${heap}/log`, {
    data: { what, at: ago(days) },
  })
  expect(said.ok(), await said.text()).toBe(true)
}
const core = (temp_c: number) => ({ kind: 'temperature', temp_c })

async function heapPath(page: Page, name: string): Promise<string> {
  const heaps = (await (await page.request.get(await atSite(page.request, 'heaps'))).json()) as Named[]
  return `/heaps/${heaps.find((heap) => heap.name === name)!.id}`
}

/** A calendar as another program reads it: the day and the words of each event, by its id. */
async function calendar(request: APIRequestContext, path: string) {
  const answer = await request.get(path)
  expect(answer.headers()['content-type']).toContain('text/calendar')
  const root = new ICAL.Component(ICAL.parse(await answer.text()))
  const events = root.getAllSubcomponents('vevent').map((one) => new ICAL.Event(one))
  const by = new Map(
    events.map((event) => [event.uid, { on: event.startDate.toString(), summary: event.summary, event }]),
  )
  expect(by.size, 'no id stands twice').toBe(events.length)
  return by
}

const wrong = (page: Page) => page.getByRole('region', { name: 'What is wrong' })
const hot = (page: Page) => page.getByRole('region', { name: 'Was it hot enough?' })
const ready = (page: Page) => page.getByRole('region', { name: 'Is it ready?' })

/** What is one choice is written at the tap. */
const ONE_TAP = ['Stick', 'Squeeze']

async function writes(page: Page, kind: string, words: (string | RegExp)[]) {
  const bar = page.getByRole('group', { name: 'Write down' })
  const button = bar.getByRole('button', { name: kind, exact: true })
  if (!(await button.isVisible())) await bar.getByRole('button', { name: 'More', exact: true }).click()
  await button.click()
  const dialog = page.getByRole('dialog')
  for (const word of words) await dialog.getByRole('button', { name: word }).click()
  if (!ONE_TAP.includes(kind)) await dialog.getByRole('button', { name: 'Write down', exact: true }).click()
  await expect(dialog).toHaveCount(0)
}

test('a heap that stinks is diagnosed, mended, and seen to recover with a simulated rod', async ({
  page,
}) => {
  await page.setViewportSize(WIDE)
  const heap = await built(page, 14)
  for (const [days, temp] of [
    [12, 56],
    [10, 61],
    [6, 41],
    [5, 38],
  ] as const)
    await was(page, heap, days, core(temp))
  await was(page, heap, 5, { kind: 'rain', mm: 35 })
  await was(page, heap, 4.5, { kind: 'squeeze', feel: 'wet' })
  await was(page, heap, 4.5, { kind: 'seen', signs: ['matted'] })
  await was(page, heap, 4.5, { kind: 'smell', smell: ['rotten'] })
  await page.goto(heap)
  await expect(wrong(page)).toContainText('It is too wet.')
  await expect(wrong(page).getByText(/^Turn it; mix in .+ against the wet; keep rain off/)).toBeVisible()
  await expect(wrong(page)).toContainText('a handful is wet')
  await expect(wrong(page)).toContainText('squeeze a handful from an arm deep')
  // What it says is what stands on Today.
  await page.goto('/today')
  const name = (await (await page.request.get(`/api${heap}/log`)).json()) as Named
  await expect(page.getByRole('heading', { name: `${name.name}: Turn it`, exact: true })).toBeVisible()

  // Mended four days ago: turned, covered; the rod tells what it did since.
  await was(page, heap, 4, { kind: 'turn' })
  await was(page, heap, 4, { kind: 'cover', with: 'roof' })
  const rod = await page.request.post(`/api${heap}/simulated-rod`, {
    data: { name: 'Simulated rod', every_min: 60, hours_a_second: 480 },
  })
  expect(rod.ok(), await rod.text()).toBe(true)
  await page.goto(heap)
  await expect(page.getByText('simulated readings among them')).toBeVisible({
    timeout: 20_000,
  })
  await writes(page, 'Squeeze', [/^right/])
  await writes(page, 'Smell', ['earth'])
  await expect(wrong(page)).toContainText('Nothing is wrong, as far as was read, felt and seen.')
})

test('a late turn moves the calendar, and doubles nothing in it', async ({ page }) => {
  const heap = await built(page, 6)
  for (const [days, temp] of [
    [4, 57],
    [3, 61],
    [2, 62],
    [1, 61],
  ] as const)
    await was(page, heap, days, core(temp))
  const file = `/api${heap}/tasks.ics`
  const before = await calendar(page.request, file)
  const turns = [...before].filter(([id]) => id.includes('-turn-'))
  expect(turns.length).toBeGreaterThan(2)
  expect(turns[0]![1].summary).toContain('Turn it')
  await was(page, heap, 0, { kind: 'turn' })
  const after = await calendar(page.request, file)
  const kept = turns.filter(([id]) => after.has(id))
  expect(kept.length).toBeGreaterThan(1)
  for (const [id, { on }] of kept) expect(after.get(id)!.on, id).not.toBe(on)
})

test('a calendar fetches the tasks from an address of its own, until that is ended', async ({
  page,
  playwright,
}) => {
  await page.setViewportSize(WIDE)
  await page.goto('/today')
  await page.getByText('On your calendar').click()
  await page.getByRole('button', { name: 'Make an address' }).click()
  const address = await page.getByRole('textbox', { name: /^Copy this address/ }).inputValue()
  const { pathname } = new URL(address)
  // As a calendar asks: without a session.
  const phone = await playwright.request.newContext({
    baseURL: new URL(page.url()).origin,
  })
  const events = await calendar(phone, pathname)
  expect([...events.values()].some(({ summary }) => summary.startsWith('Corner heap: '))).toBe(true)
  await page.getByRole('button', { name: 'End it' }).click()
  await expect(page.getByRole('button', { name: 'Make an address' })).toBeVisible()
  expect((await phone.get(pathname)).status()).toBe(404)
  await phone.dispose()
})

test('one heap was proved hot, and one just misses it', async ({ page }) => {
  await page.setViewportSize(WIDE)
  await page.goto(await heapPath(page, 'Lower bay'))
  await expect(hot(page)).toContainText(/Shown on .+: 3 days after each of 3 turns\./)
  await expect(hot(page)).toContainText('the weaker rule; many ask for the other')
  await expect(hot(page)).toContainText('By this weaker rule no days need be waited.')
  await expect(
    hot(page)
      .getByRole('img', { name: /in a hot run/ })
      .first(),
  ).toBeVisible()

  const heap = await built(page, 20)
  for (let half = 0; half <= 28; half++) await was(page, heap, 1 + half / 2, core(58))
  for (const days of [12.2, 9.2, 6.2, 3.2]) await was(page, heap, days, { kind: 'turn' })
  await page.goto(heap)
  await expect(hot(page)).toContainText('Not yet. Still wanted: 1 day at 55 °C and over and 1 more turn.')
  await expect(hot(page)).toContainText('4 turns in its heat, 5 wanted')
  await expect(hot(page)).toContainText('wait 120 days from spreading to harvest')
  await expect(hot(page)).toContainText('not that anything is safe')
})

test('not ready yet, and then ready, with what would settle it', async ({ page }) => {
  await page.setViewportSize(PHONE)
  const heap = await built(page, 150)
  for (const [days, temp] of [
    [146, 60],
    [120, 51],
    [80, 30],
    [1, 18],
  ] as const)
    await was(page, heap, days, core(temp))
  await page.goto(heap)
  await expect(ready(page)).toContainText('It is curing.')
  await expect(ready(page)).toContainText('close a moist handful in a bag')
  await writes(page, 'Seen', ['dark and crumbly'])
  await writes(page, 'Closed bag', ['earth'])
  await expect(ready(page)).toContainText('It is ready, as far as was found.')
  await expect(ready(page).getByText('ready', { exact: true })).toHaveAttribute('aria-current', 'step')
})

test('today is worked through with the keyboard alone, and what was ticked off is undone', async ({
  page,
}) => {
  await page.setViewportSize(WIDE)
  // A batch to come, with a brew that is begun now.
  const path = await atSite(page.request, 'batches')
  const [first] = (await (await page.request.get(path)).json()) as Record<string, unknown>[]
  const { water_l, heap, heaps, method, items } = first!
  const made = await page.request.post(path, {
    data: {
      ...{ name: 'Ring to come', water_l, heap, heaps, method, items },
      build_on: '2026-03-20',
      starters: ['farm-ferment'],
    },
  })
  expect(made.ok(), await made.text()).toBe(true)
  await page.goto('/')
  await expect(page).toHaveURL(/\/today$/)
  await expect(page.getByRole('heading', { level: 1 })).toContainText(/things? to do today/)
  const tick = page.getByRole('button', {
    name: 'Moved: Upper bay: Move it to where it cures',
  })
  await tick.focus()
  await page.keyboard.press('Enter')
  await expect(page.getByText('Written down: moved')).toBeVisible()
  await expect(tick).toHaveCount(0)
  await page.getByRole('button', { name: 'Undo' }).focus()
  await page.keyboard.press('Enter')
  await expect(tick).toBeVisible()
  // Why, and with what.
  const why = page.getByRole('button', { name: 'Why, and with what' }).first()
  await why.focus()
  await page.keyboard.press('Enter')
  await expect(page.getByRole('link', { name: 'About this' })).toBeVisible()
  // Something to prepare is ticked off with its batch.
  const prepares = page.getByRole('button', { name: /^Done: Ring to come/ }).first()
  const label = await prepares.getAttribute('aria-label')
  await prepares.focus()
  await page.keyboard.press('Enter')
  const ticked = page.getByRole('button', {
    name: label!.replace('Done', 'Not done yet'),
  })
  await expect(ticked).toHaveAttribute('aria-pressed', 'true')
  await page.reload()
  await expect(ticked).toBeVisible()
  await ticked.click()
  await expect(prepares).toHaveAttribute('aria-pressed', 'false')
})

test('a place follows another school, and its tasks with it', async ({ page }) => {
  await page.setViewportSize(WIDE)
  const heap = await built(page, 4)
  await was(page, heap, 0.1, core(63))
  await page.goto('/follows')
  await page.getByRole('radio', { name: /^up to 60 °C/ }).check()
  await page.getByLabel(/^Days to harvest where it touches soil/).fill('180')
  await page.getByRole('button', { name: /^Keep for/ }).click()
  await expect(page.getByText('Kept: this place follows it from now on.')).toBeVisible()
  await page.goto(heap)
  await expect(page.getByRole('region', { name: 'What to do here' })).toContainText('The core is at 63 °C')
  await expect(hot(page)).toContainText('wait 180 days')
  await expect(hot(page)).toContainText('So says the local rule.')
  await page.goto('/follows')
  await page.getByRole('radio', { name: /^up to 68 °C/ }).check()
  await page.getByLabel(/^Days to harvest where it touches soil/).fill('')
  await page.getByLabel(/^Days to harvest elsewhere/).fill('')
  await page.getByRole('button', { name: /^Keep for/ }).click()
  await expect(page.getByText('Kept: this place follows it from now on.')).toBeVisible()
})

test('each cause has its page: how to tell, what to do, what not to do', async ({ page }) => {
  await page.setViewportSize(PHONE)
  await page.goto('/reference')
  await page.getByRole('link', { name: 'What goes wrong' }).click()
  await expect(page.getByRole('listitem')).toHaveCount(20)
  await page.getByRole('link', { name: 'Danger of fire' }).click()
  for (const part of ['How to tell', 'What to do', 'What not to do'])
    await expect(page.getByRole('heading', { name: part })).toBeVisible()
  await page.goto('/reference/causes/hail')
  await expect(page.getByRole('alert')).toContainText('There is no cause called hail.')
})
