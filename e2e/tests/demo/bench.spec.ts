import { expect, openBatch, seriousFaults, test } from '../page'

const ratio = /^Carbon to nitrogen/

test('stepping an amount changes the verdict, the figures and the field at once', async ({ page }) => {
  await openBatch(page, 'Terrace heap')
  await expect(page.getByRole('heading', { level: 1 })).toHaveText(
    'A little too brown. One more barrow of sheep manure puts it right.',
  )
  await page.getByRole('button', { name: 'More Sheep manure' }).click()
  await expect(page.getByRole('heading', { level: 1 })).toHaveText('This mix is right.')
  await expect(page.getByRole('button', { name: ratio })).toContainText('30')
  await expect(page.getByText(/Your mix lies at \d+\s% water and C:N 30/)).toBeAttached()
})

test('the water still to add follows', async ({ page }) => {
  await openBatch(page, 'Terrace heap')
  const water = page.getByRole('button', { name: /^Water \d/ })
  await expect(water).toContainText(/up to \d+\sL more still fits/)
  const amount = page.getByRole('spinbutton', { name: 'Amount of Water' })
  await amount.fill('0')
  // 132.8 kg dry at 55 % is 295 kg; 235 kg lie there dry.
  await expect(water).toContainText('60 L more brings it to the middle')
  await expect(page.getByRole('heading', { level: 1 })).toHaveText(/One more barrow of sheep manure/)
  await amount.fill('30')
  await expect(water).toContainText(/L too much/)
})

test('an amount can be typed, and every change undone and done again', async ({ page }) => {
  await openBatch(page, 'Terrace heap')
  const straw = page.getByRole('spinbutton', { name: 'Amount of Barley straw' })
  await straw.fill('0')
  await straw.press('Tab')
  await expect(page.getByRole('heading', { level: 1 })).not.toHaveText(/brown/)
  await page.getByRole('button', { name: 'Undo' }).click()
  await expect(straw).toHaveValue('18')
  await page.keyboard.press('Control+Shift+Z')
  await expect(straw).toHaveValue('0')
})

test('each figure opens its sum', async ({ page }) => {
  await openBatch(page, 'Terrace heap')
  await page.getByRole('button', { name: ratio }).click()
  const board = page.getByRole('complementary').or(page.getByRole('dialog'))
  await expect(board).toContainText('d = q × (1 − m)')
  // 18 cloths of 60 L at 0.05 kg/L: 54 kg, 12 % water.
  await expect(board).toContainText('54 kg × (1 − 0.12) = 47.52 kg')
  await expect(board).toContainText('m: your own')
  await page.keyboard.press('Escape')
  await expect(board).toBeHidden()
})

test('a lot is picked in the field and stepped with the keyboard alone', async ({ page }) => {
  await openBatch(page, 'Terrace heap')
  const mark = page.getByRole('button', { name: /^Sheep manure: 62 % water/ })
  await mark.focus()
  await page.keyboard.press('ArrowUp')
  await expect(page.getByRole('spinbutton', { name: 'Amount of Sheep manure' })).toHaveValue('3')
  await expect(mark).toHaveAttribute('aria-pressed', 'true')
})

test('more than there is on hand is said, not hidden', async ({ page }) => {
  await page.goto('/bench')
  await page.getByRole('region', { name: 'Amounts' }).getByRole('button', { name: /^Kitchen scraps/ }).click()
  const amount = page.getByRole('spinbutton', { name: 'Amount of Kitchen scraps' })
  await amount.fill('9')
  await expect(page.getByText('more than the 5 buckets on hand')).toBeVisible()
})

test('a mix without nitrogen is said to be one', async ({ page }) => {
  await page.goto('/bench')
  await page.getByRole('region', { name: 'Amounts' }).getByRole('button', { name: /^Wood ash/ }).click()
  await expect(page.getByRole('heading', { level: 1 })).toHaveText(/brings nitrogen/)
})

test('nothing serious is found by the checker, with and without the working', async ({ page }) => {
  await openBatch(page, 'Terrace heap')
  expect(await seriousFaults(page)).toEqual([])
  await page.getByRole('button', { name: 'Working', exact: true }).click()
  await expect(page.getByText('d = q × (1 − m)')).toBeVisible()
  expect(await seriousFaults(page)).toEqual([])
})
