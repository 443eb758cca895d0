import { choose, expect, seriousFaults, test } from '../page'

test('a lot is stepped, and five taps are one change', async ({ page }) => {
  await page.goto('/stock')
  const puts: string[] = []
  page.on('request', (request) => request.method() === 'PUT' && puts.push(request.url()))
  const more = page.getByRole('button', { name: 'More Potato haulm (tops)' })
  // As quick as a thumb, however busy the machine is.
  await more.evaluate(async (button: HTMLButtonElement) => {
    for (let tap = 0; tap < 5; tap += 1) {
      button.click()
      await new Promise(requestAnimationFrame)
    }
  })
  await expect(page.getByRole('spinbutton', { name: 'Amount of Potato haulm (tops)' })).toHaveValue('9')
  await expect.poll(() => puts.length).toBe(1)
  await page.reload()
  await expect(page.getByRole('spinbutton', { name: 'Amount of Potato haulm (tops)' })).toHaveValue('9')
})

test('a removed lot can be brought back', async ({ page }) => {
  await page.goto('/stock')
  await page.getByRole('button', { name: 'Remove Quinoa stalks' }).click()
  await expect(page.getByText('Quinoa stalks is off the list.', { exact: true })).toBeVisible()
  await page.getByRole('button', { name: 'Undo' }).click()
  await expect(page.getByRole('spinbutton', { name: 'Amount of Quinoa stalks' })).toHaveValue('6')
})

test('what must not go in is refused with the reason', async ({ page }) => {
  await page.goto('/stock')
  await page.getByRole('button', { name: 'Add a lot' }).click()
  await page.getByRole('combobox', { name: 'Material' }).fill('dog and cat')
  await page.getByRole('listbox').getByRole('option').first().click()
  await expect(page.getByText(/can carry worm eggs and germs/)).toBeVisible()
  await expect(page.getByRole('button', { name: 'Add', exact: true })).toBeDisabled()
  // It cannot be stock, but that it was sorted out can be shown.
  await page.getByRole('button', { name: 'Record that it was sorted out' }).click()
  expect(await seriousFaults(page)).toEqual([])
  await page.getByLabel('Where it went').fill('buried away from the beds')
  await page.getByRole('button', { name: 'Record', exact: true }).click()
  const record = page.getByRole('region', { name: 'Sorted out and not used' }).getByRole('listitem')
  await expect(record).toContainText('buried away from the beds')
  await record.getByRole('button').click()
  await expect(record).toBeHidden()
  await page.getByRole('button', { name: 'Undo' }).click()
  await expect(record).toBeVisible()
})

test('what is past its days stands on top and says what to do', async ({ page }) => {
  await page.goto('/stock')
  const first = page.getByRole('main').getByRole('listitem').first()
  await expect(first).toContainText('Hen house sweepings')
  await expect(first).toContainText('2 days past its time')
  await expect(first).toContainText('the figures allow for that')
  await expect(page.getByText(/^Past their best: Hen house sweepings, Kitchen scraps/)).toBeVisible()
})

test('a lot is written down with a new container and own figures', async ({ page }) => {
  await page.goto('/stock')
  await page.getByRole('button', { name: 'Add a lot' }).click()
  expect(await seriousFaults(page)).toEqual([])
  await page.getByRole('button', { name: 'Add', exact: true }).click()
  await expect(page.getByText('Choose a material from the list.')).toBeVisible()
  await page.getByRole('combobox', { name: 'Material' }).fill('camelid llama')
  await page.getByRole('combobox', { name: 'Material' }).fill('llama')
  await page.getByRole('option', { name: /Llama or alpaca/ }).click()
  await page.getByLabel('How much').fill('3')
  await choose(
    page.getByRole('combobox', { name: 'Counted in' }),
    page.getByRole('option', { name: 'another container' }),
  )
  await page.getByLabel('Container', { exact: true }).fill('crate')
  await page.getByLabel('Several of them').fill('crates')
  await page.getByLabel('Holds, L').fill('40')
  await page.getByText('Figures of my own').click()
  await page.getByLabel('Loose density, kg/L').fill('0.5')
  await page.getByRole('button', { name: 'Add', exact: true }).click()
  const row = page.getByRole('listitem').filter({ hasText: 'Llama or alpaca manure' })
  await expect(row).toContainText('crates')
  await expect(row).toContainText('60 kg')
})

test('nothing serious is found by the checker', async ({ page }) => {
  await page.goto('/stock')
  await expect(page.getByRole('button', { name: 'Remove Barley straw' })).toBeVisible()
  expect(await seriousFaults(page)).toEqual([])
})
