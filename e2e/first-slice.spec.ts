import { expect, test } from '@playwright/test'
import { ownEstate } from './estate'
import { address, administrator, choose, comeIn, fleet, isAccessible, isProven, signIn } from './steps'

test.describe.configure({ mode: 'serial' })

test('the first administrator sets a password by the printed code, rules shown as they are met', async ({ page }) => {
  await page.goto(address())
  await page.waitForURL(/welcome/)
  await page.getByLabel('Code').fill('WRONG-CODE')
  await page.getByLabel('Your name').fill(administrator.name)
  await page.getByLabel('Password', { exact: true }).fill('short')
  await expect(page.getByText('Has at least 12 characters')).toContainText('not met yet')
  await expect(page.getByRole('button', { name: 'Begin' })).toBeDisabled()
  await page.getByLabel('Password', { exact: true }).fill(administrator.password)
  await page.getByLabel('Password again').fill(administrator.password)
  await expect(page.getByText('Has at least 12 characters')).toContainText(', met')
  await isAccessible(page)
  await page.getByRole('button', { name: 'Begin' }).click()
  await expect(page.getByRole('main').getByRole('alert')).toContainText('code is not the one')
  await page.getByLabel('Code').fill(ownEstate().code)
  await page.getByRole('button', { name: 'Begin' }).click()
  await page.waitForURL(`${address()}/`)
  await expect(page.getByRole('heading', { level: 1 })).toContainText('round')
  await isAccessible(page)
})

test('sign-in is throttled after failures, and nothing is shown to strangers', async ({ page, request }) => {
  expect((await request.get(`${address()}/api/v1/systems`)).status()).toBe(401)
  expect(
    (
      await request.post(`${address()}/api/v1/session`, {
        data: { name: 'a', password: 'b' },
        headers: { Origin: 'http://elsewhere.example' },
      })
    ).status(),
  ).toBe(403)
  await page.goto(`${address()}/build`)
  await page.waitForURL(/sign-in/)
  for (let attempt = 0; attempt < 4; attempt += 1) {
    await page.getByLabel('Your name').fill('nobody')
    await page.getByLabel('Password').fill(`wrong-${attempt}`)
    await page.getByRole('button', { name: 'Sign in' }).click()
    await expect(page.getByRole('main').getByRole('alert')).toBeVisible()
  }
  await expect(page.getByRole('main').getByRole('alert')).toContainText('Try again in')
})

test('a system is registered by its address, after wrong ones got a clear answer', async ({ page }) => {
  await signIn(page)
  await page.goto(`${address()}/build`)
  await page.keyboard.press('n')
  const identify = async (where: string) => {
    await page.getByLabel('Management address').fill(where)
    await page.getByRole('button', { name: 'See who answers' }).click()
  }
  const look = async (password: string) => {
    await page.getByLabel('Name on the system').fill('admin')
    await page.getByLabel('Password').fill(password)
    await page.getByRole('button', { name: /^Look/ }).click()
  }
  const alert = page.getByRole('complementary').getByRole('alert')
  await identify('http://127.0.0.1:9')
  await expect(alert).toContainText('nothing listens on that port')
  await identify('not an address')
  await expect(alert).toContainText('is no address')
  await identify('http://169.254.169.254')
  await expect(alert).toContainText('address of this link only')
  await identify(address())
  await expect(alert).toContainText('not as a Redfish service')
  await identify(ownEstate().heron)
  await expect(page.getByRole('complementary').getByText('plain HTTP', { exact: true })).toBeVisible()
  // Nothing can be told to it before that was accepted.
  await expect(page.getByLabel('Password')).toBeDisabled()
  await page.getByText('Accept plain HTTP').click()
  await look('wrong')
  await expect(alert).toContainText('did not accept the name and password')
  await look('heron-demo')
  await expect(page.getByText('24 × 7.68 TB NVMe')).toBeVisible()
  await page.getByLabel('Name in the estate').fill("'; drop table systems; --")
  await expect(page.getByRole('complementary').getByText('A name has 1 to 63 letters').first()).toBeVisible()
  await page.getByLabel('Name in the estate').fill('heron')
  // Plain HTTP was accepted before the first word was said: no check is left that falls.
  await expect(page.getByRole('heading', { name: /Checks (\d+) of \1 hold/ })).toBeVisible()
  await choose(page, 'Site', 'Canal House')
  await isAccessible(page)
  await page.getByRole('button', { name: /^Register/ }).click()
  await isProven(page)
  await isAccessible(page)
})

