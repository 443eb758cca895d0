import type { APIRequestContext } from '@playwright/test'
import { PHONE, choose, expect, openBatch, seriousFaults, sticksOut, test } from '../page'

const heading = { level: 1 } as const

/** A site of its own with a barrow and straw alone, opened on the page; gone afterwards. */
async function withStraw(request: APIRequestContext, barrows: number, act: (site: string) => Promise<void>) {
  const made = async (path: string, data: object) => {
    const answer = await request.post(path, { data })
    expect(answer.status(), await answer.text()).toBe(201)
    return (await answer.json()) as { id: string; version: number }
  }
  const site = await made('/api/sites', { name: 'Low field' })
  try {
    // A new site begins with the containers of the one before.
    const measures = (await (await request.get(`/api/sites/${site.id}/measures`)).json()) as {
      id: string
      name: string
    }[]
    const barrow = measures.find(({ name }) => name === 'barrow')!
    await made(`/api/sites/${site.id}/lots`, {
      material: 'wheat-straw',
      amount: barrows,
      unit: 'measure',
      measure_id: barrow.id,
    })
    await act(site.id)
  } finally {
    await request.delete(`/api/sites/${site.id}`)
  }
}

test('a stock that fits nothing is mended by one lot more', async ({ page, request }) => {
  await withStraw(request, 30, async () => {
    await page.goto('/choices')
    await expect(page.getByRole('heading', heading)).toHaveText('Nothing from this stock fits all windows.')
    await expect(page.getByText(/^Too brown: C:N 92, at most 30 is wanted\.$/)).toBeVisible()
    const missing = page.getByRole('region', { name: 'One of these would mend it' })
    const row = missing.getByRole('listitem').filter({ hasText: 'sheep manure' })
    await expect(row).toContainText(/barrows?/)
    const barrows = Number(/([\d.½¼¾]+) barrow/.exec(await row.innerText())![1]!.replace('½', '.5'))
    // Its sum opens: the mix that this one addition makes possible.
    await row.getByRole('button').click()
    const board = page.getByRole('complementary').or(page.getByRole('dialog'))
    await expect(board).toContainText('Wheat straw')
    await expect(board).toContainText('C:N = ΣC ÷ ΣN')
    await page.keyboard.press('Escape')
    expect(await seriousFaults(page)).toEqual([])

    await page.getByRole('link', { name: 'Stock' }).first().click()
    await page.getByRole('button', { name: 'Add a lot' }).click()
    const dialog = page.getByRole('dialog')
    await dialog.getByRole('combobox', { name: 'Material' }).fill('sheep')
    await page.getByRole('option', { name: /^Sheep manure/ }).first().click()
    await dialog.getByLabel('How much').fill(String(Math.ceil(barrows)))
    await choose(dialog.getByRole('combobox', { name: 'Counted in' }), page.getByRole('option', { name: /^barrows/ }))
    await dialog.getByRole('button', { name: 'Add', exact: true }).click()
    await expect(dialog).toBeHidden()
    await page.goto('/choices')
    await expect(page.getByRole('heading', heading)).toHaveText(/^\d good mix/)
  })
})

test('scraps that are pinned go in whole, and the rest adapts', async ({ page }) => {
  await page.goto('/choices')
  const cards = page.getByRole('article')
  await expect(cards.filter({ hasText: 'The cheapest of this size' })).toContainText('0.00')
  await page.getByText('Pins and limits').click()
  await page.getByLabel('Kitchen scraps: how much of it').selectOption('all of it')
  await page.getByLabel('Barley straw: how much of it').selectOption('at least')
  await page.getByLabel('Barley straw: so much').fill('6')
  await page.getByLabel('Limit a kind').selectOption('manure')
  await expect(page.getByText('3 set')).toBeVisible()
  await expect(page.getByRole('heading', heading)).toHaveText(/^\d good mix/)
  await expect(async () => {
    const texts = await cards.allInnerTexts()
    expect(texts.length).toBeGreaterThan(1)
    // What all of them hold is told once, above them.
    const alike = await page.getByRole('paragraph').filter({ hasText: /In all \d of them:/ }).allInnerTexts()
    for (const own of texts) {
      const text = [...alike, own].join(' ')
      expect(text).toContain('5 buckets Kitchen scraps')
      expect(Number(/(\d+) carrying cloths barley straw/.exec(text)![1])).toBeGreaterThanOrEqual(6)
    }
  }).toPass()
  expect(await seriousFaults(page)).toEqual([])
  // To the bench and back: what was wanted is still wanted.
  await cards.first().getByRole('button', { name: /^Put on the bench/ }).click()
  await expect(page.getByRole('spinbutton', { name: 'Amount of Kitchen scraps' })).toHaveValue('5')
  await page.getByRole('link', { name: 'Find a mix' }).click()
  await expect(page.getByText('3 set')).toBeVisible()
})

test('an amount pinned on the bench stays when another mix is looked for', async ({ page }) => {
  await openBatch(page, 'Terrace heap')
  await page.getByRole('spinbutton', { name: 'Amount of Sheep manure' }).fill('3')
  await page.getByRole('button', { name: 'Pin this amount of Sheep manure' }).click()
  await expect(page.getByRole('button', { name: 'Unpin Sheep manure' })).toBeVisible()
  expect(await seriousFaults(page)).toEqual([])
  await page.getByRole('link', { name: 'Find a mix' }).click()
  await expect(page.getByText('1 set')).toBeVisible()
  await expect(page.getByRole('heading', heading)).toHaveText(/^\d good mix/)
  // All of them hold it, so it is told once.
  await expect(page.getByRole('paragraph').filter({ hasText: /In all \d of them:.*3 barrows sheep manure/ })).toBeVisible()
})

