import { expect, PHONE, test, WIDE } from '../page'

test('how far compost goes is asked both ways, in barrows, drawn, with the keyboard alone', async ({
  page,
}) => {
  await page.setViewportSize(WIDE)
  await page.goto('/use')
  const headline = page.getByRole('heading', { level: 1 })
  // Twenty square metres, two centimetres deep: 400 L of 500.
  await expect(headline).toHaveText('6 barrows do it; what there is goes 25 m² far.')
  await expect(
    page.getByRole('img', { name: 'A bed from above: what there is covers 100 % of it.' }),
  ).toBeVisible()
  await page.getByLabel('Ground, m²').focus()
  await page.keyboard.press('Control+a')
  await page.keyboard.type('40')
  await page.keyboard.press('Tab')
  await expect(headline).toHaveText('You need 12 barrows; what there is goes 25 m² far.')
  await expect(page.getByRole('img', { name: /covers 63 % of it/ })).toBeVisible()
  await expect(page.getByText(/kg of nitrogen to the hectare is over the limit of 170/)).toBeVisible()
  await page.getByRole('button', { name: 'In a pot mix' }).focus()
  await page.keyboard.press('Enter')
  await expect(page.getByRole('img', { name: 'A pot in parts: 25 % compost.' })).toBeVisible()
  await expect(headline).toContainText('for 2,000 L of mix')
  await page.getByRole('button', { name: 'As an extract' }).click()
  await expect(page.getByText(/only compost that was shown hot/)).toBeVisible()
})

test('a heap’s own room and water stand for the compost', async ({ page }) => {
  await page.setViewportSize(PHONE)
  await page.goto('/heaps')
  await page.getByRole('link', { name: 'Upper bay' }).click()
  await page.getByRole('link', { name: 'How far it goes' }).click()
  await expect(page).toHaveURL(/\/use\?heap=/)
  await expect(page.getByLabel('From which heap')).toHaveValue(/./)
  await expect(page.getByLabel('How much there is, L')).not.toHaveValue('500')
  await page.getByRole('button', { name: 'In pits' }).click()
  await expect(page.getByRole('heading', { level: 1 })).toContainText('pits far')
})
