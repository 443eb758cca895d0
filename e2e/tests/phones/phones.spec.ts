import type { Browser, Page } from '@playwright/test'
import { expect, PHONE, seriousFaults, sticksOut, test } from '../page'
import { Program } from './program'

/** Two phones, each with a browser of its own, at one farm whose machine dies and comes back. */
let program: Program
test.beforeEach(async () => {
  program = await Program.begun()
})
test.afterEach(() => program.end())

/** A phone that has the app and the farm's last answers on it. */
async function phone(browser: Browser): Promise<Page> {
  const context = await browser.newContext({ viewport: PHONE, hasTouch: true, baseURL: program.address })
  const page = await context.newPage()
  await page.goto('/batches')
  await expect
    .poll(() => page.evaluate(() => !!navigator.serviceWorker.controller), { timeout: 30_000 })
    .toBe(true)
  return page
}

const place = (page: Page, layer: number) => page.getByText(`layer ${layer} of 11`, { exact: true })
const done = (page: Page) => page.getByRole('button', { name: 'Done' }).click()
const waits = (page: Page, words: RegExp) => page.getByRole('status').filter({ hasText: words })

interface Heap {
  laid: number
  build: { steps: { portions: { amount: number }[] }[] }
}

test('two phones do different things to one heap while the server is dead; both stand, and one clash is asked about', async ({
  browser,
}) => {
  test.setTimeout(240_000)
  const [one, other] = [await phone(browser), await phone(browser)]
  await one.goto('/batches')
  await one.getByRole('button', { name: 'Begin build day of Terrace heap' }).click()
  await expect(place(one, 1)).toBeVisible()
  await done(one)
  await expect(place(one, 2)).toBeVisible()
  const address = new URL(one.url()).pathname
  const id = address.split('/').at(-1)!
  // Seen once with signal, it is on both phones.
  for (const page of [one, other]) {
    await page.goto(address)
    await expect(place(page, 2)).toBeVisible()
  }
  const before = await program.answer<Heap>(`/api/heaps/${id}`)

  await program.kill()
  await done(one)
  await expect(place(one, 3)).toBeVisible()
  await done(one)
  await expect(place(one, 4)).toBeVisible()
  await expect(waits(one, /2 things done here wait/)).toBeVisible()

  // The other puts the first layer right, and lays another second one.
  await other.getByText(/^All steps/).click()
  await other.getByRole('button', { name: 'Change what went into step 1', exact: true }).click()
  const dialog = other.getByRole('dialog')
  await dialog.getByRole('button', { name: /^More/ }).first().click()
  await dialog.getByRole('button', { name: 'That went in' }).click()
  await expect(waits(other, /1 thing done here waits/)).toBeVisible()
  await other.waitForTimeout(700)
  await other.getByRole('button', { name: 'Something else went in' }).click()
  await dialog.getByRole('button', { name: /^More/ }).first().click()
  await dialog.getByRole('button', { name: 'That went in' }).click()
  await expect(waits(other, /2 things done here wait/)).toBeVisible()
  await expect(place(other, 3)).toBeVisible()
  // The phone goes off meanwhile.
  await other.goto('about:blank')

  await program.start()
  await expect(waits(one, /wait/)).toHaveCount(0, { timeout: 60_000 })
  await expect.poll(async () => (await program.answer<Heap>(`/api/heaps/${id}`)).laid).toBe(3)

  await other.goto(address)
  await expect(waits(other, /1 of them needs a word/)).toBeVisible({ timeout: 60_000 })
  await other.getByRole('link', { name: 'See what waits' }).click()
  await expect(other.getByRole('heading', { name: '1 thing waits on this device' })).toBeVisible()
  await expect(other.getByRole('heading', { name: 'On this device', exact: true })).toBeVisible()
  await expect(other.getByRole('heading', { name: /^At the farm, by/ })).toBeVisible()
  expect(await seriousFaults(other)).toEqual([])
  expect(await sticksOut(other)).toBe(0)
  await other.getByRole('button', { name: 'This is right' }).click()
  await expect(other.getByRole('heading', { name: 'Nothing waits on this device' })).toBeVisible()

  // Nothing of either is lost: three layers, the first as put right, the second as decided.
  const after = await program.answer<Heap>(`/api/heaps/${id}`)
  const first = (heap: Heap, step: number) => heap.build.steps[step]!.portions[0]!.amount
  expect(after.laid).toBe(3)
  expect(first(after, 0)).toBeGreaterThan(first(before, 0))
  expect(first(after, 1)).toBeGreaterThan(first(before, 1))
  await one.goto(address)
  await expect(place(one, 4)).toBeVisible()
})