test('a choice says how sure it is, why it is no larger, and opens its sums', async ({ page }) => {
  await page.goto('/choices')
  const largest = page.getByRole('article').filter({ hasText: 'The largest heap' })
  await largest.getByText('Why no larger one?').click()
  await expect(largest).toContainText('It is as large as you asked for.')
  await expect(largest).toContainText('would make it larger than asked')
  await page.getByLabel('At most, m³').fill('20')
  await expect(largest).toContainText('No larger heap can be made of this stock')
  await expect(largest).toContainText(
    /All Kitchen scraps is used\. One more step of it, 1 bucket, would let the heap grow by [\d.]+\sL/,
  )
  await largest.getByRole('button', { name: /^It works/ }).click()
  const board = page.getByRole('complementary').or(page.getByRole('dialog'))
  await expect(board).toContainText('drawn from its range 2,000 times over (seed 1)')
  await expect(board).toContainText('Barley straw')
  expect(await seriousFaults(page)).toEqual([])
  await page.keyboard.press('Escape')
  await largest.getByRole('button', { name: /^Size / }).click()
  await expect(board).toContainText('V = q ÷ ρ × s')
  await page.keyboard.press('Escape')
  await page.getByLabel('Rather a sure mix').check()
  await expect(page.getByRole('heading', heading)).toHaveText(/^\d good mix/)
})

test('a rule of thumb is unmasked', async ({ page }) => {
  await page.goto('/choices')
  await page.locator('#page').getByRole('link', { name: 'Rules of thumb' }).click()
  // The stock's own straw and manure stand in for brown and green.
  await expect(page.getByRole('heading', heading)).toHaveText(/^It really gives \d+ to 1, not \d+\.$/)
  const rule = page.getByLabel('Type a rule, or pick one')
  await rule.fill('2 wheat straw : 1 sheep manure by volume')
  // By hand: (2 · 92 + 16) / 3 = 67; what it really gives leans on the manure, which was dried here.
  await expect(page.getByRole('heading', heading)).toHaveText(/^It really gives 2\d to 1, not 67\.$/)
  const why = page.getByRole('region', { name: 'Why the shortcut is off' })
  await expect(why).toContainText('Weighed by nitrogen, the truth')
  await expect(why).toContainText('Wheat straw 0.05 kg/L')
  await why.getByRole('button', { name: /^The shortcut, averaging over the parts: 67$/ }).first().click()
  await expect(why).toContainText('2 × 92 = 184')
  expect(await seriousFaults(page)).toEqual([])
  await page.getByRole('button', { name: 'by weight', exact: true }).click()
  await expect(page.getByRole('heading', heading)).toHaveText(/not 67\.$/)
  await rule.fill('some of this and some of that')
  await expect(page.getByText('No numbers stand in it; try 2 brown : 1 green.')).toBeVisible()
})

test('what helps is listed, and done with one tap', async ({ page }) => {
  await openBatch(page, 'Terrace heap')
  await page.getByRole('button', { name: 'What helps' }).click()
  const drawer = page.getByRole('complementary').or(page.getByRole('dialog'))
  const brown = drawer.getByRole('region', { name: 'Too brown: what brings nitrogen?' })
  await expect(brown).toContainText('puts all right')
  await brown.getByRole('button', { name: 'The sum for 1 barrow of sheep manure', exact: true }).click()
  await expect(brown).toContainText('q = (R × ΣN − ΣC) ÷ (C₁ − R × N₁)')
  expect(await seriousFaults(page)).toEqual([])
  await brown.getByRole('button', { name: 'Do it: 1 barrow of sheep manure' }).click()
  await expect(drawer).toContainText('Everything lies in its aim')
  await page.keyboard.press('Escape')
  await expect(page.getByRole('spinbutton', { name: 'Amount of Sheep manure' })).toHaveValue('3')
  await page.getByRole('button', { name: 'Undo', exact: true }).last().click()
  await expect(page.getByRole('spinbutton', { name: 'Amount of Sheep manure' })).toHaveValue('2')
})

test('the bench says how sure the mix is and which test would narrow it', async ({ page }) => {
  await openBatch(page, 'Terrace heap')
  const sure = page.getByRole('region', { name: 'How sure it is' })
  await expect(sure).toContainText(/It works .* C:N \d+ to \d+, \d+ to \d+\s% water/)
  await expect(sure).toContainText(/would narrow it most/)
  await sure.getByRole('link').click()
  await expect(page).toHaveURL(/\/stock\/[0-9a-f-]+\/test\/(drying|weigh)$/)
})

test.describe('on a phone', () => {
  test.use({ viewport: PHONE, hasTouch: true })

  test('limits are set with a thumb', async ({ page }) => {
    await page.goto('/choices')
    await page.getByText('Pins and limits').tap()
    await page.getByLabel('Barley straw: how much of it').selectOption('exactly')
    await expect(page.getByLabel('Barley straw: so much')).toHaveValue('24')
    expect(await sticksOut(page)).toBe(0)
    expect(await seriousFaults(page)).toEqual([])
  })
})

test('a rule typed before the materials are there is read once they are', async ({ page }) => {
  await page.route('**/api/materials', async (route) => {
    await new Promise((done) => setTimeout(done, 1500))
    await route.continue()
  })
  await page.goto('/rules')
  const rule = page.getByLabel('Type a rule, or pick one')
  await rule.fill('1 wheat straw : 1 sheep manure')
  await expect(page.getByRole('heading', heading)).toHaveText(/not 54\.$/)
  await expect(rule).toHaveValue('1 wheat straw : 1 sheep manure')
})
