import { expect, lotPath, openBatch, PHONE, seriousFaults, sticksOut, test } from '../page'

const h1 = { level: 1 } as const

test('the mix on the wall: the room guesses, then is told, a step at a time', async ({ page }) => {
  await openBatch(page, 'Terrace heap')
  await page.getByRole('region', { name: 'Amounts' }).getByRole('link', { name: 'On the wall' }).click()
  await expect(page.getByRole('heading', h1)).toHaveText('What C:N does this mix give?')
  await expect(page.getByText('step 1 of 9')).toBeVisible()
  await expect(page.getByText('32', { exact: false })).toBeHidden()
  await page.getByLabel('The room says').fill('35')
  await page.getByLabel('The room says').blur()
  await page.keyboard.press('ArrowRight')
  const truth = page.getByText(/^32\s*:\s1$/)
  await expect(truth).toBeVisible()
  // Forty points, to be read from the last row.
  const points = await truth.evaluate((element) => (parseFloat(getComputedStyle(element).fontSize) * 72) / 96)
  expect(points).toBeGreaterThanOrEqual(40)
  await expect(page.getByLabel('The room says')).toHaveValue('35')
  expect(await seriousFaults(page)).toEqual([])
  for (let step = 0; step < 7; step++) await page.keyboard.press('PageDown')
  await expect(page.getByRole('heading', h1)).toHaveText(/^A little too brown\./)
  await page.keyboard.press('Escape')
  await expect(page).toHaveURL(/bench$/)
})

test('two rules side by side, each unmasked with its reasons', async ({ page }) => {
  await page.goto('/wall/rules')
  const [left, right] = [page.getByRole('region').first(), page.getByRole('region').nth(1)]
  await expect(left).toContainText('2 barley straw')
  await expect(right).toContainText('1 vegetable scraps (kitchen)')
  await expect(page.getByText('the shortcut says')).toBeHidden()
  await page.getByRole('button', { name: /next step/ }).click()
  await expect(page.getByText('the shortcut says')).toHaveCount(2)
  for (let step = 0; step < 3; step++) await page.getByRole('button', { name: /next step/ }).click()
  await expect(left).toContainText(/It gives\s*\d+\s*: 1/)
  await expect(page.getByText('?', { exact: true })).toHaveCount(0)
  expect(await seriousFaults(page)).toEqual([])
})

test('section and working stand on the wall as well, on a phone too', async ({ page }) => {
  await openBatch(page, 'Terrace heap')
  await page.goto('/wall/section')
  await expect(page.getByText('step 1 of 12')).toBeVisible()
  await page.keyboard.press('ArrowRight')
  await expect(page.getByRole('heading', h1)).toHaveText('8 carrying cloths barley straw')
  await page.goto('/wall/working')
  await expect(page.getByRole('heading', h1)).toHaveText('d = q × (1 − m)')
  await expect(page.getByText('54 kg × (1 − 0.12) = ?')).toBeVisible()
  await page.keyboard.press('ArrowRight')
  await expect(page.getByText('54 kg × (1 − 0.12) = 47.52 kg')).toBeVisible()
  await page.setViewportSize(PHONE)
  for (const what of ['mix', 'rules', 'section', 'working']) {
    await page.goto(`/wall/${what}`)
    await expect(page.getByText(/^step 1 of/)).toBeVisible()
    expect(await sticksOut(page), what).toBe(0)
  }
})

test('several plots are printed in one go, with one list of what to fetch', async ({ page }) => {
  await page.goto('/plots')
  const list = page.getByRole('region', { name: 'To fetch for all of them' })
  await expect(list.getByRole('row', { name: /^Barley straw \d+ carrying cloths/ })).toBeVisible()
  await expect(page.getByRole('article', { name: 'Field card' })).not.toHaveCount(0)
  await expect(page.getByText('One moment.')).toHaveCount(0)
  expect(await seriousFaults(page)).toEqual([])
  const cards = await page.getByRole('article', { name: 'Field card' }).count()
  await page.getByRole('checkbox', { name: 'Training plot ring' }).uncheck()
  await expect(page.getByRole('article', { name: 'Field card' })).toHaveCount(cards - 1)
})

test('the place comes first: a corner, its heap with room to turn, and by when to build', async ({ page }) => {
  await page.goto('/place')
  await page.getByLabel('One side, cm').fill('300')
  await page.getByLabel('The other, cm').fill('200')
  const bays = page.getByRole('article').filter({ hasText: '2 bays' })
  await expect(bays.getByRole('img', { name: '1 filled and 1 free on 300 cm by 200 cm, seen from above' })).toBeVisible()
  await expect(bays).toContainText(/2\.7\sm³ once settled: about \d+ barrows/)
  await page.getByLabel('Compost needed by').fill('2026-12-31')
  const by = page.getByRole('region', { name: 'By when to build' })
  await expect(by.getByRole('listitem').filter({ hasText: 'Bays, turned' })).toContainText(/build by .* 2026/)
  expect(await seriousFaults(page)).toEqual([])
  // A strip is no place to build.
  await page.getByLabel('The other, cm').fill('100')
  await expect(page.getByText(/must be at least 135/)).toBeVisible()
  await page.getByLabel('The other, cm').fill('200')
  await bays.getByRole('button', { name: /^Find a mix of this size/ }).click()
  await expect(page).toHaveURL(/choices$/)
  await expect(page.getByLabel('At most, m³')).toHaveValue('2.73')
  await page.setViewportSize(PHONE)
  await page.goto('/place')
  expect(await sticksOut(page)).toBe(0)
})