test('a build day begun and done wholly without signal, by a phone that was off in between', async ({ browser }) => {
  test.setTimeout(180_000)
  const page = await phone(browser)
  // What is needed in the field comes by itself once there is nothing else to do.
  await expect
    .poll(
      () =>
        page.evaluate(async () => {
          const kept = await (await caches.open('zymarch-answers')).keys()
          return kept.filter(({ url }) => /\/batches\/[^/]+\/heap$/.test(url)).length
        }),
      { timeout: 60_000 },
    )
    .toBe(2)
  await program.kill()
  await page.goto('/batches')
  await page.getByRole('button', { name: 'Begin build day of Terrace heap' }).click()
  for (let layer = 1; layer <= 11; layer++) {
    if (layer === 6) {
      // The phone was off, and comes back by the list.
      await page.goto('about:blank')
      await page.goto('/batches')
      await expect(page.getByRole('link', { name: 'Terrace heap: 5 of 11 laid' })).toBeVisible()
      await page.getByRole('link', { name: 'Go on building Terrace heap' }).click()
    }
    await expect(place(page, layer)).toBeVisible()
    await page.waitForTimeout(650)
    await done(page)
  }
  await expect(waits(page, /12 things done here wait/)).toBeVisible()
  await program.start()
  await expect(waits(page, /wait/)).toHaveCount(0, { timeout: 90_000 })
  const sites = await program.answer<{ id: string }[]>('/api/sites')
  const heaps = await program.answer<{ laid: number; planned: number; name: string }[]>(
    `/api/sites/${sites[0]!.id}/heaps`,
  )
  const ours = heaps.filter(({ name }) => name.startsWith('Terrace heap'))
  expect(ours.map(({ name, laid, planned }) => [name, laid, planned])).toEqual([['Terrace heap', 11, 11]])
})

test('what is done to stock without signal is carried to another phone as a file, and counts once', async ({
  browser,
}) => {
  test.setTimeout(180_000)
  const [one, other] = [await phone(browser), await phone(browser)]
  const site = (await program.answer<{ id: string }[]>('/api/sites'))[0]!.id
  interface Lot {
    id: string
    material: string
    amount: number
  }
  const lots = () => program.answer<Lot[]>(`/api/sites/${site}/lots`)
  const straw = (await lots()).find(({ material }) => material === 'barley-straw')!
  const dung = (await lots()).find(({ material }) => material === 'sheep-manure')!
  for (const path of [`/stock/${straw.id}`, '/waiting', '/stock']) {
    await one.goto(path)
    await expect(one.getByRole('heading', { level: 1 })).toBeVisible()
  }
  await program.kill()
  await one.goto(`/stock/${straw.id}`)
  await one.getByRole('button', { name: 'More came' }).click()
  await expect(waits(one, /1 thing/)).toBeVisible()
  await one.goto('/stock')
  const row = one.locator('.row').filter({ has: one.getByRole('link', { name: 'Sheep manure', exact: true }) })
  await row.getByRole('button', { name: 'Remove Sheep manure' }).click()
  await expect(waits(one, /2 things/)).toBeVisible()
  await expect(row).toHaveCount(0)
  // What it comes to without signal is shown, through a reload.
  await one.goto(`/stock/${straw.id}`)
  await expect(one.getByRole('heading', { level: 1 })).toContainText(String(straw.amount + 1))

  await one.goto('/waiting')
  const [file] = await Promise.all([
    one.waitForEvent('download'),
    one.getByRole('button', { name: 'Carry off as a file' }).click(),
  ])
  const path = await file.path()
  await program.start()
  await other.goto('/waiting')
  await other.locator('input[type=file]').setInputFiles({ name: 'odd.json', mimeType: 'application/json', buffer: Buffer.from('{}') })
  await expect(other.getByText(/is no file of what waits/)).toBeVisible()
  await other.locator('input[type=file]').setInputFiles(path)
  await expect(other.getByText('2 things taken in.')).toBeVisible()
  await expect.poll(async () => (await lots()).some(({ id }) => id === dung.id)).toBe(false)
  // The first phone comes back, too, and sends the same.
  await one.goto('/stock')
  await expect(waits(one, /thing/)).toHaveCount(0, { timeout: 60_000 })
  expect((await lots()).find(({ id }) => id === straw.id)?.amount).toBe(straw.amount + 1)
})
