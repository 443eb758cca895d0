import { expect, PHONE, seriousFaults, sticksOut, test } from '../page'

const heading = { level: 1 } as const

test('one sentence goes on the empty bench, in stock or not, and is judged at once', async ({ page }) => {
  await page.goto('/bench')
  const field = page.getByLabel('What do you have?')
  await field.fill('4 barrows of straw, 2 of goat manure and a bucket of scraps')
  await field.press('Enter')
  await expect(page.getByRole('spinbutton', { name: 'Amount of Wheat straw' })).toHaveValue('4')
  await expect(page.getByRole('spinbutton', { name: 'Amount of Goat manure (pellets)' })).toHaveValue('2')
  // The scraps are a lot of the farm, with its name and figures.
  await expect(page.getByRole('spinbutton', { name: 'Amount of Kitchen scraps' })).toHaveValue('1')
  await expect(page.getByRole('heading', heading)).not.toHaveText('What shall go in?')
  await page.getByRole('button', { name: 'Undo', exact: true }).last().click()
  await expect(page.getByRole('heading', heading)).toHaveText('What shall go in?')
})

test('what is not understood is marked and asked back, by keyboard alone', async ({ page }) => {
  await page.goto('/bench')
  const field = page.getByLabel('What do you have?')
  await field.focus()
  await page.keyboard.type('2 barrows of straw, 3 barrows of moon rocks, 2 skips of goat dung and some hay')
  await page.keyboard.press('Enter')
  await expect(page.locator('mark')).toHaveText(['3 barrows of moon rocks', '2 skips of goat dung', 'some hay'])
  const rocks = page.getByRole('group', { name: '“3 barrows of moon rocks”: which material is it?' })
  await rocks.getByRole('button', { name: /^Leave out/ }).focus()
  await page.keyboard.press('Enter')
  await expect(rocks).toBeHidden()
  const skips = page.getByRole('group', { name: '“2 skips of goat dung”: counted in what?' })
  await skips.getByRole('button').first().focus()
  await page.keyboard.press('Enter')
  await expect(page.getByRole('spinbutton', { name: 'Amount of Goat manure (pellets)' })).toHaveValue('2')
  expect(await seriousFaults(page)).toEqual([])
  const hay = page.getByRole('group', { name: '“some hay”: how much is it?' })
  await hay.getByRole('spinbutton').fill('1 1/2')
  await hay.getByRole('combobox').selectOption('barrows')
  await hay.getByRole('button', { name: 'Take it' }).click()
  await expect(page.getByRole('spinbutton', { name: 'Amount of Grass hay (old or spoiled)' })).toHaveValue('1.5')
  // Nothing is left to ask.
  await expect(field).toBeHidden()
})

test('nothing typed, and nothing known, is said', async ({ page }) => {
  await page.goto('/bench')
  await page.getByRole('button', { name: 'Put it on the bench' }).click()
  await expect(page.getByRole('alert').filter({ hasText: 'Type what you have first.' })).toBeVisible()
  await page.getByLabel('What do you have?').fill('...')
  await page.getByRole('button', { name: 'Put it on the bench' }).click()
  await expect(page.getByText('Nothing was understood.')).toBeVisible()
  await expect(page.getByLabel('What do you have?')).toHaveValue('...')
})

test('a sentence writes down stock, and can be taken back', async ({ page }) => {
  await page.goto('/stock')
  const rows = page.getByRole('listitem').filter({ hasText: 'Napier (elephant) grass' })
  await page.getByLabel('What do you have?').fill('3 barrows of elephant grass and 20 kg of neem cake')
  await page.getByRole('button', { name: 'Write it down' }).click()
  await expect(page.getByText('2 lots are written down.')).toBeVisible()
  await expect(rows.getByRole('spinbutton')).toHaveValue('3')
  await page.getByRole('button', { name: 'Undo', exact: true }).click()
  await expect(rows).toHaveCount(0)
})

test.describe('on a phone', () => {
  test.use({ viewport: PHONE, hasTouch: true })

  test('the first thing on the bench is the sentence', async ({ page }) => {
    await page.goto('/bench')
    await page.getByLabel('What do you have?').fill('dos carretillas de paja y 3 barrows of what is it')
    await page.getByRole('button', { name: 'Put it on the bench' }).tap()
    await expect(page.getByRole('group', { name: /which material is it\?$/ })).toBeVisible()
    expect(await sticksOut(page)).toBe(0)
    expect(await seriousFaults(page)).toEqual([])
  })
})
