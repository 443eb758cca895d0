import type { Page } from '@playwright/test'
import { atSite, expect, lotPath, nothingOver, openBatch, PHONE, seriousFaults, sticksOut, test } from '../page'

const h1 = { level: 1 } as const

/** Taps buttons by their names, and counts them. */
function counting(page: Page) {
  const tap = async (name: string | RegExp) => {
    tap.count += 1
    await page.getByRole('button', { name }).first().tap()
  }
  tap.count = 0
  return tap
}

test.describe('on a phone', () => {
  test.use({ viewport: PHONE, hasTouch: true })

  test('the verdict and its four figures stay in sight while the last amount is stepped', async ({ page }) => {
    await openBatch(page, 'Terrace heap')
    const water = page.getByRole('button', { name: 'More Water' })
    await water.scrollIntoViewIfNeeded()
    await water.tap()
    for (const seen of [
      page.getByRole('heading', h1),
      page.getByRole('button', { name: /^Carbon to nitrogen/ }),
      page.getByRole('button', { name: /^Size/ }),
    ])
      await expect(seen).toBeInViewport()
    // The amounts come before the drawings, on the screen and in the order they are read.
    const top = async (name: string) => (await page.getByRole('region', { name }).boundingBox())!.y
    expect(await top('Amounts')).toBeLessThan(await top('Balance field'))
  })

  test('the verdict does what it says in one tap, and undo takes it back after a reload', async ({ page }) => {
    await openBatch(page, 'Terrace heap')
    await page.getByRole('button', { name: 'One more barrow of sheep manure' }).tap()
    await expect(page.getByRole('heading', h1)).toHaveText('This mix is right.')
    await page.reload()
    await expect(page.getByRole('heading', h1)).toHaveText('This mix is right.')
    await page.getByRole('button', { name: 'Undo' }).tap()
    await expect(page.getByRole('heading', h1)).toHaveText(/^A little too brown/)
  })

  test('a slip leaves the places free, and the back button closes what lies over the page', async ({ page }) => {
    await openBatch(page, 'Terrace heap')
    await page.getByRole('button', { name: 'Clear' }).tap()
    const slip = page.getByRole('alert').filter({ hasText: 'The bench is clear.' })
    const nav = page.getByRole('navigation', { name: 'Places' })
    await expect(slip).toBeVisible()
    const [over, under] = [(await slip.boundingBox())!, (await nav.boundingBox())!]
    expect(over.y + over.height).toBeLessThanOrEqual(under.y)

    await page.goto('/stock')
    await page.getByRole('button', { name: 'Add a lot' }).tap()
    await page.getByLabel('How much').fill('7')
    await page.goBack()
    await expect(page.getByRole('dialog')).toBeHidden()
    await expect(page).toHaveURL(/stock$/)
    // What was typed is still there.
    await page.getByRole('button', { name: 'Add a lot' }).tap()
    await expect(page.getByLabel('How much')).toHaveValue('7')
  })

  test('six lots are written down in fourteen taps by their pictures', async ({ page }) => {
    await page.goto('/stock')
    const tap = counting(page)
    await tap('Tap what you have')
    for (const name of ['Wheat straw', 'Maize stover', 'Goat manure', 'Sheep manure', 'Vegetable scraps', 'Grass clippings'])
      await tap(new RegExp(`^${name}.*one of .* more`))
    for (const name of ['Wheat straw', 'Wheat straw', 'Maize stover', 'Vegetable scraps', 'Goat manure'])
      await tap(new RegExp(`^${name}.*one of .* more`))
    expect(await seriousFaults(page)).toEqual([])
    expect(await sticksOut(page)).toBe(0)
    await tap('Write down 6 lots')
    expect(tap.count).toBeLessThan(14)
    await expect(page.getByText('6 lots are written down.')).toBeVisible()
    await expect(page.getByRole('spinbutton', { name: 'Amount of Wheat straw' }).first()).toHaveValue('3')
    await page.getByRole('button', { name: 'Undo', exact: true }).tap()
    await expect(page.getByRole('spinbutton', { name: 'Amount of Wheat straw' })).toHaveCount(0)
  })

  test('six materials come onto the bench in seven taps from the list that stays open', async ({ page }) => {
    await page.goto('/bench')
    const tap = counting(page)
    await tap(/^Barley straw/)
    await tap('+ Add from stock')
    for (const name of [/^Faba bean haulm/, /^Potato haulm/, /^Sheep manure/, /^Kitchen scraps/, /^Quinoa stalks/])
      await tap(name)
    expect(tap.count).toBe(7)
    await page.keyboard.press('Escape')
    await expect(page.getByRole('spinbutton', { name: /^Amount of/ })).toHaveCount(7)
    await expect(page.getByRole('heading', h1)).not.toHaveText('What shall go in?')
  })

  test('from a bare bench to the verdict of six materials by their pictures in twenty taps', async ({ page }) => {
    await page.goto('/bench')
    const tap = counting(page)
    await tap('Something that is not in stock')
    for (const name of ['Wheat straw', 'Maize stover', 'Goat manure', 'Cattle dung', 'Vegetable scraps', 'Grass clippings'])
      await tap(new RegExp(`^${name}.*one of .* more`))
    for (const name of ['Wheat straw', 'Wheat straw', 'Maize stover', 'Maize stover', 'Cattle dung'])
      await tap(new RegExp(`^${name}.*one of .* more`))
    await tap(/^Put 6 on the bench/)
    expect(tap.count).toBeLessThanOrEqual(20)
    await expect(page.getByRole('heading', h1)).toHaveText(/[.]$/)
    await expect(page.getByRole('spinbutton', { name: 'Amount of Wheat straw' })).toHaveValue('3')
  })

  test('a word of sixty letters widens no page', async ({ page, request }) => {
    const label = 'Strohballenvonderoberstenterrasse'.repeat(2).slice(0, 64)
    const lots = await (await request.get(await atSite(request, 'lots'))).json()
    const straw = lots.find((lot: { material: string }) => lot.material === 'barley-straw')
    const added = await request.post(await atSite(request, 'lots'), {
      data: { material: 'barley-straw', label, amount: 3, unit: 'measure', measure_id: straw.measure_id, own: {} },
    })
    const { id } = await added.json()
    await page.goto('/bench')
    await page.getByRole('button', { name: new RegExp(`^${label}`) }).last().tap()
    for (const path of ['/bench', '/stock', '/layers', '/prepare', '/card', '/choices', `/stock/${id}`]) {
      await page.goto(path)
      await expect(page.getByRole('heading', h1)).not.toBeEmpty()
      await expect(page.getByText('One moment.')).toHaveCount(0)
      expect(await sticksOut(page), path).toBe(0)
    }
    await request.delete(`/api/lots/${id}`)
  })
})

