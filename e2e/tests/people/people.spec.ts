import type { Browser, Page } from '@playwright/test'
import { expect, PHONE, seriousFaults, sticksOut, test, WIDE } from '../page'

/** One farm, from nobody to several: each journey goes on from the one before. */
test.describe.configure({ mode: 'serial' })

const PASSPHRASE = 'three barrows of wet straw'

/** A phone of its own: nothing of another browser's is known there. */
async function phone(browser: Browser): Promise<Page> {
  const context = await browser.newContext({ viewport: PHONE, hasTouch: true, isMobile: true })
  return context.newPage()
}

async function signedIn(page: Page, name = 'Wayra', passphrase = PASSPHRASE) {
  await page.goto('/sign-in')
  await page.getByRole('button', { name: 'I have a passphrase' }).click()
  await page.getByLabel('Name').fill(name)
  await page.getByLabel('Passphrase', { exact: true }).fill(passphrase)
  await page.getByRole('button', { name: 'Come in' }).click()
  await expect(page).toHaveURL(/\/(bench|today)$/)
}

async function letIn(page: Page, name: string, role: RegExp, sites: string[] = []): Promise<string> {
  await page.goto('/people')
  await page.getByRole('button', { name: 'Let somebody in' }).click()
  const form = page.getByRole('dialog', { name: 'Let somebody in' })
  await form.getByLabel('Name').fill(name)
  await form.getByRole('radio', { name: role }).check()
  for (const site of sites) await form.getByRole('checkbox', { name: site }).check()
  await form.getByRole('button', { name: 'Make a code' }).click()
  const sheet = page.getByRole('dialog', { name: `A code for ${name}` })
  await expect(sheet.getByRole('img', { name: /phone’s camera/ })).toBeVisible()
  return (await sheet.getByText(/^[0-9A-Z]{5}-[0-9A-Z]{5}$/).textContent()) ?? ''
}

test('whoever sits at the machine becomes the owner, and everybody signs in from then on', async ({
  page,
  browser,
}) => {
  await page.setViewportSize(WIDE)
  await page.goto('/people')
  await expect(page.getByText(/opened on this machine and nowhere else/)).toBeVisible()
  // By the keyboard alone.
  await page.getByLabel('What you are called').focus()
  await page.keyboard.type('Wayra')
  await page.keyboard.press('Tab')
  await page.keyboard.type('too short')
  await page.keyboard.press('Enter')
  await expect(page.getByText(/must have at least 12 letters/)).toBeVisible()
  await page.getByLabel('Passphrase').fill(PASSPHRASE)
  await page.keyboard.press('Enter')
  await expect(page.getByRole('heading', { name: 'Wayra' })).toBeVisible()
  expect(await seriousFaults(page)).toEqual([])
  const other = await phone(browser)
  await other.goto('/stock')
  await expect(other.getByRole('heading', { name: 'Sign in' })).toBeVisible()
  await expect(other.getByRole('navigation')).toHaveCount(0)
  expect(await seriousFaults(other)).toEqual([])
  expect(await sticksOut(other)).toBe(0)
})

test('the owner invites a worker by a picture; they come in on their phone, and go where they wanted', async ({
  page,
  browser,
}) => {
  await signedIn(page)
  const code = await letIn(page, 'Amaru', /^worker/)
  const theirs = await phone(browser)
  await theirs.goto(`/join#${code}`)
  await expect(theirs.getByLabel('Code')).toHaveValue(code)
  // The code stays out of the address from then on.
  expect(new URL(theirs.url()).hash).toBe('')
  await theirs.getByLabel('This device').fill('Amaru’s phone')
  await theirs.getByRole('button', { name: 'Come in' }).click()
  await expect(theirs).toHaveURL(/\/(bench|today)$/)
  // What they write down is told with their name.
  await theirs.goto('/stock')
  await theirs.getByRole('link', { name: 'Sheep manure', exact: true }).click()
  await theirs.getByRole('button', { name: 'More came' }).click()
  await expect(theirs.getByRole('region', { name: 'Came and went' })).toContainText('Amaru')
  // Nothing of people is theirs but themselves.
  await theirs.goto('/people')
  await expect(theirs.getByRole('heading', { name: 'Amaru' })).toBeVisible()
  await expect(theirs.getByText('Amaru’s phone')).toBeVisible()
  await expect(theirs.getByRole('button', { name: 'Let somebody in' })).toHaveCount(0)
  expect(await seriousFaults(theirs)).toEqual([])
  expect(await sticksOut(theirs)).toBe(0)
  // Used once, it lets nobody in again, and says so at its field.
  const third = await phone(browser)
  await third.goto(`/join#${code}`)
  await third.getByRole('button', { name: 'Come in' }).click()
  await expect(third.getByRole('alert')).toContainText('this code lets nobody in')

  // The phone is lost: cut off, it is at the door with its next step, and comes back where it was.
  await page.goto('/people')
  await page.getByRole('button', { name: 'Cut off Amaru’s phone of Amaru' }).click()
  await expect(page.getByText('Amaru’s phone is cut off.')).toBeVisible()
  await theirs.goto('/measures')
  await expect(theirs.getByRole('heading', { name: 'Sign in' })).toBeVisible()
  await page.getByRole('button', { name: 'Make a code for Amaru' }).click()
  const again = await page.getByRole('dialog').getByText(/^[0-9A-Z]{5}-[0-9A-Z]{5}$/).textContent()
  await theirs.getByLabel('Code').fill((again ?? '').toLowerCase().replace('-', ' '))
  await theirs.getByRole('button', { name: 'Come in' }).click()
  await expect(theirs).toHaveURL(/\/measures$/)
})

