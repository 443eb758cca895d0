import { atSite, expect, openBatch, PHONE, test, WIDE } from '../page'

const FOLDER = '../docs/screenshots'

const picture = (name: string) => ({ path: `${FOLDER}/${name}.png` })

test('bench', async ({ page }) => {
  await page.setViewportSize(WIDE)
  await openBatch(page, 'Terrace heap')
  await page.getByRole('button', { name: /^Sheep manure: / }).click()
  await expect(page.getByRole('img', { name: /^Heap in section/ })).toBeVisible()
  await expect(page.getByText(/would narrow it most/)).toBeVisible()
  await page.evaluate(() => window.scrollTo(0, 0))
  await page.screenshot(picture('bench'))
})

test('build-phone', async ({ page }) => {
  await page.setViewportSize(PHONE)
  await openBatch(page, 'Terrace heap')
  await page.goto('/layers')
  await page.getByRole('button', { name: 'Begin build day' }).click()
  const place = page.getByText(/^layer \d+ of 11$/)
  await expect(place).toBeVisible()
  for (let laid = 0; laid < 5; laid++) {
    await page.getByRole('button', { name: 'Done' }).click()
    await expect(place).toHaveText(`layer ${laid + 2} of 11`)
    await page.waitForTimeout(700)
  }
  await page.evaluate(() => window.scrollTo(0, 0))
  await page.screenshot(picture('build-phone'))
})

test('heap', async ({ page, request }) => {
  await page.setViewportSize(WIDE)
  const heaps = (await (await request.get(await atSite(request, 'heaps'))).json()) as {
    id: string
    name: string
  }[]
  await page.goto(`/heaps/${heaps.find((heap) => heap.name === 'Lower bay')!.id}`)
  await expect(page.getByRole('img', { name: /^Hottest/ })).toBeVisible()
  await page.screenshot(picture('heap'))
  const wrong = page.getByRole('region', { name: 'What is wrong' })
  await expect(wrong).toBeVisible()
  await wrong.evaluate((region) => region.scrollIntoView())
  await page.screenshot(picture('judged'))
})

test('today', async ({ page }) => {
  await page.setViewportSize(PHONE)
  await page.goto('/today')
  await expect(page.getByRole('img', { name: /^Hottest/ }).first()).toBeVisible()
  await page.screenshot(picture('today-phone'))
})

test('heaps', async ({ page }) => {
  await page.goto('/heaps')
  await expect(page.getByRole('img', { name: /^Hottest/ }).first()).toBeVisible()
  await page.screenshot(picture('heaps'))
})

test('layers', async ({ page }) => {
  await openBatch(page, 'Terrace heap')
  await page.getByRole('button', { name: 'Plan this heap' }).click()
  await page.getByRole('combobox', { name: 'Method' }).selectOption('Layered heap')
  await page.getByText('Free heap', { exact: true }).click()
  await expect(page.getByRole('row', { name: /Twigs or stalks/ })).toBeVisible()
  await page.evaluate(() => window.scrollTo(0, 0))
  await page.screenshot({ path: `${FOLDER}/layers.png` })
})

test('stock', async ({ page }) => {
  await page.goto('/stock')
  await expect(page.getByRole('button', { name: 'Remove Barley straw' })).toBeVisible()
  await page.screenshot({ path: `${FOLDER}/stock.png` })
})

test('card', async ({ page }) => {
  await openBatch(page, 'Terrace heap')
  await page.goto('/card')
  await expect(page.getByRole('article', { name: 'Field card' })).toContainText('The ball holds')
  await page.screenshot({ path: `${FOLDER}/card.png` })
})

test('choices', async ({ page }) => {
  await page.goto('/choices')
  await expect(page.getByRole('button', { name: /^Put on the bench/ }).first()).toBeVisible()
  await page.screenshot({ path: `${FOLDER}/choices.png` })
})

test('wall', async ({ page }) => {
  await page.goto('/wall/rules')
  await expect(page.getByText('step 1 of 5')).toBeVisible()
  await page.getByLabel('The room says').nth(1).fill('35')
  await page.getByLabel('The room says').nth(1).blur()
  for (let step = 0; step < 3; step++) await page.keyboard.press('ArrowRight')
  await expect(page.getByText('by what of that is dry')).toHaveCount(2)
  await page.screenshot({ path: `${FOLDER}/wall.png` })
})

test('reference', async ({ page }) => {
  await page.goto('/reference')
  await expect(page.getByRole('link', { name: 'Wheat straw' })).toBeVisible()
  await page.screenshot({ path: `${FOLDER}/reference.png` })
})

test('methods', async ({ page }) => {
  await openBatch(page, 'Terrace heap')
  await page.getByRole('link', { name: 'Which suits?' }).click()
  await expect(page.getByRole('heading', { level: 1 })).toHaveText(/^Suited best: /)
  await page.screenshot({ path: `${FOLDER}/methods.png` })
})

test('finishing', async ({ page }) => {
  await page.setViewportSize(WIDE)
  await page.goto('/compost')
  await expect(page.getByRole('region', { name: 'What it holds' })).toContainText('found')
  await page.screenshot(picture('compost'))
  await page.getByRole('link', { name: 'Where it came from and went' }).click()
  await expect(page.getByRole('table')).toContainText('Sheep manure')
  await page.screenshot(picture('chain'))
  await page.goto('/compare')
  await expect(page.getByRole('img', { name: /^Lower bay: hottest/ })).toBeVisible()
  await page.screenshot(picture('compare'))
  await page.goto('/compost')
  await page.getByRole('link', { name: 'Use it' }).click()
  await page.getByLabel('Where').selectOption({ label: 'Kale bed' })
  await page.getByLabel('How deep, cm').fill('0.5')
  await page.getByRole('heading', { level: 1 }).click()
  await expect(page.getByRole('button', { name: 'Write down: it goes to Kale bed' })).toBeEnabled()
  await page.screenshot(picture('use'))
})

test('grounds-phone', async ({ page }) => {
  await page.setViewportSize(PHONE)
  await page.goto('/grounds')
  await expect(page.getByRole('heading', { name: /^Carrot bed/ })).toBeVisible()
  await page.screenshot(picture('grounds-phone'))
})

// Last of all: once there are people, everybody signs in.
test.describe(() => {
  test.use({ viewport: WIDE })
  test('people', async ({ page }) => {
    await page.goto('/people')
    await page.getByLabel('What you are called').fill('Wayra')
    await page.getByLabel('Passphrase', { exact: true }).fill('three barrows of wet straw')
    await page.getByRole('button', { name: 'Become the owner' }).click()
    await expect(page.getByRole('heading', { name: 'Wayra' })).toBeVisible()
    for (const [name, role] of [
      ['Amaru', /^worker/],
      ['Killa', /^trainer/],
      ['Inti', /^guest/],
    ] as const) {
      await page.getByRole('button', { name: 'Let somebody in' }).click()
      const form = page.getByRole('dialog', { name: 'Let somebody in' })
      await form.getByLabel('Name').fill(name)
      await form.getByRole('radio', { name: role }).check()
      await form.getByRole('button', { name: 'Make a code' }).click()
      await page
        .getByRole('dialog', { name: `A code for ${name}` })
        .getByRole('button', { name: 'Close' })
        .click()
      await expect(page.getByRole('dialog')).toHaveCount(0)
    }
    await expect(page.getByText('Inti', { exact: true })).toBeVisible()
    await page.screenshot({ path: `${FOLDER}/people.png` })
  })
})
