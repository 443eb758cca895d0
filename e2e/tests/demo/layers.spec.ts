import { expect, openBatch, seriousFaults, test } from '../page'

test('the mix is laid in layers that add up, in a box and in a ring', async ({ page }) => {
  await openBatch(page, 'Terrace heap')
  await page.getByRole('button', { name: 'Plan this heap' }).click()
  await expect(page.getByRole('heading', { level: 1 })).toHaveText('11 layers in 2 cycles, 95 cm high.')
  await expect(page.getByRole('row', { name: /^1 Barley straw \d carrying cloths/ })).toBeVisible()
  await expect(page.getByRole('img', { name: /Heap in section: box 110\scm × 110\scm, 95\scm high/ })).toBeVisible()
  await page.getByText('Ring', { exact: true }).click()
  // Another shape comes in a size that holds the mix.
  await expect(page.getByRole('heading', { level: 1 })).toHaveText(/layers in/)
  await page.getByLabel('Height, cm').fill('80')
  await expect(page.getByRole('heading', { level: 1 })).toHaveText(/does not fit/)
  await page.getByLabel('Height, cm').fill('150')
  await expect(page.getByRole('heading', { level: 1 })).toHaveText(/layers in/)
  expect(await seriousFaults(page)).toEqual([])
})

test('a heap too small to heat says so', async ({ page }) => {
  await page.goto('/bench')
  await page.getByRole('region', { name: 'Amounts' }).getByRole('button', { name: /^Donkey or mule manure/ }).click()
  await page.getByRole('link', { name: 'Layers' }).click()
  await expect(page.getByText(/Too small to keep its heat/)).toBeVisible()
})

test('a drum that is too small: what fits it, how many it takes, and back', async ({ page }) => {
  await openBatch(page, 'Terrace heap')
  await page.getByRole('link', { name: 'Layers' }).click()
  await expect(page).toHaveURL(/layers$/)
  await page.getByRole('combobox', { name: 'Method' }).selectOption('Drilled drum')
  const heading = page.getByRole('heading', { level: 1 })
  await expect(heading).toHaveText(/^It does not fit: 1\d barrows too much\.$/)
  await expect(page.getByText('This method stays cool.')).toBeVisible()
  await page.getByRole('button', { name: 'Build 6 drums alike' }).click()
  await expect(heading).toHaveText(/layers in/)
  await expect(page.getByText('6 drums alike; the layers are those of one.')).toBeVisible()
  // What is no handy part of a barrow is said in the next smaller container.
  await expect(page.getByRole('row', { name: /Sheep manure about 1 bucket/ }).first()).toBeVisible()
  await page.getByRole('link', { name: 'Field card' }).click()
  await expect(page.getByText('1 of 6', { exact: true })).toBeVisible()
  await page.goBack()
  await page.getByRole('button', { name: 'In one heap' }).click()
  await expect(heading).toHaveText(/^It does not fit/)
  await page.getByRole('button', { name: /^Take less: 1\d\s% of everything$/ }).click()
  await expect(heading).toHaveText(/layers in/)
  await expect(page.getByRole('img', { name: /Heap in section: drum 57\scm across/ })).toBeVisible()
  expect(await seriousFaults(page)).toEqual([])
})

test('a mix becomes a free heap on twigs with a cap, and the sides that hold it', async ({ page }) => {
  await openBatch(page, 'Terrace heap')
  await page.getByRole('link', { name: 'Layers' }).click()
  await expect(page).toHaveURL(/layers$/)
  await page.getByRole('combobox', { name: 'Method' }).selectOption('Layered heap')
  await page.getByText('Free heap', { exact: true }).click()
  await expect(page.getByRole('row', { name: /Twigs or stalks, not part of the mix/ })).toBeVisible()
  await expect(page.getByRole('rowgroup').getByText('On top', { exact: true })).toBeVisible()
  await expect(page.getByText(/^The mix fills (8\d|9\d|100)\s% of it/)).toBeVisible()
  await expect(page.getByText(/1 air stick, pulled out once it stands/)).toBeVisible()
  // The sides keep their slope while another width is typed.
  const slope = async () =>
    Number(await page.getByLabel('Width on top, cm').inputValue()) /
    Number(await page.getByLabel('Width, cm', { exact: true }).inputValue())
  const before = await slope()
  await page.getByLabel('Width, cm', { exact: true }).fill('20')
  await page.getByLabel('Width, cm', { exact: true }).fill('200')
  expect(await slope()).toBeCloseTo(before, 1)
})

test('what is mixed first comes in loads alike', async ({ page }) => {
  await openBatch(page, 'Terrace heap')
  await page.getByRole('link', { name: 'Layers' }).click()
  await expect(page).toHaveURL(/layers$/)
  await page.getByRole('combobox', { name: 'Method' }).selectOption('Static tower with air columns')
  await expect(page.getByRole('heading', { level: 1 })).toHaveText(/^8 loads, mixed first/)
  await expect(page.getByText('Loads 1 to 8, each')).toBeVisible()
  await expect(page.getByText(/No point lies farther than \d+\scm from air/)).toBeVisible()
  await page.getByRole('spinbutton', { name: 'Columns of air' }).fill('0')
  await expect(page.getByText(/this method, which is never turned, allows 30\scm. \d columns? would do/)).toBeVisible()
})

test('no mix, no layers, and a way back', async ({ page }) => {
  await page.goto('/layers')
  await expect(page.getByRole('heading', { level: 1 })).toHaveText('There is no mix on the bench yet.')
  await page.getByRole('link', { name: 'Go to the bench' }).click()
  await expect(page.getByRole('heading', { level: 1 })).toHaveText('What shall go in?')
})
