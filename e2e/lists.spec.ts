import { expect, test } from '@playwright/test'
import { address, isAccessible, isProven, signIn } from './steps'

test('a volume is renamed beside its list and gets its name back; ports are listed, filtered and found', async ({
  page,
}) => {
  await signIn(page)
  for (const [from, to] of [
    ['ticket-desk-01', 'renamed-01'],
    ['renamed-01', 'ticket-desk-01'],
  ] as const) {
    await page.goto(`${address()}/provision`)
    await page.getByLabel('Name, WWN, host, LUN').fill(from)
    await page.getByRole('main').getByRole('link', { name: from, exact: true }).click()
    await page.getByRole('button', { name: 'More' }).click()
    await page.getByRole('menuitem', { name: 'Rename' }).click()
    await page.getByLabel('New name').fill(from)
    await expect(page.locator('[data-check="new"]')).toContainText('It has that name already.')
    await page.getByLabel('New name').fill(to)
    await expect(page.getByRole('button', { name: /^Rename/ })).toBeEnabled()
    await isAccessible(page)
    await page.keyboard.press('Shift+Enter')
    await isProven(page)
  }
  await page.keyboard.press('/')
  const list = page.getByRole('dialog')
  await list.getByRole('combobox').fill('ports')
  await list.getByRole('option', { name: 'Ports' }).click()
  await page.waitForURL(`${address()}/build/ports`)
  const rows = page.getByRole('table', { name: 'Ports' }).getByRole('row')
  const all = await rows.count()
  await page.getByLabel('Filter ports').fill('bittern')
  await expect.poll(() => rows.count()).toBeLessThan(all)
  await rows.nth(1).getByRole('link').click()
  await expect(page.getByRole('complementary').getByRole('link', { name: 'bittern' })).toBeVisible()
  await isAccessible(page)
  const saved = page.waitForEvent('download')
  await page.getByRole('button', { name: 'CSV' }).click()
  expect((await saved).suggestedFilename()).toBe('ports.csv')
})
