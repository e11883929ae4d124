import { expect, type Page } from '@playwright/test'
import { fleet as askFleet } from '../commands/fleet'
import { ownEstate } from './estate'
import { seriousFaults } from './faults'
import { signedIn, withAdministrator } from './prepare'

export const address = () => ownEstate().address
export const administrator = { name: 'keeper', password: 'plover-egg-42' }

/** Signs in without a page: the next one that is opened is the administrator's. */
export async function signIn(page: Page): Promise<void> {
  await page.context().clearCookies()
  await signedIn(page.request)
}

/** Signs in by the page, as people do, and is where they are then. */
export async function comeIn(page: Page): Promise<void> {
  await withAdministrator(page.request)
  // Whoever has just become the first administrator is signed in already, and would not be asked.
  await page.context().clearCookies()
  await page.goto(`${address()}/sign-in`)
  await page.getByLabel('Your name').fill(administrator.name)
  await page.getByLabel('Password').fill(administrator.password)
  await page.getByRole('button', { name: 'Sign in' }).click()
  await page.waitForURL(`${address()}/`)
}

/** That axe finds nothing serious on the page once it has settled: while a page is exchanged for another it has no title. */
export async function isAccessible(page: Page): Promise<void> {
  await expect(async () => expect(await seriousFaults(page)).toEqual([])).toPass({ timeout: 60_000 })
}

/** Speaks to the fleet's own control interface by the words of the command, without the second that a process of its own would take. */
export const fleet = (...words: readonly string[]): Promise<unknown> => askFleet(ownEstate().data, words)

/** Waits until the change on the page has been proven. */
export async function isProven(page: Page): Promise<void> {
  await page.waitForURL(/\/changes\/[0-9a-f-]{36}$/)
  await expect(page.getByText('Carried out and proven.')).toBeVisible({ timeout: 180_000 })
}

export const margin = (page: Page) => page.getByRole('complementary', { name: 'Margin' })

/** Carries out the draft in the margin and waits for its proof. */
export async function carryOut(page: Page): Promise<void> {
  await expect(page.locator('[data-key="carry-out"]')).toBeEnabled()
  await page.locator('[data-key="carry-out"]').click()
  await isProven(page)
}

/** Chooses in a list of the margin, by what the option says. */
export async function choose(page: Page, label: string, option: string | RegExp): Promise<void> {
  await margin(page).getByLabel(label, { exact: true }).click()
  await page.getByRole('option', { name: option }).click()
  await expect(page.getByRole('listbox')).toHaveCount(0)
}
