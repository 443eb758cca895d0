import { expect, seriousFaults, test, lotPath } from '../page'

const heading = { level: 1 } as const

test('a drying test changes a mix', async ({ page }) => {
  // Potato haulm and straw on an empty bench.
  await page.goto('/bench')
  const amounts = page.getByRole('region', { name: 'Amounts' })
  await amounts.getByRole('button', { name: /^Barley straw/ }).click()
  await page.getByRole('button', { name: '+ Add from stock' }).click()
  await page.getByRole('dialog').getByRole('button', { name: /^Potato haulm/ }).click()
  await page.keyboard.press('Escape')
  const water = page.getByRole('button', { name: /^Water/ })
  await expect(amounts).toContainText('80 % water')
  const before = await water.innerText()

  await page.getByRole('link', { name: 'Stock' }).click()
  await page.getByRole('link', { name: 'Potato haulm (tops)', exact: true }).click()
  await page.getByRole('link', { name: 'Measure: Water' }).click()
  await page.getByLabel('The dish alone, g').fill('200')
  await page.getByLabel('Dish and fresh sample, g').fill('500')
  await page.getByLabel('Weighing 1, g').fill('420')
  await page.getByRole('button', { name: '+ Weigh again' }).click()
  await page.getByLabel('Weighing 2, g').fill('380')
  await expect(page.getByText('40 % so far, still losing weight')).toBeVisible()
  await page.getByRole('button', { name: 'Keep this' }).click()

  // The next day it is taken up where it was left.
  await expect(page.getByText('40 % so far, still losing weight').first()).toBeVisible()
  await page.getByRole('link', { name: 'Go on' }).click()
  await expect(page.getByLabel('Weighing 2, g')).toHaveValue('380')
  await page.getByLabel('Weighing 3, g').fill('378')
  await expect(page.getByText('41 % water, dried to the end')).toBeVisible()
  await page.getByText('Show the working').click()
  await expect(page.getByText('m = (wet − dry) ÷ (wet − dish) × 100')).toBeVisible()
  expect(await seriousFaults(page)).toEqual([])
  await page.getByRole('button', { name: 'Keep this' }).click()
  await expect(page.getByText('Drying test, 14 Mar 2026')).toBeVisible()

  await page.getByRole('link', { name: 'Bench' }).click()
  await expect(amounts).toContainText('41 % water (measured), 22 : 1')
  await expect(water).not.toHaveText(before)
  await water.click()
  await expect(page.getByRole('dialog')).toContainText('m: Drying test, 14 Mar 2026')
})

test('a saved mix keeps its figures until the new ones are taken', async ({ page }) => {
  await page.goto('/batches')
  await page.getByRole('button', { name: 'Open Training plot ring' }).click()
  await expect(page.getByText(/^Measured or changed since this mix was made:.*Barley straw/)).toBeVisible()
  await expect(page.getByText('Training plot ring, as saved.')).toBeVisible()
  await page.getByRole('button', { name: 'Use the new figures' }).click()
  await expect(page.getByText('Training plot ring, with changes that are not saved.')).toBeVisible()
  await page.getByRole('button', { name: 'Undo' }).click()
  await expect(page.getByText('Training plot ring, as saved.')).toBeVisible()
})

test('one full measure is weighed on the simulated scale', async ({ page }) => {
  await page.goto(await lotPath(page, 'guinea-pig-manure', '/test/weigh'))
  await page.getByRole('button', { name: 'Read the simulated scale' }).click()
  for (const load of ['2', '30']) {
    const field = page.getByLabel('Hangs on it, kg')
    if (!(await field.isVisible())) await page.getByRole('button', { name: 'Read the simulated scale' }).click()
    await field.fill(load)
    await page.getByRole('button', { name: 'Hang it on' }).click()
    await page.getByRole('button', { name: 'Take this weight' }).click()
  }
  await expect(page.getByLabel('Empty, kg')).toHaveValue('2')
  await expect(page.getByLabel('Full, kg')).toHaveValue('30')
  // 28 kg in a barrow of 70 L.
  await expect(page.getByText('0.4 kg/L', { exact: true }).first()).toBeVisible()
  await page.getByRole('button', { name: 'Keep this' }).click()
  await expect(page.getByRole('heading', heading)).toHaveText(/guinea pig manure/)
  await expect(page.getByText('Weigh one full, 14 Mar 2026')).toBeVisible()
})

test('the other tests are read, judged and taken back', async ({ page }) => {
  await page.goto(await lotPath(page, 'quinoa-amaranth-stalks', '/test/bucket'))
  await page.getByLabel('Empty, kg').fill('0.6')
  await page.getByLabel('Full, kg').fill('2.4')
  await page.getByLabel('Water to the brim, L').fill('8.4')
  // 1.8 kg in 12 L, and 8.4 of 12 L are air.
  await expect(page.getByText('0.15 kg/L packed, 70 % air')).toBeVisible()
  await page.getByLabel('Full, kg').fill('0.5')
  await expect(page.getByRole('alert').getByText(/^must weigh more than the empty container/)).toBeVisible()
  await expect(page.getByRole('button', { name: 'Keep this' })).toBeDisabled()
  await page.getByLabel('Full, kg').fill('2.4')
  await page.getByRole('button', { name: 'Keep this' }).click()
  await expect(page.getByText('Bucket test, 14 Mar 2026')).toBeVisible()
  await page.getByRole('button', { name: 'Remove the Bucket test of 14 Mar 2026' }).click()
  await expect(page.getByText('Bucket test, 14 Mar 2026')).toBeHidden()

  await page.goto(await lotPath(page, 'donkey-manure'))
  await page.getByRole('link', { name: 'Go on' }).click()
  await page.getByLabel('Sown on').fill('2026-02-26')
  const pot = page.getByRole('group', { name: 'In this material' })
  await pot.getByLabel('Came up').fill('9')
  await pot.getByLabel('Of those, deformed').fill('4')
  await page.getByRole('group', { name: 'In clean soil' }).getByLabel('Came up').fill('10')
  await page.getByText('I have counted them and want to judge').click()
  await expect(page.getByText('marks of a weed-killer: into no heap')).toBeVisible()
  await page.getByRole('button', { name: 'Keep this' }).click()
  await expect(page.getByText(/^It must not go into a heap/)).toBeVisible()
  await page.getByRole('button', { name: 'Remove the Bean test of 26 Feb 2026' }).click()
  await expect(page.getByText(/^It must not go into a heap/)).toBeHidden()
})

test('a squeeze is written down with the keyboard alone', async ({ page }) => {
  await page.goto(await lotPath(page, 'green-weeds'))
  await page.getByRole('link', { name: 'Squeeze test' }).focus()
  await page.keyboard.press('Enter')
  await page.getByRole('radio', { name: /^Dusty/ }).focus()
  for (let step = 0; step < 3; step += 1) await page.keyboard.press('ArrowDown')
  await expect(page.getByRole('radio', { name: /^Several drops/ })).toBeChecked()
  await expect(page.getByText('64 % water', { exact: true })).toBeVisible()
  await page.keyboard.press('Enter')
  await expect(page.getByText('Squeeze test, 14 Mar 2026')).toBeVisible()
})
