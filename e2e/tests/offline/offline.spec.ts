import type { Page } from '@playwright/test'
import { expect, lotPath, openBatch, PHONE, test } from '../page'

/** What a device keeps; each journey goes on from the one before, the last makes people. */
test.describe.configure({ mode: 'serial' })
test.use({ viewport: PHONE, hasTouch: true })

const SILENT = /The farm does not answer/

/** Waits until the app is kept on the device, and stands between the page and the network. */
async function isKept(page: Page) {
  await expect
    .poll(() => page.evaluate(() => !!navigator.serviceWorker.controller), { timeout: 30_000 })
    .toBe(true)
}

const answersKept = (page: Page) =>
  page.evaluate(async () => (await (await caches.open('zymarch-answers')).keys()).length)

test('the app can be installed, with icons of its own', async ({ page, request }) => {
  await page.goto('/stock')
  const link = await page.locator('link[rel="manifest"]').getAttribute('href')
  const manifest = (await (await request.get(link ?? '')).json()) as {
    icons: { src: string; type: string }[]
    display: string
  }
  expect(manifest.display).toBe('standalone')
  for (const { src, type } of manifest.icons) {
    const icon = await request.get(src)
    expect([icon.status(), icon.headers()['content-type']]).toEqual([200, type])
  }
})

test('without signal every page of the field opens with what was there last, and says so', async ({
  page,
  context,
}) => {
  await page.goto('/stock')
  await isKept(page)
  await page.goto('/stock')
  await expect(page.getByText(/12 lots on hand/)).toBeVisible()
  await page.goto('/batches')
  await expect(page.getByRole('button', { name: 'Open Terrace heap', exact: true })).toBeVisible()
  await context.setOffline(true)
  // A page that was never opened on this device, too.
  for (const path of ['/stock', '/batches', '/measures', '/people']) {
    await page.goto(path)
    await expect(page.getByRole('heading', { level: 1 })).toBeVisible()
    await expect(page.getByRole('alert').filter({ hasText: SILENT })).toBeVisible()
  }
  await page.goto('/stock')
  await expect(page.getByText(/12 lots on hand/)).toBeVisible()
  await context.setOffline(false)
  await expect(page.getByText(SILENT)).toHaveCount(0)
})

test('a heap is built without signal, through a phone that was off, and is whole afterwards', async ({
  page,
  context,
}) => {
  await openBatch(page, 'Terrace heap')
  await isKept(page)
  await page.goto('/layers')
  await page.getByRole('button', { name: 'Begin build day' }).click()
  const place = (laid: number) => page.getByText(`layer ${laid + 1} of 11`, { exact: true })
  await expect(place(0)).toBeVisible()
  const address = page.url()
  // Seen by the worker once, so that the device has it.
  await page.goto(address)
  await expect(place(0)).toBeVisible()
  await context.setOffline(true)
  for (let laid = 1; laid <= 3; laid++) {
    await page.getByRole('button', { name: 'Done' }).click()
    await expect(place(laid)).toBeVisible()
  }
  await page.goto('about:blank')
  await page.goto(address)
  await expect(place(3)).toBeVisible()
  await page.getByRole('button', { name: 'Done' }).click()
  await expect(place(4)).toBeVisible()
  await context.setOffline(false)
  await expect(page.getByText(SILENT)).toHaveCount(0)
  const id = address.split('/').at(-1)
  await expect
    .poll(
      async () => ((await (await context.request.get(`/api/heaps/${id}`)).json()) as { laid: number }).laid,
    )
    .toBe(4)

  // What the farm has offered for the rest is taken up without signal as well, and taken back.
  await page.getByRole('button', { name: 'Something else went in' }).tap()
  await page
    .getByRole('spinbutton', { name: /^Amount of/ })
    .first()
    .fill('0')
  await page.getByRole('button', { name: 'That went in' }).tap()
  await expect(place(5)).toBeVisible()
  const isOff = page.getByRole('heading', { name: /^It will end/ })
  await expect(isOff).toBeVisible()
  await page.goto(address)
  await expect(isOff).toBeVisible()
  await context.setOffline(true)
  const change = page.getByRole('button', { name: /^Change the rest/ }).first()
  const waits = page.getByText(/^Kept on this phone/)
  const changed = async () => {
    if (!(await change.isVisible())) await page.locator('details.way > summary').first().tap()
    await change.tap()
    await expect(isOff).toBeHidden()
    await expect(waits).toBeVisible()
  }
  await changed()
  await page.waitForTimeout(700)
  await page.getByRole('button', { name: 'Undo' }).tap()
  await expect(waits).toBeHidden()
  await page.waitForTimeout(700)
  await changed()
  await page.waitForTimeout(700)
  await page.getByRole('button', { name: 'Done' }).tap()
  await expect(place(6)).toBeVisible()
  await context.setOffline(false)
  await expect
    .poll(async () => {
      const { laid, done } = (await (await context.request.get(`/api/heaps/${id}`)).json()) as {
        laid: number
        done: { kind: string }[]
      }
      return [laid, ...done.slice(0, 2).map(({ kind }) => kind)]
    })
    .toEqual([6, 'laid', 'planned'])
})

