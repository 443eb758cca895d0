import { expect, PHONE, seriousFaults, sticksOut, test, WIDE } from '../page'

const heading = (page: import('@playwright/test').Page) => page.getByRole('heading', { level: 1 })

test('from a ready heap to three beds and a nursery mix, and its rejects into the next heap', async ({
  page,
}) => {
  await page.setViewportSize(PHONE)
  await page.goto('/heaps')
  await page.getByRole('link', { name: 'Upper bay' }).click()
  await page.getByRole('button', { name: 'Take compost out' }).click()
  const dialog = page.getByRole('dialog')
  await expect(dialog).toContainText(/About .* barrows should be there/)
  await expect(dialog.getByLabel('Compost, without what the sieve holds back')).toBeFocused()
  await dialog.getByLabel('Compost, without what the sieve holds back').fill('6')
  await dialog.getByLabel('Sieve', { exact: true }).selectOption('15')
  await dialog.getByLabel('Held back by the sieve').fill('1')
  await dialog.getByLabel('That was all of the heap').uncheck()
  await dialog.getByRole('button', { name: 'Take compost out' }).click()
  await expect(page.getByText('Taken out of Upper bay: 6 barrows')).toBeVisible()
  await expect(page.getByText('6 barrows of compost taken out')).toBeVisible()

  // What was taken out last stands on top, with what it holds.
  await page.getByRole('link', { name: 'Compost taken out so far' }).click()
  const first = page.getByRole('article').first()
  await expect(first).toContainText('6 barrows left of 420 L')
  await expect(first).toContainText('Sieved through 15 mm')
  await expect(first.getByRole('region', { name: 'What it holds' })).toContainText('estimated')
  await first.getByRole('link', { name: 'Use it' }).click()

  const goes = async (where: string, change: () => Promise<void> = async () => {}) => {
    await page.getByLabel('Where').selectOption({ label: where })
    await change()
    await page.getByRole('button', { name: `Write down: it goes to ${where}` }).click()
    await expect(page.getByText(new RegExp(`Written down: .* to ${where}`))).toBeVisible()
  }
  const depth = () => page.getByLabel('How deep, cm').fill('0.4')
  await goes('Carrot bed', depth)
  await goes('Kale bed', depth)
  await goes('Potato terrace', () => page.getByLabel('Ground, m²').fill('40'))
  await goes('Nursery shelf')
  await page.getByRole('link', { name: 'Compost', exact: true }).last().click()
  const card = page.getByRole('article').first()
  await expect(card.getByRole('list', { name: 'What became of it' }).getByRole('listitem')).toHaveCount(4)

  // No harvest before a day where it was not shown hot.
  await page.getByRole('link', { name: 'Beds and fields' }).click()
  await expect(page.getByRole('article').filter({ hasText: 'Kale bed' })).toContainText(
    /No harvest before \d+ \w+ 2026/,
  )

  // The rejects are stock, and go on the bench like anything else.
  await page.goto('/stock')
  await expect(page.getByRole('link', { name: 'Rejects of Upper bay' }).first()).toBeVisible()
  await page
    .getByRole('link', { name: /Upper bay/ })
    .first()
    .click()
  await expect(heading(page)).toContainText('Rejects of Upper bay')

  await page.goto('/bench')
  const sentence = page.getByLabel('What do you have?')
  await sentence.fill('half a barrow of rejects, 2 barrows of sheep manure')
  await sentence.press('Enter')
  await expect(page.getByRole('spinbutton', { name: 'Amount of Rejects of Upper bay' })).toBeVisible()

  // All of it can be taken back, the last first; then the rejects are gone as well.
  await page.goto('/compost')
  for (let left = 4; left > 0; left -= 1) {
    const list = page.getByRole('article').first().getByRole('list', { name: 'What became of it' })
    await list
      .getByRole('button', { name: /Take back/ })
      .first()
      .click()
    if (left > 1) await expect(list.getByRole('listitem')).toHaveCount(left - 1)
    else await expect(page.getByRole('article').first()).toContainText('6 barrows left of 420 L')
  }
  await page.getByRole('button', { name: 'Take the harvest back' }).click()
  await expect(page.getByRole('article')).toHaveCount(1)
})

