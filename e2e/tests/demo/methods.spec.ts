import { expect, openBatch, seriousFaults, test } from '../page'

const heading = { level: 1 } as const

test('a method is chosen with the reasons for and against each', async ({ page }) => {
  await openBatch(page, 'Terrace heap')
  await page.getByRole('link', { name: 'Which suits?' }).click()
  await expect(page.getByRole('heading', heading)).toHaveText(
    'Suited best: bays, turned from one to the next.',
  )
  const ways = page.getByRole('list').filter({ hasText: 'Worm bin' }).first()
  await expect(page.getByRole('img', { name: /, in outline beside a person$/ })).toHaveCount(15)
  await expect(ways).toContainText('It must be dug, and floods in the rains')
  expect(await seriousFaults(page)).toEqual([])

  await page.getByLabel('Hours a week for it').fill('0.3')
  await expect(ways).toContainText('h of work a week, more than 0.3.')
  await page.getByLabel('Needed in, weeks').fill('8')
  await page.getByLabel('Container').selectOption('ring')
  await page.getByLabel('weed seeds, roots or disease in it').check()
  await expect(ways).toContainText('It does not get hot enough for weed seeds and disease.')
  await expect(ways).toContainText(/Ready in \d+ weeks at the soonest, not in 8\./)

  await page.getByRole('link', { name: 'Layered heap' }).click()
  await expect(page.getByRole('heading', heading)).toHaveText('Layered heap')
  await expect(page.getByRole('region', { name: 'In numbers' })).toContainText(
    'from day 14, every 7 to 21 days',
  )
  await expect(page.getByRole('region', { name: 'How it is done' })).toContainText(
    'The stick is the thermometer',
  )
  expect(await seriousFaults(page)).toEqual([])
  await page.getByRole('button', { name: 'Take it for this mix' }).click()
  await expect(page.getByRole('combobox', { name: 'Method' })).toHaveValue('layered-heap')
  // What was asked for is still asked for.
  await page.getByRole('link', { name: 'Which suits?' }).click()
  await expect(page.getByLabel('Container')).toHaveValue('ring')
})

test('a method that does not exist says so', async ({ page }) => {
  await page.goto('/methods/moon-phase')
  await expect(page.getByRole('heading', heading)).toHaveText('There is no such method.')
})

test('a method is copied with other figures, judges the mix, is changed, taken off and brought back', async ({
  page,
}) => {
  await openBatch(page, 'Terrace heap')
  await page.goto('/methods/bay-turned')
  await page.getByRole('link', { name: 'Copy and change' }).click()
  await page.getByLabel('Name').fill('Bays for straw')
  await page.getByRole('spinbutton', { name: 'C:N, to', exact: true }).fill('36')
  await page.getByRole('spinbutton', { name: 'Days between turns, to', exact: true }).fill('40')
  await page.getByRole('button', { name: 'Move dung down a layer' }).click()
  await page.getByRole('button', { name: 'Save', exact: true }).click()
  await expect(page.getByText(/^must be turned at least every 28 days/)).toBeVisible()
  await page.getByRole('spinbutton', { name: 'Days between turns, to', exact: true }).fill('20')
  await page.getByRole('button', { name: 'Save', exact: true }).click()
  await expect(page.getByRole('heading', { level: 1 })).toHaveText('Bays for straw')
  await expect(page.getByText('Your own, copied from: Bays, turned from one to the next.')).toBeVisible()
  await expect(page.getByText('in layers: dry plants, dung, green plants, a little soil')).toBeVisible()
  await expect(page.getByText('25 to 36', { exact: true })).toBeVisible()
  expect(await seriousFaults(page)).toEqual([])

  await page.getByRole('button', { name: 'Take it for this mix' }).click()
  await expect(page.getByRole('heading', { level: 1 })).toHaveText('This mix is right.')
  await page.goto('/methods')
  await expect(page.getByRole('listitem').filter({ hasText: 'Bays for straw' }).first()).toBeVisible()

  await page.goto('/methods/bays-for-straw')
  await page.getByRole('link', { name: 'Change', exact: true }).click()
  await page.getByRole('spinbutton', { name: 'C:N, to', exact: true }).fill('30')
  await page.getByRole('button', { name: 'Save', exact: true }).click()
  await expect(page.getByText('25 to 30', { exact: true })).toBeVisible()
  await page.getByRole('button', { name: 'Remove' }).click()
  await expect(page).toHaveURL(/methods$/)
  await expect(page.getByText('Bays for straw', { exact: true })).toBeHidden()
  await page.getByRole('button', { name: 'Undo' }).click()
  await expect(page.getByText('Bays for straw', { exact: true })).toBeVisible()
})

test('what it is for weighs', async ({ page }) => {
  await openBatch(page, 'Terrace heap')
  await page.goto('/methods')
  await page.getByRole('combobox', { name: 'Compost for' }).selectOption('seedlings and pots')
  const worms = page.getByRole('listitem').filter({ has: page.getByRole('link', { name: /Worm bin/ }) })
  await expect(worms).toContainText('Seeds live on in it and come up later.')
  await page.getByRole('combobox', { name: 'Compost for' }).selectOption('fields')
  await expect(worms).toContainText(/One heap gives .* at most\./)
})