test('a pool is drafted in the bays with the keyboard alone, carried out and proven', async ({ page }) => {
  await comeIn(page)
  await page.keyboard.press('2')
  await page.waitForURL(/build$/)
  await expect(page.getByRole('link', { name: 'heron', exact: true })).toBeVisible()
  // bittern, godwit, heron
  for (let row = 0; row < 3; row += 1) await page.keyboard.press('j')
  await expect(page.getByRole('link', { name: 'heron', exact: true })).toBeFocused()
  await page.keyboard.press('Enter')
  await page.waitForURL(/systems/)
  await expect(page.getByRole('heading', { level: 1, name: 'heron' })).toBeVisible()
  await page.keyboard.press('n')
  const bays = page.getByRole('checkbox', { name: /^Bay / })
  await expect(bays).toHaveCount(24)
  await bays.first().focus()
  await page.keyboard.press('Space')
  await expect(bays.first()).toBeChecked()
  await expect(page.locator('[data-check="layout"]')).toBeVisible()
  await bays.nth(11).focus()
  await page.keyboard.press('Shift+Space')
  await expect(page.getByText('12 of 24 chosen')).toBeVisible()
  await page.keyboard.press('e')
  await page.keyboard.type('heron-fast-01')
  await expect(page.getByText('draft: group 1, 9 data + 2 parity')).toBeVisible()
  await expect(page.getByText('any 2 drives of a group')).toBeVisible()
  await isAccessible(page)
  await expect(page.getByRole('button', { name: /Carry out/ })).toBeEnabled()
  await page.keyboard.press('Shift+Enter')
  await isProven(page)
  await expect(page.getByText('It holds exactly the chosen drives')).toBeVisible()
  await expect(page.getByText('by the systems’ own time')).toBeVisible()
})

test('a thin volume is provisioned to a host and proven by a write and read-back', async ({ page }) => {
  await signIn(page)
  await page.goto(`${address()}/provision`)
  await page.keyboard.press('n')
  await choose(page, 'Host group', 'accession-register')
  await page.getByLabel('Purpose').fill('data')
  await page.getByLabel('Size').fill('4')
  await expect(page.getByText('Units are never guessed').first()).toBeVisible()
  await choose(page, 'Pool', /^heron-fast-01/)
  await page.getByLabel('Size').fill('0 GiB')
  await expect(page.getByText('A volume of no size holds nothing.').first()).toBeVisible()
  await page.getByLabel('Size').fill('900 TiB')
  await expect(page.locator('[data-check="overcommit"]')).toContainText('over-committed')
  await page.getByLabel('Size').fill('4 TiB')
  await expect(page.getByText('4 TiB = 4.4 TB').first()).toBeVisible()
  await page.getByRole('button', { name: 'Use accession-register-data-01' }).click()
  await isAccessible(page)
  await expect(page.getByRole('button', { name: /Carry out/ })).toBeEnabled()
  await page.getByRole('button', { name: /Carry out/ }).click()
  await isProven(page)
  await expect(page.getByText(/writes 1 MiB at byte/)).toHaveCount(3)
  await expect(page.getByText('not in the group, does not see it')).toBeVisible()
  await expect(page.getByText('mkfs.xfs -L accession-re')).toBeVisible()
  await page.keyboard.press('1')
  await expect(page.getByText('Provision accession-register-data-01 to accession-register')).toBeVisible()
  await isAccessible(page)
})

test('a draft survives the page, a silent array is said, and what it costs is nothing', async ({ page }) => {
  await signIn(page)
  await page.goto(`${address()}/provision?draft=provision-volume`)
  await page.getByLabel('Purpose').fill('survives')
  await expect(page.getByText('kept as a draft')).toBeVisible()
  await page.reload()
  await expect(page.getByLabel('Purpose')).toHaveValue('survives')
  await page.getByRole('button', { name: 'Discard' }).click()
  await expect(page.getByText('Where what you gave out stands')).toBeVisible()
  await fleet('fault', 'heron', 'unavailable')
  await page.goto(address())
  await expect(page.getByText('heron does not answer')).toBeVisible()
  await fleet('clear')
  await expect(page.getByText('heron does not answer')).toBeHidden()
})

test('a volume is removed by its name into holding, and brought back', async ({ page }) => {
  await signIn(page)
  await page.goto(`${address()}/provision?filter=accession`)
  await page.getByRole('main').getByRole('link', { name: 'accession-register-data-01', exact: true }).click()
  await page.getByRole('link', { name: 'Remove' }).click()
  await expect(page.locator('[data-check="named"]')).toBeVisible()
  await page.getByLabel('Its name').fill('accession-register-data-01')
  await page.getByRole('button', { name: /^Remove/ }).click()
  await isProven(page)
  await page.getByRole('button', { name: 'Draft the reverse' }).click()
  await expect(page.getByText('A draft: nothing has been changed yet.')).toBeVisible()
  await page.getByRole('button', { name: 'Carry out' }).click()
  await expect(page.getByText('Carried out and proven.')).toBeVisible()
  await page.goto(`${address()}/provision?state=in+use&filter=accession`)
  await expect(
    page.getByRole('main').getByRole('link', { name: 'accession-register-data-01', exact: true }),
  ).toBeVisible()
})

