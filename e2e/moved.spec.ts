import { expect, test } from '@playwright/test'
import { withMovable } from './prepare'
import { address, carryOut, choose, isAccessible, margin, signIn } from './steps'

test('a volume is moved to another system while its host sees it', async ({ page }) => {
  const { volume, farPool } = await withMovable(page.request)
  await signIn(page)
  await page.goto(`${address()}/provision?filter=${volume}`)
  await page.getByRole('main').getByRole('link', { name: volume, exact: true }).click()
  await margin(page).getByRole('button', { name: 'More' }).click()
  await page.getByRole('menuitem', { name: 'Move to another system' }).click()
  // Nothing is chosen yet: the form says what it needs, and cannot be carried out.
  await expect(margin(page).getByText('Choose a pool of another system.').first()).toBeVisible()
  await expect(page.locator('[data-key="carry-out"]')).toBeDisabled()
  await choose(page, 'To', new RegExp(farPool))
  await expect(margin(page).getByText(`heron mirrors to ${farPool} on curlew.`)).toBeVisible()
  await isAccessible(page)
  await carryOut(page)
  await expect(page.getByText(/reads from its new system what the old one held/).first()).toBeVisible()
  await page.goto(`${address()}/provision?filter=${volume}`)
  await expect(page.getByRole('row', { name: new RegExp(`${volume}.*${farPool}`) })).toBeVisible()
  await isAccessible(page)
})
