import type { Page } from '@playwright/test'
import { expect, PHONE, seriousFaults, test } from '../page'

const LOTS = 120
let site = ''

test.beforeAll(async ({ request }) => {
  const made = await request.post('/api/sites', { data: { name: 'A full shed', altitude_m: null, climate: null } })
  site = ((await made.json()) as { id: string }).id
  for (let at = 1; at <= LOTS; at += 1)
    await request.post(`/api/sites/${site}/lots`, {
      data: { material: 'barley-straw', label: `Lot ${at}`, amount: at, unit: 'kg', own: {} },
    })
})
test.afterAll(({ request }) => request.delete(`/api/sites/${site}`))

async function openStock(page: Page) {
  await page.addInitScript(
    (id) => localStorage.setItem('zymarch-person', JSON.stringify({ site: id, units: 'metric', decimals: 'device' })),
    site,
  )
  await page.goto('/stock')
  await expect(page.getByRole('heading', { level: 1 })).toContainText(`${LOTS} lots`)
}
const rows = (page: Page) => page.locator('.row')

test('of a long stock what is in view is drawn, and all of it is reached', async ({ page }) => {
  await openStock(page)
  await expect(page.getByRole('spinbutton', { name: 'Amount of Lot 1', exact: true })).toBeVisible()
  expect(await rows(page).count()).toBeLessThan(40)
  expect(await seriousFaults(page)).toEqual([])
  // By keyboard, from one to the next, beyond what was drawn at first.
  await page.getByRole('link', { name: 'Lot 1', exact: true }).focus()
  for (let press = 0; press < 7 * 45; press += 1) await page.keyboard.press('Tab')
  const at = await page.evaluate(() => document.activeElement?.closest('li')?.getAttribute('aria-posinset'))
  expect(Number(at)).toBeGreaterThan(40)
  await expect(page.locator(':focus')).toBeInViewport()
  // By what is looked for.
  await page.getByRole('searchbox', { name: 'Find in your stock' }).fill('lot 117')
  await expect(page.getByRole('spinbutton', { name: 'Amount of Lot 117' })).toBeVisible()
  await expect(rows(page)).toHaveCount(1)
  // On paper, all of it.
  await page.getByRole('searchbox', { name: 'Find in your stock' }).fill('')
  await page.emulateMedia({ media: 'print' })
  await expect(rows(page)).toHaveCount(LOTS)
})

test('an amount stepped stays when its row goes out of view before it is written down', async ({ page }) => {
  await openStock(page)
  const amount = page.getByRole('spinbutton', { name: 'Amount of Lot 2', exact: true })
  await page.getByRole('button', { name: 'More Lot 2', exact: true }).click()
  await page.evaluate(() => {
    ;(document.activeElement as HTMLElement).blur()
    window.scrollTo(0, document.body.scrollHeight)
  })
  await expect(page.getByRole('spinbutton', { name: `Amount of Lot ${LOTS}` })).toBeVisible()
  await expect(amount).toHaveCount(0)
  await page.evaluate(() => window.scrollTo(0, 0))
  await expect(amount).toHaveValue('3')
  await page.waitForTimeout(800)
  await page.reload()
  await expect(amount).toHaveValue('3')
})

test.describe('on a phone', () => {
  test.use({ viewport: PHONE, hasTouch: true })

  test('all lots come onto the bench from a list that is drawn as it is pushed', async ({ page }) => {
    await openStock(page)
    await page.goto('/bench')
    await expect(page.getByRole('button', { name: /^Lot 1 / })).toBeVisible()
    expect(await page.locator('.choices button').count()).toBeLessThan(40)
    await page.getByRole('button', { name: /^Lot 1 / }).tap()
    await page.getByRole('button', { name: 'Add from stock' }).tap()
    const list = page.getByRole('dialog')
    await expect(list.getByRole('button', { name: /^Lot 2 / })).toBeVisible()
    await list.locator('.p-dialog-content').evaluate((box) => box.scrollTo(0, box.scrollHeight))
    await expect(list.getByRole('button', { name: new RegExp(`^Lot ${LOTS} `) })).toBeVisible()
    expect(await list.locator('.choices button').count()).toBeLessThan(40)
  })
})
