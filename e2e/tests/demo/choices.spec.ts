import { expect, seriousFaults, test } from '../page'

const heading = { level: 1 } as const

test('good mixes of the stock stand side by side, and one goes to the bench', async ({ page }) => {
  await page.goto('/bench')
  await page.getByRole('link', { name: 'Find a mix' }).click()
  await expect(page.getByRole('heading', heading)).toHaveText(/^\d good mixes from this stock, up to 2\.5\sm³\.$/)
  expect(await page.getByRole('article').count()).toBeGreaterThanOrEqual(3)
  expect(await seriousFaults(page)).toEqual([])
  const least = page.getByRole('article').filter({ hasText: 'Least water to carry' })
  await expect(least).toContainText('stay behind')

  const soonest = page.getByRole('article').filter({ hasText: 'Uses most of what spoils first' })
  await expect(soonest).toContainText('5 buckets Kitchen scraps')
  await soonest.getByRole('button', { name: /^Put on the bench/ }).click()
  await expect(page.getByRole('heading', heading)).toHaveText('This mix is right.')
  await expect(page.getByRole('spinbutton', { name: 'Amount of Kitchen scraps' })).toHaveValue('5')
  await page.getByRole('button', { name: 'Undo' }).click()
  await expect(page.getByRole('heading', heading)).toHaveText('What shall go in?')
})

test('when nothing fits, the nearest mix and what is missing are named', async ({ page }) => {
  await page.goto('/choices')
  await page.getByLabel('At least, m³').fill('8')
  await page.getByLabel('At most, m³').fill('12')
  await expect(page.getByRole('heading', heading)).toHaveText('Nothing from this stock fits all windows.')
  await expect(page.getByText(/^Too small: 2\.\d\sm³, at least 8\.0\sm³ is wanted\.$/)).toBeVisible()
  await expect(page.getByRole('region', { name: 'One of these would mend it' })).toContainText('barrows')
  expect(await seriousFaults(page)).toEqual([])
})

test('what fits in no whole measures is not called impossible: parts of a measure are one tap away', async ({ page }) => {
  await page.goto('/choices')
  await page.getByLabel('At least, m³').fill('0.05')
  await page.getByLabel('At most, m³').fill('0.06')
  await expect(page.getByRole('heading', heading)).toHaveText('No mix in whole measures fits all windows.')
  await expect(page.getByRole('region', { name: 'One of these would mend it' })).toBeHidden()
  expect(await seriousFaults(page)).toEqual([])
  await page.getByRole('button', { name: 'Allow parts of a measure' }).click()
  await expect(page.getByRole('heading', heading)).toHaveText(/good mix(es)? from this stock/)
})