test('out of reach of the server the bench says so, pales what is old and keeps what was typed', async ({ page }) => {
  await openBatch(page, 'Terrace heap')
  const opacity = () =>
    page
      .getByRole('button', { name: /^Carbon to nitrogen/ })
      .evaluate((figure) => getComputedStyle(figure.parentElement!).opacity)
  expect(await opacity()).toBe('1')
  await page.route('**/api/**', (route) => route.abort())
  await page.getByRole('spinbutton', { name: 'Amount of Barley straw' }).fill('31')
  await expect(page.getByText('Not reckoned yet: the figures are of an earlier mix.')).toBeVisible()
  await expect(page.getByRole('alert').filter({ hasText: 'does not answer' }).first()).toBeVisible()
  expect(Number(await opacity())).toBeLessThan(0.6)
  const refused = page.waitForEvent('requestfailed', (request) => request.method() === 'PUT')
  await page.getByRole('button', { name: 'Save', exact: true }).click()
  await refused
  await expect(page.getByRole('alert').filter({ hasText: 'does not answer' }).first()).toBeVisible()
  await page.unroute('**/api/**')
  await expect(page.getByText('Not reckoned yet')).toBeHidden()
  expect(await opacity()).toBe('1')
  await expect(page.getByRole('spinbutton', { name: 'Amount of Barley straw' })).toHaveValue('31')
})

test('one bench in two windows: nothing is overwritten in silence, and undo brings mine back', async ({ page, context }) => {
  await openBatch(page, 'Terrace heap')
  const other = await context.newPage()
  await other.goto('/bench')
  await other.getByRole('button', { name: 'More Barley straw' }).click()
  await expect(page.getByText('The bench was changed in another window.')).toBeVisible()
  await expect(page.getByRole('spinbutton', { name: 'Amount of Barley straw' })).toHaveValue('19')
  await page.getByRole('button', { name: 'Undo' }).first().click()
  await expect(page.getByRole('spinbutton', { name: 'Amount of Barley straw' })).toHaveValue('18')
})

test('a mix that is not saved is not swept away unasked', async ({ page }) => {
  await openBatch(page, 'Terrace heap')
  await page.getByRole('button', { name: 'More Barley straw' }).click()
  await page.getByRole('link', { name: 'Batches' }).click()
  // The whole row opens.
  await page.getByRole('heading', { name: 'Training plot ring' }).click({ force: true })
  const asks = page.getByRole('dialog', { name: 'A mix on the bench is not saved' })
  await expect(asks).toBeVisible()
  expect(await seriousFaults(page)).toEqual([])
  await asks.getByRole('button', { name: 'Cancel' }).click()
  await page.getByRole('button', { name: 'Open Training plot ring' }).click()
  await asks.getByRole('button', { name: 'Let it go' }).click()
  await expect(page.getByText('Training plot ring, as saved.')).toBeVisible()
  await page.getByRole('button', { name: 'Undo' }).click()
  await expect(page.getByRole('spinbutton', { name: 'Amount of Barley straw' })).toHaveValue('19')
})

