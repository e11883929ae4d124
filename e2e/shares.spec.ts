import { readFileSync } from 'node:fs'
import { join } from 'node:path'
import { expect, test } from '@playwright/test'
import { address, carryOut, choose, isAccessible, margin, signIn } from './steps'

const server = 'files.canal.marrowfield.example'
const hostAddress = (name: string) => {
  const { hosts } = JSON.parse(
    readFileSync(join(process.env['WENDREL_E2E_DATA'] ?? '', 'fleet-ports.json'), 'utf8'),
  ) as { readonly hosts: Readonly<Record<string, number>> }
  return `http://127.0.0.1:${hosts[name]}`
}

test('a share is served, proven from several hosts, and who cannot write is told why and mended by the smallest change', async ({
  page,
}) => {
  test.setTimeout(240_000)
  await signIn(page)
  for (const [name, group] of [
    ['scanner-gate', 'ct-scans'],
    ['desk-1', 'reading-room'],
  ] as const) {
    await page.goto(`${address()}/provision/hosts?draft=register-host`)
    await margin(page).getByLabel('Address of its agent').fill(hostAddress(name))
    await margin(page).getByLabel('Host group').fill(group)
    await Promise.race([
      expect(page.locator('[data-key="carry-out"]')).toBeEnabled(),
      expect(page.locator('[data-check="new"]')).toBeVisible(),
    ])
    if (await page.locator('[data-key="carry-out"]').isEnabled()) await carryOut(page)
  }
  await page.goto(`${address()}/provision/file-services`)
  await isAccessible(page)
  await margin(page).getByRole('link', { name: 'Serve files from a system' }).click()
  await choose(page, 'System', 'bittern')
  await margin(page).getByLabel('Name', { exact: true }).fill(server)
  await margin(page).getByLabel('First address').fill('10.60.2.40')
  await expect(page.locator('[data-check="address"]')).toBeVisible()
  await margin(page).getByLabel('First address').fill('10.60.2.40/24')
  await carryOut(page)
  await page.goto(`${address()}/provision/shares?draft=provision-share`)
  await choose(page, 'File service', server)
  await margin(page).getByLabel('Name', { exact: true }).fill('lens-plates')
  await margin(page).getByLabel('Size').fill('2 GiB')
  await choose(page, 'Pool', 'bittern-bulk-01')
  await margin(page).getByLabel('Owner of its root, uid').fill('2001')
  await margin(page).getByLabel('Group, gid').fill('300')
  await margin(page).getByRole('button', { name: 'Add a rule' }).click()
  await margin(page).getByLabel('Host or subnet of rule 1').fill('10.60.46.12')
  await margin(page).getByRole('button', { name: 'Add a rule' }).click()
  await margin(page).getByLabel('Host or subnet of rule 2').fill('10.60.52.0/24')
  await choose(page, 'Access of rule 2', 'read only')
  await isAccessible(page)
  await carryOut(page)
  await expect(page.getByText('uid 2001 from desk-1 is refused a write')).toBeVisible()
  await page.goto(`${address()}/provision/shares`)
  await page.getByRole('main').getByRole('link', { name: 'lens-plates' }).click()
  await margin(page).getByRole('link', { name: 'Open it' }).click()
  await expect(page.getByRole('heading', { name: 'Who can' })).toBeVisible()
  await choose(page, 'From host', /desk-1/)
  await expect(margin(page).getByRole('status')).toContainText('No. Export rule: rule 2')
  await isAccessible(page)
  await margin(page).getByRole('button', { name: 'Add a rule for 10.60.52.21: rw' }).click()
  await expect(margin(page).getByLabel('Host or subnet of rule 1')).toHaveValue('10.60.52.21')
  await carryOut(page)
  await expect(page.getByText('uid 2001 from desk-1 writes a file')).toBeVisible()
  await page.goto(`${address()}/grant`)
  await page.getByRole('textbox', { name: 'uid' }).fill('2001')
  await expect(page.getByRole('button', { name: 'desk-1, lens-plates: may change' })).toBeVisible()
  await isAccessible(page)
})
