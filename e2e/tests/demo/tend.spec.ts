import type { Page } from '@playwright/test'
import { atSite, expect, PHONE, seriousFaults, sticksOut, test, WIDE } from '../page'

interface Named {
  id: string
  name: string
}

/** The page of a heap of the demo farm, or one beneath it. */
async function heapPath(page: Page, name: string, beneath = ''): Promise<string> {
  const heaps = (await (await page.request.get(await atSite(page.request, 'heaps'))).json()) as Named[]
  return `/heaps/${heaps.find((heap) => heap.name === name)!.id}${beneath}`
}

/** A heap of a batch that was built so many days ago. */
async function built(page: Page, days: number): Promise<string> {
  const batches = (await (await page.request.get(await atSite(page.request, 'batches'))).json()) as Named[]
  const { id } = batches.find((batch) => batch.name === 'Terrace heap')!
  const at = new Date(Date.parse('2026-03-14T08:00:00Z') - days * 86_400_000).toISOString()
  const made = await page.request.post(`/api/batches/${id}/built`, { data: { at } })
  return `/heaps/${((await made.json()) as Named).id}`
}

const log = (page: Page) => page.getByRole('region', { name: 'What happened' })

test('a stick is written down in two taps, and taken back in one', async ({ page }) => {
  await page.setViewportSize(PHONE)
  await page.goto(await heapPath(page, 'Bean ring'))
  await page.getByRole('button', { name: 'Stick', exact: true }).click()
  await page.getByRole('button', { name: /^warm/ }).click()
  await expect(page.getByText('Written down: stick: warm')).toBeVisible()
  await expect(log(page).getByRole('listitem').first()).toContainText('stick: warm')
  await page.getByRole('button', { name: 'Undo' }).click()
  await expect(log(page).getByRole('listitem').first()).toContainText('stick: cool')
})

test('from the list of heaps a temperature is written down with the keyboard alone', async ({ page }) => {
  await page.setViewportSize(WIDE)
  await page.goto('/heaps')
  await page.getByRole('button', { name: 'Bean ring: temperature' }).focus()
  await page.keyboard.press('Enter')
  await page.keyboard.type('33.5')
  await page.keyboard.press('Enter')
  await expect(page.getByText(/Written down: 33\.5\s°C in the core/)).toBeVisible()
  await expect(page.getByRole('listitem').filter({ hasText: 'Bean ring' })).toContainText(
    /33\.5\s°C in the core/,
  )
})

test('an entry that was wrong is put right: what it says, and when it was', async ({ page }) => {
  await page.setViewportSize(WIDE)
  await page.goto(await built(page, 12))
  await page.getByRole('button', { name: 'Temperature', exact: true }).click()
  await page.getByLabel('How warm, °C').fill('75')
  await page.getByRole('button', { name: 'It was earlier' }).click()
  await page.getByLabel('When it was').fill('2026-03-10T07:30')
  await page.getByRole('button', { name: 'Write down', exact: true }).click()
  await expect(log(page)).toContainText(/75\s°C in the core/)
  await log(page)
    .getByRole('button', { name: /^Put right: 75/ })
    .click()
  await page.getByLabel('How warm, °C').fill('57')
  await page.getByLabel('When it was').fill('2026-03-11T07:30')
  await page.getByLabel('Note', { exact: true }).fill('read it wrongly')
  await page.getByRole('dialog').getByRole('button', { name: 'Put right' }).click()
  await expect(log(page)).toContainText(/57\s°C in the core/)
  await expect(log(page)).not.toContainText(/75\s°C/)
  await expect(log(page)).toContainText('11 Mar 2026')
  await expect(log(page)).toContainText('read it wrongly')
})

test('late entries stand where they belong, whatever the order they came in', async ({ page }) => {
  await page.setViewportSize(WIDE)
  const path = await built(page, 20)
  for (const [kind, day] of [
    ['turn', 10],
    ['stick', 2],
    ['turn', 5],
    ['rain', 7],
  ] as const) {
    const what = kind === 'stick' ? { kind, feel: 'hot' } : kind === 'rain' ? { kind, mm: 12 } : { kind }
    const at = new Date(Date.parse('2026-02-22T09:00:00Z') + day * 86_400_000).toISOString()
    const sent = await page.request.post(`/api${path}/log`, { data: { what, at } })
    expect(sent.status()).toBe(200)
  }
  await page.goto(path)
  const rows = log(page).getByRole('listitem')
  await expect(rows.first()).toBeVisible()
  const words = (await rows.allTextContents()).filter((row) => /turned|stick|rain/.test(row))
  expect(words.map((row) => /turned|stick|rain/.exec(row)![0])).toEqual(['turned', 'rain', 'turned', 'stick'])
  await page.getByText('The same as a table').click()
  await expect(page.getByRole('row', { name: /^day\s10/ })).toContainText('turned')
})