test('a hay that was sprayed is found on every bed it reached', async ({ page, request }) => {
  await page.setViewportSize(WIDE)
  // A heap of last year with bought hay in it, its compost on two beds.
  const [site] = await (await request.get('/api/sites')).json()
  const post = async (path: string, data: unknown) => {
    const answer = await request.post(path, { data })
    expect(answer.ok(), await answer.text()).toBeTruthy()
    return answer.json()
  }
  const hay = { material: 'wheat-straw', label: 'Bought hay', amount: 60, unit: 'kg', measure_id: null }
  const lot = await post(`/api/sites/${site.id}/lots`, hay)
  const part = (more: object) => ({
    label: null,
    unit: 'kg',
    measure_id: null,
    measure_litres: null,
    ...more,
  })
  const batch = await post(`/api/sites/${site.id}/batches`, {
    name: 'Hay heap',
    water_l: 60,
    heap: { shape: 'box', length_cm: 110, width_cm: 110, height_cm: 110 },
    method: 'bay-turned',
    items: [
      part({ lot_id: lot.id, material: 'wheat-straw', label: 'Bought hay', amount: 50 }),
      part({ lot_id: null, material: 'sheep-manure', amount: 120 }),
    ],
  })
  const heap = await post(`/api/batches/${batch.id}/built`, { at: '2025-10-20T09:00:00Z' })
  const compost = await post(`/api/heaps/${heap.id}/harvest`, {
    compost: { amount: 200, unit: 'litre' },
    is_last: true,
  })
  const grounds = await (await request.get(`/api/sites/${site.id}/grounds`)).json()
  for (const name of ['Carrot bed', 'Kale bed']) {
    const ground = grounds.find((one: { name: string }) => one.name === name).id
    await post(`/api/compost/${compost.id}/uses`, {
      ground,
      use: { kind: 'topdress', area_m2: 8, depth_cm: 0.5 },
    })
  }

  await page.goto('/stock')
  await page
    .getByRole('link', { name: /Bought hay/ })
    .first()
    .click()
  await page.getByRole('link', { name: 'Where it went' }).click()
  await expect(heading(page)).toHaveText('Bought hay reached 2 places.')
  await expect(page.getByText('Carrot bed, Kale bed')).toBeVisible()
  await expect(page.getByRole('region', { name: 'Hay heap' })).toContainText('50')
  expect(await seriousFaults(page)).toEqual([])
  // And back from the bed, with all that went in.
  await page.goto('/grounds')
  const bed = page.getByRole('article').filter({ has: page.getByRole('heading', { name: /^Kale bed/ }) })
  await bed.getByRole('link', { name: 'Where that came from' }).click()
  await expect(heading(page)).toHaveText('What Kale bed got, and what that was made of')
  await expect(page.getByRole('region', { name: 'Hay heap' })).toContainText('Sheep manure')
  await page.emulateMedia({ media: 'print' })
  await expect(page.getByRole('button', { name: 'Print' })).toBeHidden()
  await expect(page.getByRole('navigation')).toBeHidden()
  await page.emulateMedia({ media: null })
  // An emptied heap stands last in the list, and says so.
  await page.goto('/heaps')
  await expect(page.getByRole('main').getByRole('listitem').last()).toContainText('Emptied on')

  // A heap is not taken off the list while its compost is there, nor compost while it is on a bed.
  expect((await request.delete(`/api/heaps/${heap.id}`)).status()).toBe(409)
  const uses = (await (await request.get(`/api/sites/${site.id}/compost`)).json()).find(
    (one: { id: string }) => one.id === compost.id,
  ).uses
  for (const { id } of uses) await request.delete(`/api/compost/${compost.id}/log/${id}`)
  for (const path of [`compost/${compost.id}`, `heaps/${heap.id}`, `batches/${batch.id}`, `lots/${lot.id}`])
    expect((await request.delete(`/api/${path}`)).ok(), path).toBeTruthy()
})

test('a result from the laboratory changes the dose', async ({ page }) => {
  await page.setViewportSize(WIDE)
  await page.goto('/compost')
  const card = page.getByRole('article').first()
  const use = async () => {
    await page.goto('/compost')
    await page.getByRole('link', { name: 'Use it' }).first().click()
    const row = page.getByRole('region', { name: 'What it needs and brings' }).locator('dl > div')
    await expect(row.filter({ hasText: 'Nitrogen in it' })).toContainText('kg')
    return row.filter({ hasText: 'Nitrogen in it' }).locator('dd').innerText()
  }
  const before = await use()
  await page.goto('/compost')
  await card.getByRole('button', { name: 'Add a result' }).click()
  const dialog = page.getByRole('dialog')
  await expect(dialog.getByLabel('Day of the sample')).toBeFocused()
  await dialog.getByLabel('Shares are told of').selectOption('received')
  await dialog.getByLabel('Nitrogen, %').fill('2')
  await dialog.getByRole('button', { name: 'Write down' }).click()
  await expect(dialog.getByText(/its water has to be told too/)).toBeVisible()
  await dialog.getByLabel('Water, %').fill('50')
  await dialog.getByRole('button', { name: 'Write down' }).click()
  await expect(dialog).toBeHidden()
  await expect(card.getByRole('region', { name: 'What it holds' })).toContainText('4 %')
  expect(await use()).not.toBe(before)
  await page.goto('/compost')
  await card
    .getByRole('listitem')
    .filter({ hasText: '14 Mar' })
    .getByRole('button', { name: /Take back/ })
    .click()
  await expect(card.getByRole('region', { name: 'What it holds' })).toContainText('1.44 %')
})