test('stock is written down while the signal comes and goes, tests among it', async ({ page, context }) => {
  await page.goto(await lotPath(page, 'barley-straw'))
  await isKept(page)
  const before = Number(/[\d.]+/.exec((await page.getByRole('heading', { level: 1 }).textContent())!)![0])
  for (const path of ['', '/test/squeeze']) await page.goto(await lotPath(page, 'barley-straw', path))
  await expect(page.getByRole('heading', { name: 'Squeeze test' })).toBeVisible()
  // It goes while the page is open.
  await context.setOffline(true)
  await page.getByRole('radio').first().check({ force: true })
  await expect(page.getByText(/comes when the farm is reached/)).toBeVisible()
  await page.getByRole('button', { name: 'Keep this' }).click()
  const waits = page.getByRole('status').filter({ hasText: /done here wait/ })
  await expect(waits).toBeVisible()
  await page.getByRole('button', { name: 'More came' }).click()
  await expect(waits).toContainText('2 things')
  await expect(page.getByRole('list', { name: 'Not with the farm yet' }).getByRole('listitem')).toHaveCount(2)
  await context.setOffline(false)
  await expect(waits).toHaveCount(0)
  await expect(page.getByRole('heading', { level: 1 })).toContainText(String(before + 1))
  await expect(page.getByRole('region', { name: 'Small tests' })).toContainText('Squeeze')
})

test('a heap is tended without signal, and what was found is dated as it was', async ({ page, context }) => {
  await page.goto('/heaps')
  await isKept(page)
  const heap = page.getByRole('link', { name: 'Bean ring', exact: true })
  const path = (await heap.getAttribute('href'))!
  // What the field needs is asked ahead, a while after nobody waits for anything.
  await expect
    .poll(
      () =>
        page.evaluate(async (of) => {
          const kept = await (await caches.open('zymarch-answers')).keys()
          return kept.filter(({ url }) => url.includes(of)).length
        }, `/api${path}/`),
      { timeout: 40_000 },
    )
    .toBeGreaterThan(1)
  await context.setOffline(true)
  await page.goto(path)
  const log = page.getByRole('region', { name: 'What happened' })
  await page.getByRole('button', { name: 'Stick', exact: true }).click()
  await page.getByRole('button', { name: /^warm/ }).click()
  await expect(log.getByRole('listitem').first()).toContainText('stick: warm')
  await expect(log.getByRole('listitem').first()).toContainText('waits for signal')
  await context.setOffline(false)
  await expect(log).not.toContainText('waits for signal')
  await expect(log.getByRole('listitem').first()).toContainText('stick: warm')
  const told = (await (await context.request.get(`/api${path}/log`)).json()) as {
    log: { kind: string; at: string }[]
  }
  expect(told.log[0]!.kind).toBe('stick')
})

test('whoever signs out leaves nothing of the farm on the device', async ({ page }) => {
  await page.goto('/people')
  await page.getByLabel('What you are called').fill('Wayra')
  await page.getByLabel('Passphrase', { exact: true }).fill('three barrows of wet straw')
  await page.getByRole('button', { name: 'Become the owner' }).click()
  await expect(page.getByRole('heading', { name: 'Wayra' })).toBeVisible()
  await isKept(page)
  await page.goto('/stock')
  await expect(page.getByText(/lots on hand/)).toBeVisible()
  expect(await answersKept(page)).toBeGreaterThan(0)
  await page.goto('/people')
  await page.getByRole('button', { name: 'Sign out' }).click()
  await expect(page.getByRole('heading', { name: 'Sign in' })).toBeVisible()
  await expect.poll(() => answersKept(page)).toBe(0)
  expect(await page.evaluate(() => localStorage.getItem('zymarch-draft'))).toBeNull()
})