test('what was put in comes from stock, and goes back when it is taken back', async ({ page }) => {
  await page.setViewportSize(WIDE)
  const lots = async () => {
    const all = (await (await page.request.get(await atSite(page.request, 'lots'))).json()) as {
      material: string
      amount: number
    }[]
    return all.find(({ material }) => material === 'potato-haulm')!.amount
  }
  const before = await lots()
  await page.goto(await built(page, 6))
  await page.getByRole('button', { name: 'More', exact: true }).click()
  await page.getByRole('button', { name: 'Put in', exact: true }).click()
  await page
    .getByRole('dialog')
    .getByRole('button', { name: /Potato haulm/ })
    .click()
  await page.getByRole('button', { name: 'Write down', exact: true }).click()
  await expect(log(page)).toContainText('put in: 1 potato sack potato haulm')
  await expect.poll(lots).toBe(before - 1)
  await log(page)
    .getByRole('button', { name: /^Take back: put in/ })
    .click()
  await expect(log(page)).not.toContainText('put in:')
  // It is gone from the screen before the farm has heard of it.
  await expect.poll(lots).toBe(before)
})

test("a logger's file is shown, its bad rows are named, and it is taken in once", async ({ page }) => {
  await page.setViewportSize(WIDE)
  const path = await built(page, 15)
  await page.goto(path)
  await page.getByRole('link', { name: "Take in a logger's file" }).click()
  const rows = Array.from({ length: 200 }, (_, nth) => {
    const at = new Date(Date.parse('2026-03-02T00:00:00Z') + nth * 1_800_000)
    return `${at.toISOString().slice(0, 16).replace('T', ' ')};${(48 + (nth % 9)).toString()},5;12,${nth % 10}`
  })
  rows[3] = 'battery changed;;'
  rows[7] = '2026-03-02 03:30;--;12,1'
  const text = `Date;Core;Ambient\n${rows.join('\n')}\n`
  const file = { name: 'rod.csv', mimeType: 'text/csv', buffer: Buffer.from(text) }
  await page.getByLabel('A file of comma-separated values').setInputFiles(file)
  await expect(page.getByText('200 rows', { exact: true })).toBeVisible()
  await expect(page.getByText('2 rows have something that cannot be read')).toBeVisible()
  await expect(page.getByText(/^Line 5, Date: /)).toBeVisible()
  await expect(page.getByText(/^Line 9, Core: /)).toBeVisible()
  await expect(page.getByRole('img', { name: /core: 49\s°C to 57\s°C/ })).toBeVisible()
  await expect(page.getByLabel('Where Ambient was read')).toHaveValue('air')
  expect(await seriousFaults(page)).toEqual([])
  await page.getByRole('button', { name: 'Take in 397' }).click()
  await expect(page.getByRole('heading', { level: 1 })).toContainText(/5\d(\.\d)?\s°C in the core/)
  await expect(log(page)).toContainText('from rod.csv: 397 readings')
  await page.goto(`${path}/import`)
  await page.getByLabel('A file of comma-separated values').setInputFiles(file)
  await expect(page.getByText('397 are there already')).toBeVisible()
  await expect(page.getByRole('button', { name: 'Take in 0' })).toBeDisabled()
})

test('a photo is made small, kept and shown', async ({ page }) => {
  await page.setViewportSize(PHONE)
  const path = await built(page, 3)
  await page.goto(path)
  const png = await page.screenshot()
  await page.getByRole('button', { name: 'More', exact: true }).click()
  await page.getByRole('button', { name: 'Photo', exact: true }).click()
  await page
    .getByLabel('Take or choose a photo')
    .setInputFiles({ name: 'heap.png', mimeType: 'image/png', buffer: png })
  await expect(page.getByRole('dialog').getByRole('img', { name: 'photo' })).toBeVisible()
  await page.getByLabel('Note', { exact: true }).fill('the wet corner')
  await page.getByRole('button', { name: 'Write down', exact: true }).click()
  const picture = log(page).getByRole('img', { name: 'the wet corner' })
  await picture.scrollIntoViewIfNeeded()
  await expect.poll(() => picture.evaluate((one: HTMLImageElement) => one.naturalWidth)).toBe(PHONE.width)
})

