import { readFileSync } from 'node:fs'
import { join } from 'node:path'
import { expect, test } from '@playwright/test'
import { ownEstate } from './estate'
import { address, carryOut, choose, fleet, isAccessible, margin, signIn } from './steps'

const server = 'files.canal.marrowfield.example'
const hostAddress = (name: string) => {
  const { hosts } = JSON.parse(readFileSync(join(ownEstate().data, 'fleet-ports.json'), 'utf8')) as {
    readonly hosts: Readonly<Record<string, number>>
  }
  return `http://127.0.0.1:${hosts[name]}`
}

test('a share is served, proven from several hosts, and who cannot write is told why and mended by the smallest change', async ({
  page,
}) => {
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
  await margin(page).getByLabel('Size').fill('20 GiB')
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

test('a host that is led astray finds the private path, and the same test shows what the forwarder has done', async ({
  page,
}) => {
  await signIn(page)
  await page.goto(`${address()}/grant/connections`)
  await choose(page, 'Host', /lending-3/)
  await choose(page, 'Share', /lens-plates/)
  await margin(page).getByLabel('uid').fill('2001')
  await margin(page).getByLabel('gid').fill('300')
  await margin(page).getByRole('button', { name: 'Test it now' }).click()
  await expect(page.getByRole('status').filter({ hasText: 'it ends at the address' })).toBeVisible()
  await expect(page.getByRole('row', { name: /^Address/ })).toContainText('203.0.113.40, public')
  await isAccessible(page)
  await margin(page).getByRole('button', { name: 'Draft the forwarder' }).click()
  await expect(margin(page).getByLabel('Domain')).toHaveValue(server)
  await carryOut(page)
  await expect(page.getByText(`lending-3 is led to ${server}`)).toBeVisible()
  await page.goto(`${address()}/grant/connections`)
  await page.getByRole('link', { name: 'lending-3 to lens-plates' }).click()
  await expect(page.getByRole('status').filter({ hasText: 'it ends at the address' })).toBeVisible()
  await margin(page).getByRole('button', { name: 'Test it now' }).click()
  // No rule is for it: the way is open now, and it is the rights that end it.
  await expect(page.getByRole('status').filter({ hasText: 'it ends at the mount' })).toBeVisible()
  await expect(page.getByRole('row', { name: /^Address/ })).toContainText('10.60.2.40, private')
  await expect(page.getByRole('row', { name: /^Address/ })).toContainText('203.0.113.40, public')
  await isAccessible(page)
})

const directoryAddress = () => {
  const { directory } = JSON.parse(readFileSync(join(ownEstate().data, 'fleet-ports.json'), 'utf8')) as {
    readonly directory: number
  }
  return `ldaps://127.0.0.1:${directory}`
}
const base = 'dc=marrowfield,dc=example'

test('people come from a directory, a share is theirs by a grant, and who cannot write is let by the smallest change', async ({
  page,
}) => {
  await signIn(page)
  await page.goto(`${address()}/grant/directories`)
  await margin(page).getByRole('link', { name: 'Register a directory' }).click()
  await margin(page).getByLabel('Address').fill('ldap://directory.example')
  await expect(page.locator('[data-check="address"]')).toBeVisible()
  await margin(page).getByLabel('Address').fill(directoryAddress())
  await margin(page).getByRole('button', { name: 'See who answers there' }).click()
  await margin(page).getByRole('button', { name: 'Accept exactly this one' }).click()
  await expect(margin(page).getByLabel('Read below')).toHaveValue(base)
  await margin(page).getByLabel('Name', { exact: true }).fill('museum')
  await margin(page).getByLabel('Read as').fill(`cn=reader,ou=services,${base}`)
  await margin(page).getByLabel('Its password').fill('directory-demo')
  await margin(page).getByLabel('Its password').blur()
  await isAccessible(page)
  await carryOut(page)

  await page.goto(`${address()}/provision/file-services`)
  await page.getByRole('main').getByRole('link', { name: server }).click()
  await margin(page).getByRole('link', { name: 'Join a directory' }).click()
  await choose(page, 'Directory', 'museum')
  await margin(page).getByLabel('Join by the account').fill(`uid=v.grier,ou=people,${base}`)
  await margin(page).getByLabel('Its password').fill('v.grier-demo')
  await margin(page).getByLabel('Its password').blur()
  await carryOut(page)

  await page.goto(`${address()}/provision/shares?draft=provision-share`)
  await choose(page, 'File service', server)
  await margin(page).getByLabel('Name', { exact: true }).fill('studio')
  await margin(page).getByLabel('Size').fill('2 GiB')
  await choose(page, 'Pool', 'bittern-bulk-01')
  await margin(page).getByRole('radio', { name: 'SMB' }).click()
  await margin(page).getByLabel('Group, gid').fill('3100')
  await margin(page).getByLabel('Mode').fill('2770')
  await margin(page).getByLabel('Grant somebody').fill('photo-st')
  await margin(page)
    .getByRole('button', { name: /photo-studio/ })
    .click()
  await expect(margin(page).getByRole('combobox', { name: 'Right of photo-studio' })).toBeVisible()
  await isAccessible(page)
  await carryOut(page)
  await expect(page.getByText('f.quarles writes a file over SMB')).toBeVisible()

  await page.goto(`${address()}/provision/shares`)
  await page.getByRole('main').getByRole('link', { name: 'studio', exact: true }).click()
  await margin(page).getByRole('link', { name: 'Open it' }).click()
  await margin(page).getByLabel('Who', { exact: true }).fill('warr')
  await margin(page)
    .getByRole('button', { name: /Dunya Warrick/ })
    .click()
  await expect(margin(page).getByRole('status')).toContainText('Yes')
  await margin(page).getByRole('button', { name: 'Not as Dunya Warrick' }).click()
  await margin(page).getByLabel('Who', { exact: true }).fill('ashby')
  await margin(page)
    .getByRole('button', { name: /Gita Ashby/ })
    .click()
  await expect(margin(page).getByRole('status')).toContainText('No. Share grant')
  await margin(page)
    .getByRole('button', { name: /^Grant Gita Ashby: change; set the mode/ })
    .first()
    .click()
  await expect(margin(page).getByRole('combobox', { name: 'Right of Gita Ashby' })).toBeVisible()
  await carryOut(page)
  await expect(page.getByText('g.ashby writes a file over SMB')).toBeVisible()

  await page.goto(`${address()}/grant/people?filter=ashby`)
  await page.getByRole('main').getByRole('link', { name: 'Gita Ashby' }).click()
  await margin(page).getByRole('link', { name: 'Open it' }).click()
  await expect(page.getByRole('row', { name: /studio/ })).toContainText('may change')
  await isAccessible(page)
})

test('rights of a share are reviewed one by one, what goes is drafted away, and a group that would give it back is seen first', async ({
  page,
}) => {
  await signIn(page)
  await page.goto(`${address()}/grant/reviews`)
  await expect(page.getByRole('row', { name: /studio/ })).toContainText('nobody has decided')
  await isAccessible(page)
  await page.getByRole('main').getByRole('link', { name: 'studio', exact: true }).click()
  await page
    .getByRole('radiogroup', { name: /^photo-studio may/ })
    .getByRole('radio', { name: 'stays' })
    .click()
  await expect(page.getByRole('button', { name: 'Keep the review' })).toBeDisabled()
  await page
    .getByRole('radiogroup', { name: /^Gita Ashby may/ })
    .getByRole('radio', { name: 'goes' })
    .click()
  await isAccessible(page)
  await page.getByRole('button', { name: 'Keep the review' }).click()
  await margin(page).getByRole('button', { name: 'Draft it away' }).click()
  await page.waitForURL(/draft=set-share-rights/)
  await carryOut(page)
  await page.goto(`${address()}/grant/reviews`)
  await expect(page.getByRole('row', { name: /studio/ })).toContainText('as it was decided')

  await page.goto(`${address()}/grant/people?filter=ashby`)
  await page.getByRole('main').getByRole('link', { name: 'Gita Ashby' }).click()
  await margin(page).getByRole('link', { name: 'Open it' }).click()
  await margin(page).getByLabel('Group').fill('photo-st')
  await margin(page)
    .getByRole('button', { name: /photo-studio/ })
    .click()
  await expect(page.getByRole('row', { name: /studio/ })).toContainText('→')
  await expect(margin(page).getByText(/dn: cn=photo-studio/)).toBeVisible()
  await isAccessible(page)
})

test('a host walks through the files of a share, and each layer opens to its files', async ({ page }) => {
  await signIn(page)
  await fleet('files', 'bittern', 'lens-plates', '12')
  await page.goto(`${address()}/provision/shares`)
  await page.getByRole('main').getByRole('link', { name: 'lens-plates' }).click()
  await margin(page).getByRole('link', { name: 'Report on files' }).click()
  await choose(page, 'By host', 'scanner-gate')
  await margin(page).getByLabel('uid').fill('2001')
  await margin(page).getByLabel('gid').fill('300')
  await carryOut(page)
  await page.goto(`${address()}/provision/shares`)
  await page.getByRole('main').getByRole('link', { name: 'lens-plates' }).click()
  await margin(page).getByRole('link', { name: 'Open it' }).click()
  await page.getByRole('link', { name: 'its files' }).click()
  await expect(page.getByText('Twelve files hold')).toBeVisible()
  const folders = page.getByRole('list', { name: 'Folders' })
  await folders
    .getByRole('button', { name: /^What lies in 20/ })
    .first()
    .press('ArrowRight')
  await expect(
    page
      .getByRole('list', { name: /^In \/20/ })
      .getByRole('link')
      .first(),
  ).toBeVisible()
  await isAccessible(page)
  await folders.getByRole('link', { name: /^exports/ }).click()
  await expect(margin(page).getByRole('heading', { name: 'In /exports' })).toBeVisible()
  await expect(margin(page).getByText(/file(s)?, /)).toBeVisible()
  await isAccessible(page)
})

test('the name of an old server is looked up, and the page says what clients keep, in which order, and the way back', async ({
  page,
}) => {
  await signIn(page)
  await fleet('fault', 'bittern', 'name-record', 'name=oldfiles.marrowfield.example', 'address=10.60.9.99')
  await page.goto(`${address()}/provision/file-services`)
  await page.getByRole('main').getByRole('link', { name: server }).click()
  await margin(page).getByRole('link', { name: 'Open it' }).click()
  await page.getByLabel('Name of the old server').fill('oldfiles.marrowfield.example')
  await page.getByLabel('Paths that clients use there').fill('/lens-plates\n/vol/studio, studio')
  await page.getByRole('button', { name: 'Look it up' }).click()
  await expect(page.getByRole('main').getByRole('status')).toContainText('leads to 10.60.9.99 now')
  await expect(page.getByText('kept: 1, to change: 1, without a share: 0')).toBeVisible()
  await expect(page.getByText(`IN CNAME ${server}.`).first()).toBeVisible()
  await page.getByRole('button', { name: 'Let it look' }).click()
  await expect(page.getByText('not this service')).toBeVisible()
  await isAccessible(page)
})

test('a share shows its snapshots to hosts; taken away it is found among what is left behind, and shared again', async ({
  page,
}) => {
  await signIn(page)
  await page.goto(`${address()}/provision/shares`)
  await page.getByRole('main').getByRole('link', { name: 'lens-plates' }).click()
  await margin(page).getByRole('link', { name: 'Earlier files' }).click()
  await expect(margin(page).getByText('are found there as they were')).toBeVisible()
  await isAccessible(page)
  await carryOut(page)
  await expect(page.getByText('The system states that they are shown')).toBeVisible()
  await page.goto(`${address()}/provision/shares`)
  await page.getByRole('main').getByRole('link', { name: 'lens-plates' }).click()
  await margin(page).getByRole('link', { name: 'Take away' }).click()
  await margin(page)
    .getByLabel(/^Its name/)
    .fill('lens-plates')
  await carryOut(page)
  const change = page.url()
  await page.goto(`${address()}/provision/file-systems`)
  await expect(page.getByText(/shared by nobody/)).toBeVisible()
  await isAccessible(page)
  await page.goto(`${address()}/watch/left-behind?days=7`)
  await expect(page.getByRole('row', { name: /lens-plates/ }).getByRole('link', { name: 'Remove it' })).toBeVisible()
  await isAccessible(page)
  await page.goto(change)
  await page.getByRole('button', { name: 'Draft the reverse' }).click()
  await expect(page.getByText('A draft: nothing has been changed yet.')).toBeVisible()
  await page.getByRole('button', { name: 'Carry out' }).click()
  await expect(page.getByText('Carried out and proven.')).toBeVisible({ timeout: 180_000 })
  await page.goto(`${address()}/provision/file-systems`)
  await expect(page.getByText(/shared by nobody/)).toHaveCount(0)
})
