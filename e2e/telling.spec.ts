import { readFileSync } from 'node:fs'
import { join } from 'node:path'
import { expect, test } from '@playwright/test'
import { address, carryOut, choose, fleet, isAccessible, margin, signIn } from './steps'

interface Desk {
  readonly http: number
}
const desk = () =>
  (JSON.parse(readFileSync(join(process.env['WENDREL_E2E_DATA'] ?? '', 'fleet-ports.json'), 'utf8')) as { desk: Desk })
    .desk

test('the night desk is told of a system that is silent, once, with what was sent and what was answered', async ({
  page,
}) => {
  await signIn(page)
  await page.goto(`${address()}/watch/telling`)
  await expect(page.locator('.sentence')).toContainText('Nobody is told of anything yet.')
  await isAccessible(page)
  await margin(page).getByRole('link', { name: 'Define a route' }).click()
  await margin(page).getByLabel('Name', { exact: true }).fill('Night desk')
  await margin(page).getByLabel('Address').fill('https://')
  await expect(page.locator('[data-check="address"]')).toBeVisible()
  await margin(page).getByLabel('Address').fill(`http://127.0.0.1:${desk().http}/told`)
  await page.request.put(`http://127.0.0.1:${desk().http}/key`, { data: { key: 'the key of the desk' } })
  await margin(page).getByLabel('Key or password').fill('the key of the desk')
  await margin(page).getByLabel('Name', { exact: true }).focus()
  await expect(margin(page).getByText('Kept, sealed.')).toBeVisible()
  await isAccessible(page)
  await carryOut(page)
  await page.goto(`${address()}/watch/rules?draft=define-rule`)
  await margin(page).getByLabel('Name', { exact: true }).fill('All that calls for work')
  await choose(page, 'Of', 'findings')
  await margin(page).getByText('Night desk').click()
  await carryOut(page)
  fleet('fault', 'bittern', 'not-answering')
  try {
    await page.goto(`${address()}/watch/telling`)
    await expect(page.getByRole('main').getByRole('link', { name: /bittern does not answer/ })).toBeVisible({
      timeout: 60_000,
    })
  } finally {
    fleet('clear')
  }
  await page
    .getByRole('main')
    .getByRole('link', { name: /bittern does not answer/ })
    .first()
    .click()
  await expect(margin(page).getByLabel('What was sent')).toContainText('Signature-Input: told=')
  await expect(margin(page).getByLabel('What was answered')).toContainText('202')
  await isAccessible(page)
  const { received } = (await (await page.request.get(`http://127.0.0.1:${desk().http}/received`)).json()) as {
    received: { text: string; isSigned?: boolean }[]
  }
  const told = received.filter(({ text }) => text.includes('bittern does not answer') && text.includes('"begun"'))
  expect(told).toHaveLength(1)
  expect(told[0]?.isSigned).toBe(true)
  // Nobody else is told by it from here on.
  await page.goto(`${address()}/watch/routes`)
  await page.getByRole('main').getByRole('link', { name: 'Night desk' }).click()
  await margin(page).getByRole('link', { name: 'Remove' }).click()
  await carryOut(page)
})

test('any series stands on the board with its own week before, and its address is all of it', async ({ page }) => {
  await signIn(page)
  await page.goto(`${address()}/watch/board`)
  await expect(page.locator('.sentence')).toContainText('The board is empty.')
  await page.getByLabel('Put another series on it').fill('ct-scans-raw')
  await page.getByRole('main').getByRole('link', { name: 'written', exact: true }).first().click()
  await page.getByLabel('Put another series on it').fill('bittern-bulk')
  await page.getByRole('main').getByRole('link', { name: 'written', exact: true }).first().click()
  await expect(page.locator('[data-lane]')).toHaveCount(2)
  await page.getByRole('main').getByRole('link', { name: 'bittern-bulk-01' }).first().click()
  await choose(page, 'Beside it, itself before', '7 days')
  await expect(page.getByText('thin: 7 days before')).toBeVisible()
  const lanes = page.getByRole('slider')
  await lanes.focus()
  await page.keyboard.press('ArrowLeft')
  await expect(lanes).toHaveAttribute('aria-valuetext', /bittern-bulk-01 [\d.]+ TiB/)
  await page.keyboard.press('-')
  await page.waitForURL(/hours=144/)
  await isAccessible(page)
  const there = page.url()
  await page.goto(`${address()}/`)
  await page.goto(there)
  await expect(page.locator('[data-lane]')).toHaveCount(2)
  await expect(page.getByText('thin: 7 days before')).toBeVisible()
})

test('a thread leads from an application to its drives, and a month is told as a report', async ({ page }) => {
  await signIn(page)
  await page.goto(`${address()}/watch/threads`)
  await page
    .getByRole('main')
    .getByRole('link', { name: /^ct-scans-raw-02/ })
    .click()
  await expect(page.locator('.sentence')).toContainText(/ct-scans-raw-02 carries .* and needs/)
  await expect(margin(page).getByRole('link', { name: 'bittern-bulk-01' })).toBeVisible()
  await isAccessible(page)
  await margin(page).getByRole('link', { name: 'bittern-bulk-01' }).click()
  await expect(margin(page).getByRole('heading', { name: 'bittern-bulk-01' })).toBeVisible()
  await page.goto(`${address()}/watch/report`)
  await expect(page.locator('.sentence')).toContainText(/more by|less by/)
  await expect(page.getByRole('main').getByText('bittern-bulk-01')).toBeVisible()
  await isAccessible(page)
})
