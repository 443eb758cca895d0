import AxeBuilder from '@axe-core/playwright'
import {
  type APIRequestContext,
  test as base,
  expect,
  type Locator,
  type Page,
  type Request,
} from '@playwright/test'

export { expect }
export const WIDE = { width: 1280, height: 800 }
export const PHONE = { width: 360, height: 740 }

/**
 * A page on which nothing may complain: no error in the console, none thrown. What was done on it is
 * with the farm before the next journey begins: a page that is closed sends nothing.
 */
export const test = base.extend({
  page: async ({ page }, use) => {
    const complaints: string[] = []
    page.on('console', (message) => {
      // An answer of 4xx that a test provokes is shown to the person; Chromium notes it here as well.
      const isAnswer = message.text().startsWith('Failed to load resource')
      // So says the runner where it keeps a journey free of what a device keeps.
      const isBlocked = message.text().startsWith('Service Worker registration blocked')
      if (['error', 'warning'].includes(message.type()) && !isAnswer && !isBlocked)
        complaints.push(message.text())
    })
    page.on('pageerror', (error) => complaints.push(error.message))
    const writes = new Set<Request>()
    page.on('request', (request) => request.method() !== 'GET' && writes.add(request))
    for (const ends of ['requestfinished', 'requestfailed'] as const)
      page.on(ends as 'requestfinished', (request) => writes.delete(request))
    await use(page)
    if (page.url().startsWith('http'))
      await expect.poll(async () => writes.size + (await waiting(page)), { message: 'all is sent' }).toBe(0)
    expect(complaints).toEqual([])
  },
})

/** How much of what was done on a page it has not sent yet. */
const waiting = (page: Page) =>
  page.evaluate(async () => {
    const NAME = 'zymarch-waiting'
    if (!(await indexedDB.databases()).some(({ name }) => name === NAME)) return 0
    return new Promise<number>((resolve, reject) => {
      const opening = indexedDB.open(NAME)
      opening.onerror = () => reject(new Error('what waits cannot be read'))
      opening.onsuccess = () => {
        const counting = opening.result.transaction('acts').objectStore('acts').count()
        counting.onsuccess = () => {
          opening.result.close()
          resolve(counting.result)
        }
      }
    })
  })

/** What a checker of accessibility finds serious or critical on the page; by all rules, or by these alone. */
export async function seriousFaults(page: Page, rules: string[] = []): Promise<string[]> {
  // Half faded out, words have no contrast that anybody would judge.
  await page.evaluate(() =>
    Promise.allSettled(
      document
        .getAnimations()
        .filter((one) => one.effect?.getTiming().iterations !== Infinity)
        .map((one) => one.finished),
    ),
  )
  // Legacy mode leaves out a second page, which only frames of other origins need; there are none.
  const { violations } = await new AxeBuilder({ page })
    .setLegacyMode()
    .options({
      resultTypes: ['violations'],
      ...(rules.length ? { runOnly: { type: 'rule' as const, values: rules } } : {}),
    })
    .analyze()
  return violations
    .filter(({ impact }) => impact === 'serious' || impact === 'critical')
    .map(({ id, nodes }) => `${id}: ${nodes.map((node) => node.target.join(' ')).join(', ')}`)
}

/** Whether the page can be pushed sideways: on a phone nothing may stick out. */
export function sticksOut(page: Page): Promise<number> {
  return page.evaluate(() => document.documentElement.scrollWidth - document.documentElement.clientWidth)
}

export async function openBatch(page: Page, name: string) {
  await page.goto('/batches')
  await page.getByRole('button', { name: `Open ${name}`, exact: true }).click()
  await expect(page.getByRole('region', { name: 'Amounts' })).toContainText('Water')
  await expect(page.getByRole('button', { name: /^Carbon to nitrogen/ })).toBeVisible()
}

/** Waits until what was closed has taken its entry off the history: only then is another page gone to. */
export const nothingOver = (page: Page) =>
  page.waitForFunction(() => !(history.state as Record<string, unknown> | null)?.zymarchOver)

/** Where something of the first site stands. */
export async function atSite(request: APIRequestContext, what: string): Promise<string> {
  const sites = (await (await request.get('/api/sites')).json()) as { id: string }[]
  return `/api/sites/${sites[0]!.id}/${what}`
}

/** The page of the lot of a material at the first site, or one beneath it. */
export async function lotPath(page: Page, material: string, beneath = ''): Promise<string> {
  const answer = await page.request.get(await atSite(page.request, 'lots'))
  const lots = (await answer.json()) as { id: string; material: string }[]
  return `/stock/${lots.find((lot) => lot.material === material)!.id}${beneath}`
}

/**
 * Chooses from a list. A list closes when anything behind it scrolls or is resized, be it a frame
 * late on a busy machine; then it is opened again, as a person does.
 */
export async function choose(list: Locator, option: Locator) {
  await expect(async () => {
    if (!(await option.isVisible())) await list.click()
    await expect(option).toBeVisible({ timeout: 3000 })
  }).toPass()
  await option.click()
}
