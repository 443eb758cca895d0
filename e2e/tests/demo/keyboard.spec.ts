import { expect, test, WIDE } from '../page'

test.use({ viewport: WIDE })

test('a mix is made, judged and saved without a mouse', async ({ page }) => {
  await page.goto('/bench')
  await expect(page.getByRole('button', { name: /^Barley straw/ }).first()).toBeVisible()
  await page.keyboard.press('Tab')
  await expect(page.getByRole('link', { name: 'Skip to the page' })).toBeFocused()
  await page.keyboard.press('Enter')
  await expect(page.locator('main')).toBeFocused()
  const lot = page.getByRole('region', { name: 'Amounts' }).getByRole('button', { name: /^Sheep manure/ })
  for (let tab = 0; tab < 40 && !(await lot.evaluate((node) => node === document.activeElement)); tab += 1) {
    await page.keyboard.press('Tab')
  }
  await expect(lot).toBeFocused()
  await page.keyboard.press('Enter')
  const amount = page.getByRole('spinbutton', { name: 'Amount of Sheep manure' })
  await expect(amount).toHaveValue('2')
  await amount.focus()
  await page.keyboard.press('ArrowUp')
  await expect(amount).toHaveValue('3')
  const save = page.getByRole('button', { name: 'Save as batch' })
  await save.focus()
  await page.keyboard.press('Enter')
  await expect(page.getByLabel('Name')).toBeFocused()
  await page.keyboard.type('Only dung')
  await page.keyboard.press('Enter')
  await expect(page.getByText('Only dung is saved.')).toBeVisible()
})
