import { readFile } from 'node:fs/promises'
import { expect, seriousFaults, test } from '../page'

test('a material is found by name and shows its ranges, cautions and source', async ({ page }) => {
  await page.goto('/reference')
  expect(await seriousFaults(page)).toEqual([])
  await page.getByRole('searchbox').fill('ash wood')
  await expect(page.getByText('1 found')).toBeVisible()
  await page.getByRole('searchbox').fill('')
  await page.getByRole('combobox', { name: 'Kind' }).selectOption('manure')
  await page.getByRole('link', { name: 'Sheep manure' }).click()
  await expect(page.getByRole('heading', { level: 1 })).toHaveText('Sheep manure')
  await expect(page.getByText('When you build')).toBeVisible()
  await expect(page.getByText(/wait 120 days before harvest/).first()).toBeVisible()
  expect(await seriousFaults(page)).toEqual([])
})

test('a copy is made ones own, and figures that cannot be are doubted', async ({ page }) => {
  await page.goto('/reference/barley-straw')
  await page.getByRole('link', { name: 'Copy as my own' }).click()
  await page.getByLabel('Name', { exact: true }).fill('Straw of the lower field')
  await page.getByLabel('Nitrogen, % of dry matter, usual').fill('2')
  await page.getByLabel('Nitrogen, % of dry matter, to', { exact: true }).fill('2')
  await expect(page.getByText(/^Nitrogen times C:N makes carbon 161\s% of the organic matter/)).toBeVisible()
  await page.getByLabel('Nitrogen, % of dry matter, usual').fill('0.62')
  await page.getByLabel('Nitrogen, % of dry matter, to', { exact: true }).fill('0.9')
  await expect(page.getByText(/^Nitrogen times C:N/)).toBeHidden()
  await page.getByLabel('Settles to, share of 1').fill('')
  await page.getByRole('button', { name: 'Save' }).click()
  await expect(page.getByText('is missing', { exact: true })).toBeVisible()
  await page.getByLabel('Settles to, share of 1').fill('0.5')
  expect(await seriousFaults(page)).toEqual([])
  await page.getByRole('button', { name: 'Save' }).click()
  await expect(page.getByRole('heading', { level: 1 })).toHaveText('Straw of the lower field')

  await page.getByRole('link', { name: 'Change' }).click()
  await page.getByLabel('Note').fill('cut late')
  await page.getByRole('button', { name: 'Save' }).click()
  await expect(page.getByText('cut late')).toBeVisible()
  await page.getByRole('link', { name: 'Reference' }).first().click()
  await page.getByRole('combobox', { name: 'Kind' }).selectOption('my own')
  await expect(page.getByText('1 found')).toBeVisible()
})

test('a trainer takes in a file with three bad rows: named first, mended, all or nothing', async ({ page }) => {
  await page.goto('/reference/file')
  const download = page.waitForEvent('download')
  await page.getByRole('link', { name: 'All materials, your own and the table' }).click()
  const [header, ...rows] = (await readFile(await (await download).path(), 'utf8')).trim().split('\n')
  const straw = rows.find((row) => row.startsWith('wheat-straw,'))!
  const mine = (id: string, from: string, to: string) =>
    straw.replace(/^wheat-straw,Wheat straw/, `${id},${id} of the school`).replace(from, to)
  const bad = [
    header,
    mine('fonio-straw', 'crop residue,12,8,20', 'crop residue,12,8,20'),
    mine('enset-leaf', ',brown,', ',beige,'),
    mine('hay-net', ',12,8,20,', ',12,18,20,'),
    mine('bad-caution', ';dust;', ';mind-the-cow;'),
  ]
  await page.getByLabel('or paste its text').fill(bad.join('\n'))
  await page.getByRole('button', { name: 'Look at it' }).click()
  await expect(page.getByRole('heading', { level: 1 })).toHaveText('3 rows cannot be taken in.')
  const faults = page.getByRole('region', { name: 'Rows at fault' })
  await expect(faults).toContainText('Line 3enset-leafkind: “beige” is not known here')
  await expect(faults).toContainText('Line 4hay-netmoisture_pct: the usual value 12 must lie between the lowest, 18, and the highest, 20')
  await expect(faults).toContainText('Line 5bad-cautioncautions: “mind-the-cow” is not a known caution')
  await expect(page.getByRole('button', { name: 'Take it in' })).toBeDisabled()
  expect(await seriousFaults(page)).toEqual([])

  const mended = bad.join('\n').replace(',beige,', ',brown,').replace('18,20', '8,20').replace(';mind-the-cow;', ';dust;')
  await page.getByLabel('Choose a file').setInputFiles({
    name: 'school.csv',
    mimeType: 'text/csv',
    buffer: Buffer.from(mended),
  })
  await expect(page.getByRole('heading', { level: 1 })).toHaveText('4 rows can be taken in.')
  await page.getByRole('button', { name: 'Take it in' }).click()
  await expect(page.getByText('4 materials are taken in.')).toBeVisible()
  await page.goto('/reference/fonio-straw')
  await expect(page.getByRole('heading', { level: 1 })).toHaveText('fonio-straw of the school')
  await page.goto('/reference/file')
  await page.getByLabel('or paste its text').fill('name,colour\nx,red\n')
  await page.getByRole('button', { name: 'Look at it' }).click()
  await expect(page.getByText('kind: this column is missing')).toBeVisible()
})
