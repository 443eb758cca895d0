import { expect, openBatch, seriousFaults, test } from '../page'

const heading = { level: 1 } as const

test('a way of composting is chosen with the reasons for and against each', async ({ page }) => {
  await openBatch(page, 'Terrace heap')
  await page.getByRole('link', { name: 'Which suits?' }).click()
  await expect(page.getByRole('heading', heading)).toHaveText('Suited best: bays, turned from one to the next.')
  const ways = page.getByRole('list').filter({ hasText: 'Worm bin' }).first()
  await expect(page.getByRole('img', { name: /, in outline beside a person$/ })).toHaveCount(13)
  await expect(ways).toContainText('It cannot take sheep manure')
  expect(await seriousFaults(page)).toEqual([])

  await page.getByLabel('Hours a week for it').fill('0.3')
  await expect(ways).toContainText('hours of work a week, more than 0.3.')
  await page.getByLabel('Needed in, weeks').fill('8')
  await page.getByLabel('Container').selectOption('ring')
  await page.getByLabel('seeds, roots or sickness in it, or for food eaten raw').check()
  await expect(ways).toContainText('It does not get hot enough for seed and sickness.')
  await expect(ways).toContainText(/Ready in \d+ weeks at the soonest, not in 8\./)

  await page.getByRole('link', { name: 'Layered heap' }).click()
  await expect(page.getByRole('heading', heading)).toHaveText('Layered heap')
  await expect(page.getByRole('region', { name: 'In numbers' })).toContainText('from day 14, every 7 to 21 days')
  await expect(page.getByRole('region', { name: 'How it is done' })).toContainText('The stick is the thermometer')
  expect(await seriousFaults(page)).toEqual([])
  await page.getByRole('button', { name: 'Take it for this mix' }).click()
  await expect(page.getByRole('combobox', { name: 'Way of composting' })).toHaveValue('layered-heap')
  // What was asked for is still asked for.
  await page.getByRole('link', { name: 'Which suits?' }).click()
  await expect(page.getByLabel('Container')).toHaveValue('ring')
})

test('a method that does not exist says so', async ({ page }) => {
  await page.goto('/methods/moon-phase')
  await expect(page.getByRole('heading', heading)).toHaveText('There is no such way of composting.')
})
