import { getDocument } from 'pdfjs-dist/legacy/build/pdf.mjs'
import { expect, openBatch, seriousFaults, sticksOut, test, PHONE } from '../page'

/** Each sheet of a PDF: its size in points, and its words as they are read. */
async function read(pdf: Buffer): Promise<{ size: number[]; text: string; least: number }[]> {
  const document = await getDocument({
    data: new Uint8Array(pdf),
    verbosity: 0,
  }).promise
  const sheets = Array.from({ length: document.numPages }, async (_, index) => {
    const sheet = await document.getPage(index + 1)
    const { items } = await sheet.getTextContent()
    const text = items.map((item) => ('str' in item ? item.str : '')).join(' ')
    const heights = items.flatMap((item) => ('str' in item && item.str.trim() ? [item.height] : []))
    return {
      size: sheet.view.slice(2).map(Math.round),
      text: text.replace(/\s+/g, ' '),
      least: Math.min(...heights),
    }
  })
  return Promise.all(sheets)
}

const PAPERS = [
  { name: 'A4', size: [595, 842] },
  { name: 'A5', size: [420, 595] },
  { name: 'US Letter', size: [612, 792] },
]

test('the field card prints on each paper with everything that is needed outdoors', async ({ page }) => {
  await openBatch(page, 'Terrace heap')
  await page.getByRole('link', { name: 'Layers' }).click()
  await expect(page).toHaveURL(/layers$/)
  await page.getByRole('combobox', { name: 'Method' }).selectOption('Layered heap')
  await page.getByRole('link', { name: 'Field card' }).click()
  await expect(page.getByRole('article', { name: 'Field card' })).toContainText('Terrace heap')
  expect(await seriousFaults(page)).toEqual([])

  for (const { name, size } of PAPERS) {
    await page.getByText(name, { exact: true }).click()
    const sheets = await read(await page.pdf({ preferCSSPageSize: true }))
    const text = sheets.map((sheet) => sheet.text).join(' ')
    for (const sheet of sheets) expect(sheet.size, name).toEqual(size)
    expect(sheets.length, name).toBeLessThanOrEqual(5)
    for (const sheet of sheets) {
      expect(sheet.text, name).toContain('Terrace heap')
      // Nothing is smaller than nine points: it flows to another sheet instead.
      expect(sheet.least, name).toBeGreaterThanOrEqual(8.9)
    }
    // The cautions have a sheet of their own.
    expect(sheets.at(-1)!.text, name).toContain('Raw manure can carry germs')
    expect(sheets.at(-1)!.text, name).not.toContain('What was seen and done')
    // Every sheet carries something: none is left over.
    for (const sheet of sheets) expect(sheet.text.length, name).toBeGreaterThan(80)
    for (const wanted of [
      'Terrace heap',
      'Layered heap',
      'Twigs or stalks',
      '8 carrying cloths',
      '6 buckets (72 L)',
      'First turn: day 14.',
      'Then every 7 to 21 days',
      'The ball holds',
      'You cannot hold it',
      'What was seen and done',
      'Raw manure can carry germs',
      'Local rules and licensed advice come first.',
      '115 cm high',
    ])
      expect(text, name).toContain(wanted)
    // What belongs to the screen stays there.
    for (const not of ['Skip to the page', 'Back to the layers', 'US Letter']) expect(text).not.toContain(not)
  }
})

test('the heap on the card is drawn in black on white', async ({ page }) => {
  await openBatch(page, 'Terrace heap')
  await page.goto('/card')
  await page.emulateMedia({ media: 'print', colorScheme: 'dark' })
  const card = page.getByRole('article', { name: 'Field card' })
  await expect(card).toBeVisible()
  const inks = await card.evaluate((element) => {
    const style = getComputedStyle(element)
    return { ink: style.color, paper: style.backgroundColor }
  })
  expect(inks).toEqual({ ink: 'rgb(0, 0, 0)', paper: 'rgb(255, 255, 255)' })
})

test.describe('on a phone', () => {
  test.use({ viewport: PHONE })

  test('the card is read on a phone, and paper chosen by keyboard', async ({ page }) => {
    await openBatch(page, 'Terrace heap')
    await page.goto('/card')
    await page.getByRole('button', { name: 'A4' }).focus()
    await page.keyboard.press('ArrowRight')
    await page.keyboard.press('Tab')
    expect(await sticksOut(page)).toBe(0)
    expect(await seriousFaults(page)).toEqual([])
  })
})
