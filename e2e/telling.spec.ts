import { readFileSync } from 'node:fs'
import { join } from 'node:path'
import { expect, test, type Page } from '@playwright/test'
import { ownEstate } from './estate'
import { address, carryOut, choose, fleet, isAccessible, margin, signIn } from './steps'

interface Desk {
  readonly http: number
}
const desk = () => (JSON.parse(readFileSync(join(ownEstate().data, 'fleet-ports.json'), 'utf8')) as { desk: Desk }).desk

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
  // While the rule is made the system falls silent; it takes a while until that is sure.
  await fleet('fault', 'bittern', 'not-answering')
  try {
    await page.goto(`${address()}/watch/rules?draft=define-rule`)
    await margin(page).getByLabel('Name', { exact: true }).fill('All that calls for work')
    await choose(page, 'Of', 'findings')
    await margin(page).getByText('Night desk').click()
    await carryOut(page)
    await page.goto(`${address()}/watch/telling`)
    await expect(page.getByRole('main').getByRole('link', { name: /bittern does not answer/ })).toBeVisible({
      timeout: 180_000,
    })
  } finally {
    await fleet('clear')
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

/** Drags the second lane before the first by its handle, and takes it back by the keys. */
async function isReordered(page: Page): Promise<void> {
  const lanes = page.locator('svg[data-lane]')
  const order = async () => lanes.evaluateAll(all => all.map(each => each.getAttribute('data-lane')))
  const [first, second] = await order()
  const handles = page.getByRole('button', { name: /^Move / })
  const [to, from] = [await handles.nth(0).boundingBox(), await handles.nth(1).boundingBox()]
  if (to === null || from === null) throw new Error('Both lanes have a handle.')
  await page.mouse.move(from.x + 5, from.y + 5)
  await page.mouse.down()
  await page.mouse.move(to.x + 5, to.y + 5, { steps: 12 })
  await page.mouse.up()
  await expect.poll(order).toEqual([second, first])
  await page.waitForURL(address => address.searchParams.get('lanes')?.startsWith(second ?? '?') === true)
  await handles.nth(0).focus()
  await page.keyboard.press('Space')
  await expect(page.getByText(/is taken up|is at /)).toBeAttached()
  await page.keyboard.press('ArrowDown')
  await expect(page.getByText(/is at /)).toBeAttached()
  await page.keyboard.press('Space')
  await expect.poll(order).toEqual([first, second])
}

test('any series stands on the board with its own week before, and its address is all of it', async ({ page }) => {
  await signIn(page)
  await page.goto(`${address()}/watch/board`)
  await expect(page.locator('.sentence')).toContainText('The board is empty.')
  await page.getByLabel('Put another series on it').fill('ct-scans-raw')
  await page.getByRole('main').getByRole('link', { name: 'written', exact: true }).first().click()
  await page.getByLabel('Put another series on it').fill('bittern-bulk')
  await page.getByRole('main').getByRole('link', { name: 'written', exact: true }).first().click()
  await expect(page.locator('svg[data-lane]')).toHaveCount(2)
  await isReordered(page)
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
  await expect(page.locator('svg[data-lane]')).toHaveCount(2)
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