test('forty days of a turned heap with a simulated rod, in fast time, and out again', async ({ page }) => {
  await page.setViewportSize(WIDE)
  const path = await built(page, 40)
  for (const day of [7, 14, 22])
    await page.request.post(`/api${path}/log`, {
      data: {
        what: { kind: 'turn' },
        at: new Date(Date.parse('2026-02-02T08:00:00Z') + day * 86_400_000).toISOString(),
      },
    })
  await page.goto(path)
  await expect(page.getByRole('heading', { level: 1 })).toContainText('no temperature was read yet')
  await page.getByRole('button', { name: 'Play a simulated rod' }).click()
  await page.getByLabel('How fast').selectOption({ label: '240 hours a second' })
  await page.getByRole('button', { name: 'Play', exact: true }).click()
  await expect(page.getByText('Simulated rod plays')).toBeVisible()
  await expect(page.getByText('simulated readings among them')).toBeVisible({ timeout: 20_000 })
  await expect(page.getByText(/Turned 3 times\./)).toBeVisible()
  // Forty days are 960 hours: four seconds.
  await expect
    .poll(
      async () => {
        const trace = (await (await page.request.get(`/api${path}/trace`)).json()) as {
          lines: { place: string; readings: number }[]
        }
        return trace.lines.find(({ place }) => place === 'core')?.readings ?? 0
      },
      { timeout: 40_000 },
    )
    .toBeGreaterThan(1900)
  await page.reload()
  await expect(page.getByRole('heading', { level: 1 })).toContainText(/°C in the core/)
  await page.getByRole('button', { name: 'Take out all that Simulated rod sent' }).click()
  await expect(page.getByText('All that Simulated rod sent is taken out.')).toBeVisible()
  await expect(page.getByRole('heading', { level: 1 })).toContainText('no temperature was read yet')
})

test('the weather of a place is played at a speed of its own, and taken out again', async ({ page }) => {
  await page.setViewportSize(WIDE)
  await page.goto(await built(page, 5))
  await page.getByText('Weather of this place').click()
  // The demo farm has a station already: a place of its own has none.
  const cutOff = page.getByRole('button', { name: /^Cut off Weather station/ })
  const play = page.getByRole('button', { name: 'Play a simulated weather station' })
  await expect(cutOff.or(play)).toBeVisible()
  if (await cutOff.isVisible()) await cutOff.click()
  await play.click()
  const dialog = page.getByRole('dialog')
  await expect(dialog.getByLabel('What is wrong with it')).toHaveCount(0)
  await dialog.getByLabel('What it is called').fill('Fast weather')
  await dialog.getByLabel('How fast').selectOption({ label: '240 hours a second' })
  await dialog.getByRole('button', { name: 'Play', exact: true }).click()
  await expect(page.getByText('Fast weather plays')).toBeVisible()
  const out = page.getByRole('button', { name: 'Take out all that Fast weather sent' })
  await expect(page.getByRole('listitem').filter({ has: out })).toContainText('simulated')
  await out.click()
  await expect(page.getByText('All that Fast weather sent is taken out.')).toBeVisible()
})

test('a heap that stands already is written down with the day it was built', async ({ page }) => {
  await page.setViewportSize(WIDE)
  await page.goto('/batches')
  await page.getByRole('button', { name: 'Training plot ring stands already' }).click()
  await page.getByLabel('Day and hour of its last layer').fill('2026-03-04T10:00')
  await page.getByRole('button', { name: 'Write it down' }).click()
  await expect(page.getByText(/^Day 9\b/)).toBeVisible()
  await expect(log(page)).toContainText('Built, in')
})

test('the heat trace is moved and read without a mouse, and is a table as well', async ({ page }) => {
  await page.setViewportSize(WIDE)
  await page.goto(await heapPath(page, 'Lower bay'))
  const picture = page.getByRole('img', { name: /^Hottest 6\d/ })
  await expect(picture).toContainText('day 36')
  await picture.focus()
  await page.keyboard.press('+')
  await page.keyboard.press('+')
  await page.keyboard.press('+')
  await expect(picture).not.toContainText('day 36')
  await page.keyboard.press('ArrowLeft')
  await page.keyboard.press('Home')
  await expect(picture).toContainText('day 36')
  await page.getByText('The same as a table').click()
  await expect(page.getByRole('row', { name: /^day\s11/ })).toContainText('turned')
  await picture.hover({ position: { x: 200, y: 100 } })
  await expect(page.getByText(/day \d+: .*in the core.*expected/)).toBeVisible()
})

for (const path of ['', '/import'])
  test(`nothing sticks out of a heap${path} and the checker is content by day and by night`, async ({
    page,
  }) => {
    await page.setViewportSize(PHONE)
    await page.goto(await heapPath(page, 'Corner heap', path))
    await expect(page.getByRole('heading', { level: 1 })).not.toBeEmpty()
    await expect(page.getByText('One moment.')).toHaveCount(0)
    expect(await sticksOut(page)).toBe(0)
    expect(await seriousFaults(page)).toEqual([])
    await page.setViewportSize(WIDE)
    await page.emulateMedia({ colorScheme: 'dark' })
    expect(await seriousFaults(page, ['color-contrast'])).toEqual([])
  })