test('a trainer opens two plots, lets a learner in at one, and a guest looks', async ({ page, browser }) => {
  await signedIn(page)
  const code = await letIn(page, 'Killa', /^trainer/)
  const trainer = await phone(browser)
  await trainer.goto(`/join#${code}`)
  await trainer.getByRole('button', { name: 'Come in' }).click()
  await expect(trainer).toHaveURL(/\/(bench|today)$/)
  for (const plot of ['Upper plot', 'Lower plot']) {
    await trainer.goto('/settings')
    await trainer.getByRole('button', { name: 'Add a site' }).click()
    await trainer.getByRole('dialog').getByLabel('Name').fill(plot)
    await trainer.getByRole('dialog').getByRole('button', { name: 'Save' }).click()
    await expect(trainer.getByRole('dialog')).toHaveCount(0)
  }
  const learners = await letIn(trainer, 'Sami', /^worker/, ['Lower plot'])
  const learner = await phone(browser)
  await learner.goto(`/join#${learners}`)
  await learner.getByRole('button', { name: 'Come in' }).click()
  await expect(learner).toHaveURL(/\/(bench|today)$/)
  // The learner sees their plot and no other, and cannot change what it is.
  await learner.goto('/settings')
  const sites = learner.getByRole('region', { name: 'Sites' })
  await expect(sites.getByText('Lower plot')).toBeVisible()
  await expect(sites.getByRole('listitem')).toHaveCount(1)
  await expect(sites.getByRole('button', { name: 'Add a site' })).toBeHidden()
  // The trainer sees both plots and who is at them, not the owner.
  await trainer.goto('/people')
  const others = trainer.getByRole('region', { name: 'Others' })
  await expect(others).toContainText('Sami')
  await expect(others).not.toContainText('Wayra')
  await expect(trainer.getByRole('link', { name: 'Comings and goings' })).toHaveCount(0)

  const looks = await letIn(trainer, 'Inti', /^guest/, ['Lower plot'])
  const guest = await phone(browser)
  await guest.goto(`/join#${looks}`)
  await guest.getByRole('button', { name: 'Come in' }).click()
  await expect(guest).toHaveURL(/\/(bench|today)$/)
  await guest.goto('/stock')
  await expect(guest.getByText(/You look at this farm as a guest/)).toBeVisible()
  await expect(guest.getByRole('button', { name: 'Add a lot' })).toBeHidden()
  expect(await seriousFaults(guest)).toEqual([])
})

test('comings and goings are told to the owner, and who leaves is at the door', async ({ page }) => {
  await signedIn(page)
  await page.goto('/comings')
  await expect(page.getByText('Wayra made a code for Amaru').first()).toBeVisible()
  await expect(page.getByText('Somebody was not let in').first()).toBeVisible()
  expect(await seriousFaults(page)).toEqual([])
  await page.goto('/people')
  await page.getByRole('button', { name: 'Change passphrase' }).click()
  const form = page.getByRole('dialog', { name: 'Change passphrase' })
  await form.getByLabel('The passphrase until now').fill('not the one it was')
  await form.getByLabel('New passphrase').fill('four sacks of dry leaves')
  await form.getByRole('button', { name: 'Save' }).click()
  await expect(form.getByText(/do not go together/)).toBeVisible()
  await form.getByLabel('The passphrase until now').fill(PASSPHRASE)
  await form.getByRole('button', { name: 'Save' }).click()
  await expect(page.getByText('Your passphrase is set.', { exact: false })).toBeVisible()
  await page.getByRole('button', { name: 'Sign out' }).click()
  await expect(page.getByRole('heading', { name: 'Sign in' })).toBeVisible()
  await page.goBack()
  await expect(page.getByRole('heading', { name: 'Sign in' })).toBeVisible()
  await signedIn(page, 'wayra', 'four sacks of dry leaves')
})
