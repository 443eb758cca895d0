import { choose, expect, seriousFaults, test } from '../page'

test('from nothing written down to a usable stock, a heap in layers, found again the next day', async ({ page, context }) => {
  await page.goto('/')
  await expect(page.getByRole('heading', { level: 1 })).toHaveText('What shall go in?')
  expect(await seriousFaults(page)).toEqual([])
  await page.getByRole('link', { name: 'Write down stock' }).click()
  await expect(page.getByRole('heading', { level: 1 })).toHaveText(/Nothing is written down yet/)

  // The basket has no litres on it: a tape tells, and the cart is counted in baskets.
  await page.getByRole('link', { name: 'Measures' }).click()
  await page.getByRole('button', { name: 'Add a container' }).click()
  await page.getByLabel('Container', { exact: true }).fill('basket')
  await page.getByLabel('Several of them').fill('baskets')
  await choose(page.getByRole('combobox', { name: 'How you know what it holds' }), page.getByRole('option', { name: 'round and straight' }))
  await page.getByLabel('Across, cm').fill('30')
  await page.getByLabel('Height, cm').fill('31.1')
  await expect(page.getByRole('img', { name: 'It holds 22 L' })).toBeVisible()
  await page.getByRole('button', { name: 'Save', exact: true }).click()
  await page.getByRole('button', { name: 'Add a container' }).click()
  await page.getByLabel('Container', { exact: true }).fill('cart load')
  await page.getByLabel('Several of them').fill('cart loads')
  await choose(page.getByRole('combobox', { name: 'How you know what it holds' }), page.getByRole('option', { name: 'by another container' }))
  await page.getByLabel('How many go in').fill('6')
  await choose(page.getByRole('combobox', { name: 'Of which', exact: true }), page.getByRole('option', { name: /^baskets/ }))
  await page.getByRole('button', { name: 'Save', exact: true }).click()
  await expect(page.getByRole('listitem').filter({ hasText: 'cart load' })).toContainText('132 L')
  await page.getByRole('link', { name: 'Stock' }).click()

  for (const [typed, material, amount, measure] of [
    ['wheat', /^Wheat straw/, '4', /^barrows/],
    ['sheep', /^Sheep manure/, '2', /^barrows/],
    ['vegetable scr', /^Vegetable scraps/, '1', /^buckets/],
  ] as const) {
    await page.getByRole('button', { name: 'Add a lot' }).click()
    await page.getByRole('combobox', { name: 'Material' }).fill(typed)
    await page.getByRole('option', { name: material }).click()
    await page.getByLabel('How much').fill(amount)
    await choose(page.getByRole('combobox', { name: 'Counted in' }), page.getByRole('option', { name: measure }))
    await page.getByRole('button', { name: 'Add', exact: true }).click()
    await expect(page.getByRole('dialog')).toBeHidden()
  }
  // 4 · 70 · 0.05 = 14 kg, 2 · 70 · 0.55 = 77 kg, 12 · 0.5 = 6 kg.
  await expect(page.getByRole('heading', { level: 1 })).toHaveText('3 lots on hand, about 97 kg.')

  await page.getByRole('link', { name: 'Go to the bench' }).click()
  await page.getByRole('region', { name: 'Amounts' }).getByRole('button', { name: /^Wheat straw/ }).click()
  // The list stays open: a tap each.
  await page.getByRole('button', { name: '+ Add from stock' }).click()
  for (const lot of [/^Sheep manure/, /^Vegetable scraps/])
    await page.getByRole('dialog').getByRole('button', { name: lot }).click()
  await page.keyboard.press('Escape')
  await page.getByRole('spinbutton', { name: 'Amount of Wheat straw' }).fill('4')
  await page.getByRole('spinbutton', { name: 'Amount of Sheep manure' }).fill('2')
  await expect(page.getByRole('heading', { level: 1 })).toHaveText(/green/)
  await expect(page.getByText(/too small to keep its heat/)).toBeVisible()
  await page.getByRole('button', { name: 'Save as batch' }).click()
  await page.getByLabel('Name').fill('First heap')
  await page.getByRole('button', { name: 'Save', exact: true }).click()
  await expect(page.getByText('First heap is saved.')).toBeVisible()

  // Another browser the next day: nothing of this one is left but what was saved.
  const tomorrow = await (await context.browser()!.newContext({ baseURL: new URL(page.url()).origin })).newPage()
  await tomorrow.goto('/batches')
  await tomorrow.getByRole('button', { name: 'Open First heap' }).click()
  await expect(tomorrow.getByRole('spinbutton', { name: 'Amount of Sheep manure' })).toHaveValue('2')
  await tomorrow.getByRole('button', { name: 'Plan this heap' }).click()
  await expect(tomorrow.getByRole('row', { name: /Vegetable scraps/ }).first()).toBeVisible()
})
