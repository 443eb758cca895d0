import { expect, openBatch, PHONE, seriousFaults, sticksOut, test, lotPath, WIDE } from '../page'

test.use({ viewport: PHONE, hasTouch: true })

test('the whole task fits a phone: mix, judge, lay', async ({ page }) => {
  await openBatch(page, 'Terrace heap')
  await page.getByRole('button', { name: 'More Sheep manure' }).tap()
  await expect(page.getByRole('heading', { level: 1 })).toHaveText('This mix is right.')
  expect(await sticksOut(page)).toBe(0)
  await page.getByRole('button', { name: 'Plan this heap' }).tap()
  await expect(page.getByRole('heading', { level: 1 })).toHaveText(/layers in/)
  expect(await sticksOut(page)).toBe(0)
})

const PAGES = [
  '/stock',
  '/stock/sheep-manure',
  '/stock/sheep-manure/test/weigh',
  '/stock/sheep-manure/test/drying',
  '/stock/sheep-manure/test/squeeze',
  '/stock/sheep-manure/test/bucket',
  '/stock/sheep-manure/test/bean',
  '/stock/sheep-manure/test/lab',
  '/measures',
  '/bench',
  '/today',
  '/follows',
  '/use',
  '/reference/causes',
  '/reference/causes/too-wet',
  '/batches',
  '/choices',
  '/heaps',
  '/rules',
  '/place',
  '/plots',
  '/signs',
  '/words',
  '/wall/mix',
  '/wall/rules',
  '/wall/working',
  '/wall/section',
  '/methods',
  '/methods/static-tower',
  '/methods/new?copy=bay-turned',
  '/layers',
  '/prepare',
  '/card',
  '/reference',
  '/reference/wood-ash',
  '/reference/new?copy=barley-straw',
  '/reference/file',
  '/settings',
  '/more',
]
for (const path of PAGES) {
  test(`nothing sticks out of ${path} and the checker is content by day and by night`, async ({ page }) => {
    const lot = /^\/stock\/(sheep-manure)(.*)$/.exec(path)
    await page.goto(lot ? await lotPath(page, lot[1]!, lot[2]) : path)
    await expect(page.getByRole('heading', { level: 1 })).not.toBeEmpty()
    await expect(page.getByText('One moment.')).toHaveCount(0)
    expect(await sticksOut(page)).toBe(0)
    expect(await seriousFaults(page)).toEqual([])
    // By night only the colours differ; they are looked at where more of them is in sight.
    await page.setViewportSize(WIDE)
    await page.emulateMedia({ colorScheme: 'dark' })
    expect(await seriousFaults(page, ['color-contrast'])).toEqual([])
  })
}

test('buttons are large enough for a thumb', async ({ page }) => {
  await openBatch(page, 'Terrace heap')
  const steppers = page.getByRole('button', { name: /^(More|Less) / })
  await expect(steppers.first()).toBeVisible()
  for (const button of await steppers.all()) {
    const box = await button.boundingBox()
    expect(box!.width).toBeGreaterThanOrEqual(44)
    expect(box!.height).toBeGreaterThanOrEqual(44)
  }
})

test('what was done is said at the foot, within the screen', async ({ page }) => {
  await openBatch(page, 'Terrace heap')
  await page.goto('/layers')
  await page.getByRole('combobox', { name: 'Method' }).selectOption('Drilled drum')
  await page.getByRole('button', { name: /^Take less/ }).click()
  const slip = page.getByRole('alert').filter({ hasText: 'of everything is on the bench' })
  await expect(slip).toBeVisible()
  const box = (await slip.boundingBox())!
  expect(box.x).toBeGreaterThanOrEqual(0)
  expect(box.x + box.width).toBeLessThanOrEqual(360)
})
