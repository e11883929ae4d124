import { expect, test } from '@playwright/test'
import { address, carryOut, isAccessible, margin, signIn } from './steps'

test('the pool that fills soon is found in the morning, read day by day, and a way out leads to a draft', async ({
  page,
}) => {
  await signIn(page)
  // Its history is read once it is registered, and forecast after that.
  await expect
    .poll(
      async () => {
        await page.goto(`${address()}/watch`)
        return page.getByRole('slider', { name: /^bittern-bulk-01: .* today/ }).count()
      },
      { timeout: 180_000, intervals: [2000] },
    )
    .toBe(1)
  // The fleet's clock has run through weeks by now: it is due soon, or past its limit.
  await expect(page.locator('.sentence')).toContainText(/bittern-bulk-01 reaches its limit on|is past the limit/)
  await page.goto(address())
  await page.getByRole('link', { name: /^bittern-bulk-01 is (nine tenths full in|\d+% full)/ }).click()
  await page.goto(`${address()}/watch`)
  await expect(page.getByRole('heading', { name: 'Watch', exact: true })).toBeVisible()
  const chart = page.getByRole('slider')
  await chart.focus()
  await page.keyboard.press('PageDown')
  await expect(chart).toHaveAttribute('aria-valuetext', /is likely, between/)
  await page.keyboard.press('PageUp')
  await page.keyboard.press('PageUp')
  await expect(chart).toHaveAttribute('aria-valuetext', /: [\d.]+ TiB$/)
  await expect(page.getByRole('main').getByText('ct-scans-raw-02')).toBeVisible()
  await expect(page.getByText(/of \d+ such forecasts held/)).toBeVisible()
  await isAccessible(page)
  await page.keyboard.press('1')
  await page.keyboard.press('6')
  await page.waitForURL(/\/watch/)
  await page.getByRole('complementary').getByRole('link', { name: 'Draft' }).first().click()
  await page.waitForURL(/draft=/)
  await expect(page.locator('[data-check]').first()).toBeVisible()
  const answer = await page.request.get(`${address()}/api/v1/metrics`)
  expect(answer.headers()['content-type']).toContain('openmetrics-text')
  expect(await answer.text()).toMatch(/wendrel_pool_written_bytes\{id="[0-9a-f-]+",pool="bittern-bulk-01"/)
})

test('who is loud on Monday mornings is named, with what it costs the others, and every hour is read by the keys', async ({
  page,
}) => {
  await signIn(page)
  await expect
    .poll(
      async () => {
        await page.goto(`${address()}/watch/performance`)
        return page.getByRole('slider').count()
      },
      { timeout: 180_000, intervals: [2000] },
    )
    .toBe(1)
  await page.getByRole('main').getByRole('link', { name: 'staff-homes-01' }).click()
  await expect(page.getByRole('complementary').getByRole('heading', { name: 'staff-homes-01' })).toBeVisible()
  const loud = page.getByRole('complementary').getByRole('listitem')
  await expect(loud.first()).toContainText('ct-scans-derived-01')
  await expect(loud.first()).toContainText(/Without it/)
  const chart = page.getByRole('slider', { name: /^staff-homes-01: Latency, Requests, Throughput/ })
  await chart.focus()
  await page.keyboard.press('PageUp')
  await expect(chart).toHaveAttribute('aria-valuetext', /Latency .*, bittern-bulk-01 .*, Requests/)
  await isAccessible(page)
  const slowest = await page.request.get(`${address()}/api/v1/slowest-volumes?limit=3`)
  const { items, total } = (await slowest.json()) as { items: { p95Seconds: number }[]; total: number }
  expect(items).toHaveLength(3)
  expect(total).toBeGreaterThanOrEqual(9)

  await loud.first().getByRole('link', { name: 'limit it' }).click()
  await margin(page).getByLabel('Requests a second').fill('300')
  await expect(page.locator('[data-check="own-hosts"]')).toBeVisible()
  await expect(margin(page).getByText('The drives of its pool are busy')).toBeVisible()
  await isAccessible(page)
  await carryOut(page)
  await expect(page.getByText('The system states the limit for the volume of this WWN')).toBeVisible()
  await page.getByRole('button', { name: 'Draft the reverse' }).click()
  await carryOut(page)
})
