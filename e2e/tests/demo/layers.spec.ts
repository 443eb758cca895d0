import { expect, openBatch, seriousFaults, test } from '../page'

test('the mix is laid in layers that add up, in a box and in a ring', async ({ page }) => {
  await openBatch(page, 'Terrace heap')
  await page.getByRole('button', { name: 'Plan this heap' }).click()
  await expect(page.getByRole('heading', { level: 1 })).toHaveText('10 layers in 2 cycles, 96 cm high.')
  await expect(page.getByRole('row', { name: /^1 Barley straw 9 carrying cloths/ })).toBeVisible()
  await expect(page.getByRole('img', { name: /Heap in section: box 110 × 110 cm, 96 cm high/ })).toBeVisible()
  await page.getByText('Ring', { exact: true }).click()
  await expect(page.getByRole('heading', { level: 1 })).toHaveText(/does not fit/)
  await page.getByLabel('Height, cm').fill('130')
  await expect(page.getByRole('heading', { level: 1 })).toHaveText(/layers in/)
  expect(await seriousFaults(page)).toEqual([])
})

test('a heap too small to heat says so', async ({ page }) => {
  await page.goto('/bench')
  await page.getByRole('region', { name: 'Amounts' }).getByRole('button', { name: /^Donkey or mule manure/ }).click()
  await page.getByRole('link', { name: 'Layers' }).click()
  await expect(page.getByText(/Too small to keep its heat/)).toBeVisible()
})

test('no mix, no layers, and a way back', async ({ page }) => {
  await page.goto('/layers')
  await expect(page.getByRole('heading', { level: 1 })).toHaveText('There is no mix on the bench yet.')
  await page.getByRole('link', { name: 'Go to the bench' }).click()
  await expect(page.getByRole('heading', { level: 1 })).toHaveText('What shall go in?')
})