test('what is no longer in stock is said so, and not recommended', async ({ page, request }) => {
  await openBatch(page, 'Terrace heap')
  await expect(page.getByRole('heading', h1)).toHaveText(/One more barrow of sheep manure/)
  const path = await lotPath(page, 'sheep-manure')
  const id = path.split('/').at(-1)
  await request.delete(`/api/lots/${id}`)
  await page.reload()
  await expect(page.getByText('no longer in stock')).toBeVisible()
  await expect(page.getByRole('heading', h1)).not.toHaveText(/sheep manure/)
  await request.post(`/api/lots/${id}/restore`)
})

test('what was removed is brought back long after its slip, from the foot of the list', async ({ page }) => {
  await page.goto('/stock')
  await page.getByRole('button', { name: 'Remove Quinoa stalks' }).click()
  await expect(page.getByText('Quinoa stalks is off the list.', { exact: true })).toBeVisible()
  await page.reload()
  await expect(page.getByRole('spinbutton', { name: 'Amount of Quinoa stalks' })).toBeHidden()
  await page.getByText(/removed lately$/).click()
  await page.getByRole('button', { name: 'Undo: Quinoa stalks is off the list.' }).click()
  await expect(page.getByRole('spinbutton', { name: 'Amount of Quinoa stalks' })).toBeVisible()
})

test('a long stock is sifted and stands in groups', async ({ page }) => {
  await page.goto('/stock')
  await page.getByRole('searchbox', { name: 'Find in your stock' }).fill('straw bar')
  await expect(page.getByRole('link', { name: 'Barley straw', exact: true })).toBeVisible()
  await expect(page.getByRole('link', { name: 'Sheep manure', exact: true })).toBeHidden()
  await page.getByRole('searchbox').fill('')
  await page.getByRole('combobox', { name: 'Group by' }).selectOption('by kind')
  await expect(page.getByRole('heading', { name: /^Manure/ })).toBeVisible()
  expect(await seriousFaults(page)).toEqual([])
})

test('what was half typed of a container or a site outlives the back button, but not Cancel', async ({ page }) => {
  for (const [path, opens, field] of [
    ['/measures', 'Add a container', 'Container'],
    ['/settings', 'Add a site', 'Name'],
  ] as const) {
    await page.goto(path)
    const typed = page.getByRole('dialog').getByLabel(field, { exact: true })
    await page.getByRole('button', { name: opens }).click()
    await typed.fill('half')
    await page.goBack()
    await expect(page.getByRole('dialog')).toBeHidden()
    await page.getByRole('button', { name: opens }).click()
    await expect(typed).toHaveValue('half')
    await page.getByRole('button', { name: 'Cancel' }).click()
    await page.getByRole('button', { name: opens }).click()
    await expect(typed).toHaveValue('')
    await page.getByRole('button', { name: 'Cancel' }).click()
    await nothingOver(page)
  }
})

test('ash alone, with no nitrogen in it, is refused by nothing', async ({ page }) => {
  const refused: string[] = []
  page.on('response', (answer) => {
    if (answer.status() >= 400) refused.push(`${answer.status()} ${answer.url()}`)
  })
  await page.goto('/bench')
  await page.getByLabel('What do you have?').fill('1 bucket of wood ash')
  await page.keyboard.press('Enter')
  await expect(page.getByRole('spinbutton', { name: 'Amount of Wood ash' })).toHaveValue('1')
  for (const path of ['/wall/mix', '/wall/working', '/layers', '/prepare', '/card', '/bench']) {
    await page.goto(path)
    await expect(page.getByRole('heading', h1)).not.toBeEmpty()
    await expect(page.getByText('One moment.')).toHaveCount(0)
  }
  expect(refused).toEqual([])
})

test('words in a drawing print without the halo that keeps them clear on the screen', async ({ page }) => {
  await openBatch(page, 'Terrace heap')
  const halo = (path: string) =>
    page.goto(path).then(() =>
      page.locator('main svg text').first().evaluate((text) => getComputedStyle(text).stroke),
    )
  await page.emulateMedia({ media: 'print' })
  for (const path of ['/layers', '/card', '/methods/bay-turned']) expect(await halo(path), path).toBe('none')
})