test('a laboratory’s sheet stands beside the book and changes the lot', async ({ page }) => {
  await page.goto(await lotPath(page, 'donkey-manure'))
  await page.getByRole('link', { name: 'Lab sheet' }).click()
  await page.getByLabel('The percents are of').selectOption('the sample as received')
  await page.getByLabel('Carbon, %').fill('16')
  await page.getByLabel('Nitrogen, %').fill('0.8')
  // As received, nothing follows without the water.
  await expect(page.getByRole('button', { name: 'Keep this' })).toBeDisabled()
  await page.getByLabel(/^Water of the sample/).fill('60')
  await page.getByRole('button', { name: '+ Another sample' }).click()
  await page.getByLabel('Carbon, %').nth(1).fill('17')
  await page.getByLabel('Nitrogen, %').nth(1).fill('0.85')
  await expect(page.getByText('C:N 20 (20 to 20), 2.1 % nitrogen')).toBeVisible()
  await expect(page.getByText(/^The book: /).first()).toBeVisible()
  expect(await seriousFaults(page)).toEqual([])
  await page.getByRole('button', { name: 'Keep this' }).click()
  await expect(page.getByText('20 : 1')).toBeVisible()
  await page.getByRole('button', { name: /^Remove the Lab sheet/ }).click()
})

test('words, rules, methods and measures are found from the rail', async ({ page }) => {
  await page.goto('/bench')
  const rail = page.getByRole('navigation', { name: 'Places' })
  for (const [name, heading] of [
    ['Measures', /container|measure/i],
    ['Rules of thumb', /gives/],
    ['Methods', /./],
    ['Place', /corner/],
    ['Words', 'Words, once and for all'],
  ] as const) {
    await rail.getByRole('link', { name, exact: true }).click()
    await expect(page.getByRole('heading', h1)).toHaveText(heading)
  }
  await expect(page.getByText(/^One round of layers/)).toBeVisible()
  expect(await seriousFaults(page)).toEqual([])
})

test('a neighbour’s material goes in on build day, though nobody had it in stock', async ({ page }) => {
  await openBatch(page, 'Training plot ring')
  await page.getByRole('button', { name: 'Plan this heap' }).click()
  await page.getByRole('button', { name: 'Begin build day' }).click()
  await expect(page).toHaveURL(/build\//)
  await page.getByRole('button', { name: 'Something else went in' }).click()
  await page.getByRole('button', { name: '+ Something else' }).click()
  await page.getByLabel(/^Not in stock/).fill('rice husk')
  await page.getByRole('option', { name: /^Rice hull|^Rice husk/ }).first().click()
  await page.getByRole('button', { name: /^\+ Rice hu/ }).click()
  await expect(page.getByRole('spinbutton', { name: /^Amount of Rice hu/ })).toHaveValue('1')
  await page.getByRole('button', { name: 'That went in' }).click()
  await page.getByText(/^All steps, 1 of \d+ laid$/).click()
  await expect(page.getByText(/rice hu/i).first()).toBeVisible()
  await page.getByRole('button', { name: 'Put this build day away' }).click()
})

test('the signs for the shed keep their hatches, whatever is added, and print without the rest', async ({ page }) => {
  const hatches = async () => {
    await page.goto('/signs')
    await page.getByLabel(/every material of the reference/).check()
    await expect(page.getByRole('listitem').filter({ hasText: 'Barley straw' }).first()).toBeVisible()
    return page.getByRole('listitem').evaluateAll((signs) =>
      Object.fromEntries(signs.map((sign) => [sign.textContent!.trim(), sign.querySelector('rect[fill^=url]')!.getAttribute('fill')])),
    )
  }
  const before = await hatches()
  expect(Object.keys(before).length).toBeGreaterThan(60)
  await page.goto('/reference/new?copy=barley-straw')
  await page.getByLabel('Name', { exact: true }).fill('Aardvark bedding')
  await page.getByRole('button', { name: 'Save', exact: true }).click()
  await expect(page.getByText('Aardvark bedding is saved.')).toBeVisible()
  const after = await hatches()
  expect(after['Aardvark bedding']).toBeTruthy()
  expect(after).toMatchObject(before)
  await page.emulateMedia({ media: 'print' })
  await expect(page.getByRole('navigation', { name: 'Places' })).toBeHidden()
  await expect(page.getByRole('button', { name: 'Print' })).toBeHidden()
})
