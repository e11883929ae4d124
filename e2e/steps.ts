import { execFileSync } from 'node:child_process'
import { resolve } from 'node:path'
import AxeBuilder from '@axe-core/playwright'
import { expect, type Page } from '@playwright/test'
import { ownEstate } from './estate'
import { withAdministrator } from './prepare'

export const address = () => ownEstate().address
export const administrator = { name: 'keeper', password: 'plover-egg-42' }

export async function signIn(page: Page): Promise<void> {
  await withAdministrator(page.request)
  // Whoever has just become the first administrator is signed in already, and would not be asked.
  await page.context().clearCookies()
  await page.goto(`${address()}/sign-in`)
  await page.getByLabel('Your name').fill(administrator.name)
  await page.getByLabel('Password').fill(administrator.password)
  await page.getByRole('button', { name: 'Sign in' }).click()
  await page.waitForURL(`${address()}/`)
}

/**
 * Only what is wrong is told: for what is right it would write out where each of thousands of parts stands. It works within the page, as
 * ours have no frames of other origins: otherwise a page of its own is opened for each look.
 */
const axe = (page: Page) =>
  new AxeBuilder({ page }).options({ resultTypes: ['violations'], preload: false }).setLegacyMode(true)

/** That axe finds nothing serious on the page once it has settled: while a page is exchanged for another it has no title. */
export async function isAccessible(page: Page): Promise<void> {
  await expect(async () => {
    const { violations } = await axe(page).analyze()
    const serious = violations.filter(each => each.impact === 'serious' || each.impact === 'critical')
    const words = serious.map(
      ({ id, nodes }) =>
        `${id}: ${nodes
          .slice(0, 3)
          .map(node => node.html)
          .join(' | ')}`,
    )
    expect(words).toEqual([])
  }).toPass({ timeout: 60_000 })
}

/** Speaks to the fleet's own control interface, as whoever tests the product would. */
export function fleet(...words: readonly string[]): void {
  execFileSync('./wendrel', ['fleet', ...words], {
    cwd: resolve(import.meta.dirname, '..'),
    env: { ...process.env, WENDREL_DATA: ownEstate().data },
  })
}

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
