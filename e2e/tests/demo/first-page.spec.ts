import { expect, openBatch, PHONE, test } from '../page'

test.use({ viewport: PHONE, hasTouch: true })

test('the verdict of a kept batch comes with few requests, and nothing on the page shifts', async ({ page }) => {
  await openBatch(page, 'Terrace heap')
  await page.addInitScript(() => {
    const seen = window as unknown as { shifted: number }
    seen.shifted = 0
    new PerformanceObserver((list) => {
      for (const entry of list.getEntries()) seen.shifted += (entry as unknown as { value: number }).value
    }).observe({ type: 'layout-shift', buffered: true })
  })
  const asked: string[] = []
  page.on('request', (request) => asked.push(new URL(request.url()).pathname))
  await page.goto('/bench')
  await expect(page.getByRole('button', { name: /^Carbon to nitrogen/ })).toBeVisible()
  expect(asked.length).toBeLessThanOrEqual(14)
  // The materials' figures are for pages that show them.
  expect(asked.filter((path) => path.startsWith('/api')).sort()).toEqual(
    expect.arrayContaining(['/api/bench', '/api/start']),
  )
  expect(asked).not.toContain('/api/materials')
  await expect(page.getByRole('img', { name: /section|cm high/i }).or(page.locator('.section svg')).first()).toBeVisible()
  await page.waitForTimeout(500)
  expect(await page.evaluate(() => (window as unknown as { shifted: number }).shifted)).toBeLessThan(0.01)
})

test('a drawer that cannot be fetched says so, and opens once it can', async ({ page }) => {
  await openBatch(page, 'Terrace heap')
  await page.goto('/bench')
  await page.route('**/assets/**', (route) => route.abort())
  await page.getByRole('button', { name: 'What helps' }).tap()
  await expect(page.getByRole('alert').filter({ hasText: 'does not answer' })).toBeVisible()
  await page.unroute('**/assets/**')
  await expect(page.getByRole('alert')).toHaveCount(0)
  await page.getByRole('button', { name: 'What helps' }).tap()
  await expect(page.getByRole('region', { name: /Too brown/ })).toBeVisible()
})
