import { atSite, expect, openBatch, seriousFaults, sticksOut, test, PHONE } from '../page'

const heading = { level: 1 } as const

test('a layered heap with a farm ferment is planned eight days ahead', async ({ page }) => {
  await openBatch(page, 'Terrace heap')
  await page.getByRole('link', { name: 'Layers' }).click()
  await expect(page).toHaveURL(/layers$/)
  await page.getByRole('combobox', { name: 'Method' }).selectOption('Layered heap')
  await page.getByRole('link', { name: 'Prepare' }).click()
  await page.getByLabel('Build on').fill('2026-03-22')
  await page.getByRole('checkbox', { name: /^Farm ferment/ }).check()
  await expect(page.getByText('Begin on 15 Mar 2026; ready on 22 Mar 2026.')).toBeVisible()
  await expect(page.getByRole('heading', { name: '15 Mar 2026: tomorrow' })).toBeVisible()
  await expect(page.getByText('Stir the farm ferment twice a day until 22 Mar 2026.')).toBeVisible()
  await expect(page.getByText('Use it by 1 Apr 2026.')).toBeVisible()
  // What goes in is looked for in the stock; what can hurt is said.
  await expect(page.getByRole('row', { name: /^Fresh dung .* on hand: / })).toBeVisible()
  await expect(page.getByText(/^It makes gas: never shut it tight/).filter({ visible: true })).toHaveCount(1)
  await expect(page.getByText(/A place 30\sm \(100 ft\) or more from wells and streams/)).toBeVisible()
  await expect(page.getByRole('heading', heading)).toHaveText(
    /^\d+ things to do before you build on 22 Mar 2026\.$/,
  )

  // Ticked off, kept over a reload.
  const before = Number((await page.getByRole('heading', heading).innerText()).split(' ')[0])
  await page.getByRole('checkbox', { name: /^Fill the barrel/ }).check()
  await expect(page.getByRole('heading', heading)).toHaveText(new RegExp(`^${before - 1} things`))
  await page.reload()
  await expect(page.getByRole('checkbox', { name: /^Fill the barrel/ })).toBeChecked()
  expect(await seriousFaults(page)).toEqual([])

  // The day and the starter belong to the batch.
  await page.goto('/bench')
  await page.getByRole('button', { name: 'Save under another name' }).click()
  await page.getByLabel('Name').fill('Heap with a ferment')
  await page.keyboard.press('Enter')
  await expect(page.getByText('Heap with a ferment is saved.')).toBeVisible()
  const batches = await (await page.request.get(await atSite(page.request, 'batches'))).json()
  expect(batches[0]).toMatchObject({
    name: 'Heap with a ferment',
    method: 'layered-heap',
    build_on: '2026-03-22',
    starters: ['farm-ferment'],
  })
})

test('a build day that is too soon for a starter says so, and what can still be ready', async ({ page }) => {
  await openBatch(page, 'Terrace heap')
  await page.goto('/prepare')
  await page.getByLabel('Build on').fill('2026-03-16')
  await page.getByRole('checkbox', { name: /^Cultured microbes/ }).check()
  const note = page.getByRole('status').filter({ hasText: 'not ready on that day' })
  await expect(note).toContainText('Cultured microbes: not ready on that day, but on 28 Mar 2026.')
  await expect(note).toContainText('Still ready in time: mature compost, dung slurry')
  await note.getByRole('button', { name: 'Build on 28 Mar 2026' }).click()
  await expect(page.getByText('Begin on 14 Mar 2026; ready on 28 Mar 2026.')).toBeVisible()
  await expect(note).toBeHidden()
})

test.describe('on a phone', () => {
  test.use({ viewport: PHONE })

  test('the list is ticked with a thumb, and by keyboard alone', async ({ page }) => {
    await openBatch(page, 'Terrace heap')
    await page.goto('/prepare')
    const gloves = page.getByRole('checkbox', { name: /^Gloves/ })
    const line = page.locator('label').filter({ has: gloves })
    expect((await line.boundingBox())!.height).toBeGreaterThanOrEqual(44)
    await gloves.focus()
    await page.keyboard.press('Space')
    await expect(gloves).toBeChecked()
    expect(await sticksOut(page)).toBe(0)
    expect(await seriousFaults(page)).toEqual([])
  })
})
