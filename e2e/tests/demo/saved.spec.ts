import { atSite, expect, openBatch, seriousFaults, test } from '../page'

test('a batch is saved under a name, found again, changed and copied', async ({ page }) => {
  await page.goto('/bench')
  await page.getByRole('region', { name: 'Amounts' }).getByRole('button', { name: /^Barley straw/ }).click()
  await page.getByRole('button', { name: '+ Add from stock' }).click()
  await page.getByRole('button', { name: /^Sheep manure/ }).last().click()
  // The list stays open for the next one.
  await expect(page.getByRole('dialog').getByRole('button', { name: /^Sheep manure/, pressed: true })).toBeVisible()
  await page.keyboard.press('Escape')
  await page.getByRole('button', { name: 'Save as batch' }).click()
  await page.getByRole('button', { name: 'Save', exact: true }).click()
  await expect(page.getByText('Give it a name.')).toBeVisible()
  await page.getByLabel('Name').fill('Terrace heap')
  await page.keyboard.press('Enter')
  await expect(page.getByText('There is a batch of that name already: “Terrace heap”')).toBeVisible()
  await page.getByLabel('Name').fill('Lower terrace')
  await page.keyboard.press('Enter')
  await expect(page.getByText('Lower terrace is saved.')).toBeVisible()

  await openBatch(page, 'Lower terrace')
  await expect(page.getByText('Lower terrace, as saved.')).toBeVisible()
  await page.getByRole('button', { name: 'More Barley straw' }).click()
  await expect(page.getByText('Lower terrace, with changes that are not saved.')).toBeVisible()
  await page.getByRole('button', { name: 'Save', exact: true }).click()
  await expect(page.getByText('Lower terrace, as saved.')).toBeVisible()

  await page.goto('/batches')
  await expect(page.getByText(/13 carrying cloths barley straw/)).toBeVisible()
  await page.getByRole('button', { name: 'Copy Lower terrace', exact: true }).click()
  await expect(page.getByText('Lower terrace, copy, as saved.')).toBeVisible()
})

test('a removed batch can be brought back', async ({ page }) => {
  await page.goto('/batches')
  await page.getByRole('button', { name: 'Remove Training plot ring' }).click()
  await expect(page.getByRole('heading', { name: 'Training plot ring' })).toBeHidden()
  await page.getByRole('button', { name: 'Undo' }).click()
  await expect(page.getByRole('heading', { name: 'Training plot ring' })).toBeVisible()
  expect(await seriousFaults(page)).toEqual([])
})

test('when it was saved elsewhere meanwhile, both are shown and one is chosen', async ({ page, request }) => {
  await openBatch(page, 'Training plot ring')
  const batches = await (await request.get(await atSite(request, 'batches'))).json()
  const { id, version, name, water_l, heap, items } = batches.find(
    (batch: { name: string }) => batch.name === 'Training plot ring',
  )
  items[0].amount = 3
  const elsewhere = await request.put(`/api/batches/${id}`, {
    data: { version, batch: { name, water_l, heap, items } },
  })
  expect(elsewhere.status()).toBe(200)

  await page.getByRole('button', { name: 'More Barley straw' }).click()
  await page.getByRole('button', { name: 'Save', exact: true }).click()
  const both = page.getByRole('dialog', { name: 'Changed elsewhere' })
  await expect(both).toContainText('10 carrying cloths Barley straw')
  await expect(both).toContainText('3 carrying cloths Barley straw')
  await both.getByRole('button', { name: 'Take theirs' }).click()
  await expect(page.getByRole('spinbutton', { name: 'Amount of Barley straw' })).toHaveValue('3')
})

test('what is on the bench is still there after the page was closed', async ({ page }) => {
  await page.goto('/bench')
  await page.getByRole('region', { name: 'Amounts' }).getByRole('button', { name: /^Donkey or mule manure/ }).click()
  await page.getByRole('button', { name: 'More Donkey or mule manure' }).click()
  await page.reload()
  await expect(page.getByRole('spinbutton', { name: 'Amount of Donkey or mule manure' })).toHaveValue('2')
})