test('a place is written down, changed and brought back, with the keyboard alone', async ({ page }) => {
  await page.setViewportSize(WIDE)
  await page.goto('/grounds')
  await page.getByRole('button', { name: 'A new place' }).focus()
  await page.keyboard.press('Enter')
  // The dialog is there once its first field has the focus.
  const name = page.getByRole('dialog').getByLabel('Name')
  await expect(name).toBeFocused()
  await page.keyboard.type('Bean row')
  await page.keyboard.press('Tab')
  await page.keyboard.press('Tab')
  await page.keyboard.type('14')
  await page.keyboard.press('Enter')
  const card = page.getByRole('article').filter({ has: page.getByRole('heading', { name: /^Bean row/ }) })
  await expect(card).toContainText('14 m²')
  await card.getByRole('button', { name: 'Change Bean row' }).click()
  await expect(name).toBeFocused()
  await page.getByRole('dialog').getByLabel('What it is').selectOption('trees')
  await page.getByRole('dialog').getByLabel('How many').fill('9')
  await page.keyboard.press('Enter')
  await expect(card).toContainText('9 of them')
  await card.getByRole('button', { name: 'Remove Bean row' }).click()
  await expect(card).toHaveCount(0)
  await page.getByRole('button', { name: 'Undo' }).first().click()
  await expect(card).toHaveCount(1)
  await card.getByRole('button', { name: 'Remove Bean row' }).click()
  await expect(card).toHaveCount(0)
})

test('heaps are compared, and the best one’s recipe lies on the bench in one tap', async ({ page }) => {
  await page.setViewportSize(WIDE)
  await page.goto('/compare')
  // Those of the farm's beginning, whatever else was built since.
  const which = page.getByRole('group', { name: /Which heaps/ })
  await expect(which.getByRole('button').first()).toBeVisible()
  const ours = ['Corner heap', 'Lower bay', 'Bean ring', 'Upper bay']
  for (const button of await which.getByRole('button').all()) {
    const isOurs = ours.includes((await button.innerText()).trim())
    if (((await button.getAttribute('aria-pressed')) === 'true') !== isOurs) await button.click()
  }
  await expect(heading(page)).toHaveText(/They differed most in/)
  await expect(page.getByText('Lower bay did best, by what was recorded.')).toBeVisible()
  await expect(page.getByRole('img', { name: /^Lower bay: hottest 6\d °C/ })).toBeVisible()
  const row = page.getByRole('row', { name: /^Turns/ })
  await expect(row.getByRole('cell')).toHaveCount(4)
  await page.getByRole('button', { name: 'Bean ring', exact: true }).click()
  await expect(row.getByRole('cell')).toHaveCount(3)
  await page.getByRole('button', { name: 'Put the recipe of Lower bay on the bench' }).first().click()
  await expect(page).toHaveURL(/\/bench/)
  await expect(page.getByRole('region', { name: 'Amounts' })).toContainText('Sheep manure')
})

for (const [name, size] of [
  ['wide', WIDE],
  ['on a phone', PHONE],
] as const)
  test(`the checker is content with what came of the heaps, by day and by night, ${name}`, async ({
    page,
  }) => {
    await page.setViewportSize(size)
    const link = async (path: string, label: string) => {
      await page.goto(path)
      return (await page.getByRole('link', { name: label }).first().getAttribute('href'))!
    }
    const chain = await link('/compost', 'Where it came from and went')
    for (const path of ['/compost', '/grounds', '/compare', chain]) {
      await page.goto(path)
      await expect(page.getByRole('heading', { level: 2 }).first()).toBeVisible()
      for (const colorScheme of ['light', 'dark'] as const) {
        await page.emulateMedia({ colorScheme })
        expect(await sticksOut(page), path).toBeLessThanOrEqual(0)
        expect(await seriousFaults(page), `${path} ${colorScheme}`).toEqual([])
      }
    }
  })