test('a script does with a bearer token what the interface does, and a withdrawn token does nothing', async ({
  page,
  playwright,
}) => {
  await signIn(page)
  await page.goto(`${address()}/account`)
  await page.getByLabel('What it is for').fill('nightly report')
  await page.getByRole('button', { name: 'Make a token' }).click()
  const token = (await page.getByText(/^wdl_/).textContent())?.trim().split(/\s/)[0] ?? ''
  await isAccessible(page)
  const script = await playwright.request.newContext({
    baseURL: address(),
    extraHTTPHeaders: { Authorization: `Bearer ${token}` },
  })
  const { items } = (await (await script.get('/api/v1/pools')).json()) as { items: { id: string; name: string }[] }
  const pool = items.find(each => each.name === 'heron-fast-01')
  const intent = { name: 'by-script-01', purpose: '', size: '10 GiB', poolId: pool?.id, isThin: true, hostGroupId: '' }
  const wrong = await script.post('/api/v1/changes', {
    data: { kind: 'provision-volume', intent: { ...intent, size: 4 } },
  })
  expect(wrong.status()).toBe(400)
  const draft = (await (
    await script.post('/api/v1/changes', { data: { kind: 'provision-volume', intent } })
  ).json()) as { id: string; planDigest: string }
  expect(
    (await script.post(`/api/v1/changes/${draft.id}/carry-out`, { data: { planDigest: draft.planDigest } })).status(),
  ).toBe(202)
  await expect
    .poll(
      async () =>
        ((await (await script.get(`/api/v1/changes/${draft.id}`)).json()) as { change: { state: string } }).change
          .state,
      { timeout: 60_000 },
    )
    .toBe('proven')
  await page.getByRole('button', { name: 'Withdraw' }).click()
  await expect.poll(async () => (await script.get('/api/v1/pools')).status()).toBe(401)
})

test('a second administrator is added and removed, and its session ends at once', async ({ page, browser }) => {
  await signIn(page)
  await page.goto(`${address()}/account`)
  await expect(page.getByRole('button', { name: 'Remove' })).toBeDisabled()
  await page.getByLabel('Add an administrator').fill('night-keeper')
  await page.getByLabel('First password').fill('heron-at-dusk-7')
  await page.getByRole('button', { name: 'Add', exact: true }).click()
  await expect(page.getByRole('cell', { name: 'night-keeper' })).toBeVisible()
  const other = await (await browser.newContext()).newPage()
  await other.goto(`${address()}/sign-in`)
  await other.getByLabel('Your name').fill('night-keeper')
  await other.getByLabel('Password').fill('heron-at-dusk-7')
  await other.getByRole('button', { name: 'Sign in' }).click()
  await other.waitForURL(`${address()}/`)
  await page
    .getByRole('row', { name: /night-keeper/ })
    .getByRole('button', { name: 'Remove' })
    .click()
  await expect(page.getByRole('cell', { name: 'night-keeper' })).toBeHidden()
  await other.goto(`${address()}/build`)
  await other.waitForURL(/sign-in/)
})

test('everything can be found and reached by keys; night and narrow screens stay readable', async ({ page }) => {
  await comeIn(page)
  await page.keyboard.press('?')
  await expect(page.getByRole('dialog')).toContainText('Carry out a checked draft')
  await page.keyboard.press('Escape')
  await page.keyboard.press('/')
  await expect(page.getByRole('combobox')).toBeFocused()
  await page.keyboard.type('heron-fast')
  await expect(page.getByRole('option', { name: /heron-fast-01/ }).first()).toBeVisible()
  await isAccessible(page)
  await page.keyboard.press('Escape')
  await expect(page.getByRole('dialog')).toBeHidden()
  await page.keyboard.press('Control+k')
  await expect(page.getByRole('combobox')).toBeFocused()
  await page.keyboard.type('night round')
  await expect(page.getByRole('option')).toHaveText(['Night round or day'])
  await expect(page.getByRole('option')).toHaveAttribute('aria-selected', 'true')
  await page.keyboard.press('Enter')
  await expect(page.locator('html')).toHaveAttribute('data-theme', 'night')
  await page.keyboard.press('Escape')
  for (const path of [
    '/',
    '/build',
    '/build/network',
    '/build/drives',
    '/build/pools',
    '/provision',
    '/provision/hosts',
    '/changes',
    '/account',
  ]) {
    await page.goto(`${address()}${path}`)
    await isAccessible(page)
  }
  await page.setViewportSize({ width: 390, height: 844 })
  await page.goto(address())
  await page.getByRole('button', { name: 'Sections' }).click()
  await page.getByRole('navigation', { name: 'Sections' }).getByRole('link', { name: 'Provision' }).click()
  await page.waitForURL(/provision/)
  await isAccessible(page)
  for (const path of ['/', '/build/pools', '/provision']) {
    await page.goto(`${address()}${path}`)
    expect(await page.evaluate(() => document.documentElement.scrollWidth)).toBeLessThanOrEqual(390)
  }
  await page.setViewportSize({ width: 1024, height: 768 })
  for (const path of ['/', '/build/pools', '/provision']) {
    await page.goto(`${address()}${path}`)
    expect(await page.evaluate(() => document.documentElement.scrollWidth)).toBeLessThanOrEqual(1024)
  }
})
