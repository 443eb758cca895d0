import { expect, openBatch, PHONE, test, WIDE } from '../page'

const FOLDER = '../docs/screenshots'

for (const [suffix, viewport] of [
  ['', WIDE],
  ['-phone', PHONE],
] as const) {
  test.describe(() => {
    test.use({ viewport })

    const picture = (name: string) => ({ path: `${FOLDER}/${name}${suffix}.png` })

    test(`bench${suffix}`, async ({ page }) => {
      await openBatch(page, 'Terrace heap')
      await page.getByRole('button', { name: /^Sheep manure: / }).click()
      await expect(page.getByRole('img', { name: /^Heap in section/ })).toBeVisible()
      await page.evaluate(() => window.scrollTo(0, 0))
      await page.screenshot(picture('bench'))
    })

    test(`stock${suffix}`, async ({ page }) => {
      await page.goto('/stock')
      await expect(page.getByRole('button', { name: 'Remove Barley straw' })).toBeVisible()
      await page.screenshot(picture('stock'))
    })

    test(`layers${suffix}`, async ({ page }) => {
      await openBatch(page, 'Terrace heap')
      await page.getByRole('button', { name: 'Plan this heap' }).click()
      await expect(page.getByRole('row', { name: /^1 Barley straw/ })).toBeVisible()
      await page.screenshot(picture('layers'))
    })

    test(`working${suffix}`, async ({ page }) => {
      await openBatch(page, 'Terrace heap')
      await page.getByRole('button', { name: /^Carbon to nitrogen/ }).click()
      await expect(page.getByText('d = q × (1 − m)')).toBeVisible()
      // The drawer slides in.
      await page.getByRole('dialog').evaluate((node) => Promise.all(node.getAnimations().map((one) => one.finished)))
      await page.screenshot(picture('working'))
    })

    test(`batches${suffix}`, async ({ page }) => {
      await page.goto('/batches')
      await expect(page.getByRole('button', { name: 'Open Terrace heap' })).toBeVisible()
      await page.screenshot(picture('batches'))
    })
  })
}
