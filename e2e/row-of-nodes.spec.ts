import { readFileSync } from 'node:fs'
import { join } from 'node:path'
import { expect, test, type Page } from '@playwright/test'
import { address, fleet, isAccessible, isProven, signIn } from './steps'

test.describe.configure({ mode: 'serial' })

const ports = () =>
  JSON.parse(readFileSync(join(process.env['WENDREL_E2E_DATA'] ?? '', 'fleet-ports.json'), 'utf8')) as {
    hosts: Record<string, number>
  }
const margin = (page: Page) => page.getByRole('complementary', { name: 'Margin' })
const carryOut = async (page: Page) => {
  await expect(page.getByRole('button', { name: /Carry out|Erase|Sign/ })).toBeEnabled()
  await page.locator('[data-key="carry-out"]').click()
  await isProven(page)
}

test('the storage network is set: addresses follow the first, names are looked up, and a forgotten port is named', async ({
  page,
}) => {
  await signIn(page)
  await page.goto(`${address()}/build/network`)
  await expect(page.getByText('no storage network is set yet')).toBeVisible()
  await isAccessible(page)
  await page.keyboard.press('n')
  await page.getByRole('button', { name: 'Leave out godwit-5' }).click()
  await margin(page).getByLabel('VLAN').fill('30')
  await page.getByLabel('Address of godwit-1').fill('10.20.30.11/24')
  await page.getByLabel('Address of godwit-2').fill('10.20.30.11/24')
  await expect(margin(page).getByText('Two nodes would have 10.20.30.11.').first()).toBeVisible()
  await page.getByLabel('Address of godwit-2').fill('')
  await page.getByRole('button', { name: 'Fill in the addresses that follow the first' }).click()
  await expect(page.getByLabel('Address of godwit-4')).toHaveValue('10.20.30.14/24')
  await expect(margin(page).getByText('names agree')).toHaveCount(4)
  await page.getByLabel('Address of godwit-4').fill('10.20.30.99/24')
  await expect(margin(page).getByText('leads to 10.20.30.14, not to 10.20.30.99').first()).toBeVisible()
  await page.getByLabel('Address of godwit-4').fill('10.20.30.14/24')
  await isAccessible(page)
  await carryOut(page)
  await page.goto(`${address()}/build/network`)
  await expect(page.getByText('6 of 12 paths do not pass full frames.')).toBeVisible()
  await expect(page.locator('[data-path-reading]')).toContainText('row switch 1 port 3 has MTU 1500')
  const cause = page.locator('[data-finding="mtu"]')
  await expect(cause.locator('[data-finding="paths"]')).toBeVisible()
  await isAccessible(page)
  await cause.getByRole('link', { name: 'Draft it' }).first().click()
  await expect(page.getByRole('heading', { name: 'Set row switch 1 port 3' })).toBeVisible()
  await expect(margin(page).getByLabel('MTU')).toHaveValue('9000')
  await carryOut(page)
  await page.goto(`${address()}/build/network`)
  await expect(page.getByText('All 12 paths between them pass full frames.')).toBeVisible()
  const probed = page.waitForResponse(answer => answer.url().endsWith('/path-probes') && answer.status() === 201)
  await page.getByRole('button', { name: 'Probe all pairs now' }).click()
  await probed
  await expect(page.getByText('Every pair passes 9000 bytes whole.')).toBeVisible()
})

test('a drive with an earlier use on it is found, erased by its last four characters, and proven empty', async ({
  page,
}) => {
  await signIn(page)
  await page.goto(`${address()}/build/drives?state=foreign`)
  await expect(page.getByText('Shown: foreign, one drive.')).toBeVisible()
  await isAccessible(page)
  const label = page.locator('[data-row]').filter({ hasText: /^[0-9A-F]{4}/ })
  const four = ((await label.first().textContent()) ?? '').trim()
  await label.first().click()
  await expect(margin(page).getByText('journalled file system "scans-old"')).toBeVisible()
  await page.getByRole('link', { name: /^Erase/ }).click()
  await page.getByLabel('Last four characters of its serial number').fill('ZZZZ')
  await expect(page.locator('[data-key="carry-out"]')).toBeDisabled()
  await page.getByLabel('Last four characters of its serial number').fill(four)
  await carryOut(page)
  await expect(page.getByText('65536 bytes at 0 read as zero')).toBeVisible()
})

test('the cluster is drafted in the bays of all nodes: dragged, by kind, by range and by keyboard', async ({
  page,
}) => {
  await signIn(page)
  await page.goto(`${address()}/build/clusters`)
  await page.waitForURL(/draft=form-cluster/)
  const field = page.locator('[data-field]')
  const box = await field.boundingBox()
  if (box === null) throw new Error('The bays are not drawn.')
  await page.mouse.move(box.x + 4, box.y + 24)
  await page.mouse.down()
  await page.mouse.move(box.x + 180, box.y + 90, { steps: 6 })
  await page.mouse.up()
  await expect(page.getByText('8 chosen')).toBeVisible()
  await field.focus()
  await page.keyboard.press('Home')
  await page.keyboard.press('Space')
  await expect(page.getByText('7 chosen')).toBeVisible()
  await page.keyboard.press('Space')
  await margin(page).getByLabel('bays', { exact: true }).fill('9-10')
  await page.getByRole('button', { name: 'Take 10' }).click()
  await expect(page.getByText('18 chosen')).toBeVisible()
  await page.getByRole('button', { name: 'Take all 36' }).click()
  await page.getByRole('button', { name: 'Take all 4' }).click()
  await expect(margin(page).getByText('No storage network is set in godwit-5.')).toBeVisible()
  await page.getByLabel('Nodes to choose in').selectOption({ label: 'godwit-5' })
  await page.getByRole('button', { name: 'Take none' }).first().click()
  await page.getByRole('button', { name: 'Take none' }).first().click()
  await expect(page.getByText('40 chosen')).toBeVisible()
  await page.getByRole('button', { name: /^Use godwit-cluster/ }).click()
  await expect(margin(page).getByText('with any 1 nodes lost at once')).toBeVisible()
  await expect(
    margin(page)
      .getByText(/godwit-1 strands|What differs between the nodes/)
      .first(),
  ).toBeVisible()
  await page.getByLabel('Data pieces').fill('4')
  await expect(margin(page).getByText('4+1 takes 5 nodes, a piece on each; the choice has 4.').first()).toBeVisible()
  await page.getByLabel('Data pieces').fill('2')
  await isAccessible(page)
  await page.emulateMedia({ media: 'print' })
  await expect(page.locator('table.print-only tbody tr')).toHaveCount(40)
  await expect(page.locator('table.print-only')).toBeVisible()
  await page.emulateMedia({ media: 'screen' })
  await expect(margin(page).locator('[data-check]').filter({ hasText: '▲' })).toHaveText([])
  await expect(page.locator('[data-key="carry-out"]')).toBeEnabled()
  await page.keyboard.press('Shift+Enter')
  await isProven(page)
  await expect(page.getByText('All chosen nodes are in the cluster')).toBeVisible()
})

test('a volume on it is written; a drive and then a node are lost, and every byte reads right', async ({
  page,
  request,
}) => {
  await signIn(page)
  await page.goto(`${address()}/build/clusters`)
  const system = page.url().replace(/\?.*$/, '')
  await page.goto(system)
  await expect(page.getByText('Nothing is wrong here.')).toBeVisible()
  await isAccessible(page)
  await page.getByRole('link', { name: /Provision from it/ }).click()
  await margin(page).getByLabel('Purpose').fill('kiln')
  await margin(page).getByLabel('Size').fill('6 TiB')
  await margin(page).getByLabel('Host group').selectOption({ label: 'ct-scans' })
  const use = page.getByRole('button', { name: /^Use / })
  await use.first().click()
  const name = await margin(page).getByLabel('Name').inputValue()
  await carryOut(page)
  const agent = `http://127.0.0.1:${ports().hosts['scanner-gate'] ?? 0}/agent`
  const devices = (await (await request.get(`${agent}/devices`)).json()) as {
    devices: { naa: string; sizeBytes: string }[]
  }
  const device = devices.devices.find(each => each.sizeBytes === `${6n * 1024n ** 4n}`)
  const range = (offset: number) => ({ offsetBytes: `${offset}`, lengthBytes: 4_000_000 })
  const offsets = [0, 100_000_000, 3_000_000_000]
  const sums: string[] = []
  for (const offset of offsets) {
    const written = await request.post(`${agent}/devices/${device?.naa ?? ''}/write`, {
      data: { ...range(offset), seed: `e2e ${offset}` },
    })
    sums.push(((await written.json()) as { sha256: string }).sha256)
  }
  const readsRight = async () => {
    for (const [index, offset] of offsets.entries()) {
      const read = await request.post(`${agent}/devices/${device?.naa ?? ''}/read`, { data: range(offset) })
      expect(((await read.json()) as { sha256: string }).sha256).toBe(sums[index])
    }
  }
  await readsRight()
  fleet('workload', 'godwit', name, '40000000000000')
  fleet('fault', 'godwit', 'drive-fails', 'drive=godwit-2/3')
  await readsRight()
  await page.goto(system)
  await expect(page.locator('[data-finding="drive-failed"]')).toBeVisible()
  await expect(page.locator('[data-piece-work="done"]').first()).toBeVisible({ timeout: 60_000 })
  await readsRight()
  fleet('fault', 'godwit', 'node-down', 'node=godwit-4')
  await readsRight()
  await expect(page.locator('[data-finding="node-silent"]')).toBeVisible({ timeout: 30_000 })
  await isAccessible(page)
  await expect(page.locator('[data-piece-work="done"]')).toHaveCount(2, { timeout: 60_000 })
  await readsRight()
  fleet('fault', 'godwit', 'node-up', 'node=godwit-4')
  await readsRight()
  await expect(page.locator('[data-finding="node-silent"]')).toHaveCount(0, { timeout: 30_000 })
})

test('a finding is let stand by a signed exception, and a strange catalogue is refused with its place', async ({
  page,
}) => {
  await signIn(page)
  await page.goto(`${address()}/build/network?draft=import-catalogue`)
  const entry = {
    component: 'node',
    model: 'M-210',
    version: '2.6.0',
    releasedAt: '2026-09-01T00:00:00Z',
    isUrgent: false,
    notes: 'Corrects a restart.',
  }
  const file = {
    format: 'wendrel-firmware-catalogue-1',
    maker: 'Mirefield',
    issuedAt: '2026-10-01T00:00:00Z',
    entries: [entry],
  }
  const choose = (body: object) =>
    page.getByLabel('Catalogue file').setInputFiles({
      name: 'catalogue.json',
      mimeType: 'application/json',
      buffer: Buffer.from(JSON.stringify(body)),
    })
  await choose({ ...file, colour: 'red' })
  await expect(margin(page).getByText('must NOT have additional properties: "colour"').first()).toBeVisible()
  await choose(file)
  await page.locator('[data-key="carry-out"]').click()
  await isProven(page)
  await page.goto(`${address()}/build/network`)
  const finding = page.locator('[data-finding="newer-firmware"]')
  await expect(finding).toBeVisible({ timeout: 30_000 })
  await finding.getByRole('link', { name: 'let it stand' }).click()
  await page.getByLabel('Why it may stand').fill('The next service is in two weeks.')
  await page.getByLabel('Until').fill(new Date(Date.now() + 20 * 86_400_000).toISOString().slice(0, 10))
  await page.locator('[data-key="carry-out"]').click()
  await isProven(page)
  await page.goto(`${address()}/build/network`)
  await expect(page.getByText('stands by a signed exception')).toBeVisible()
})

test('the cluster grows by a node while worker and stand-ins are killed: the change ends proven, with every drive in place', async ({
  page,
}) => {
  await signIn(page)
  const { request } = page
  const get = async <T>(path: string) => (await (await request.get(`${address()}/api/v1${path}`)).json()) as T
  interface Change {
    readonly id: string
    readonly state: string
    readonly plan: {
      readonly checks: readonly { readonly holds: boolean; readonly level: string; readonly why: string }[]
    }
  }
  const begin = async (kind: string, intent: object) => {
    const draft = (await (
      await request.post(`${address()}/api/v1/changes`, { data: { kind, intent } })
    ).json()) as Change
    const answer = await request.post(`${address()}/api/v1/changes/${draft.id}/carry-out`)
    expect(draft.plan.checks.filter(check => !check.holds && check.level === 'must').map(check => check.why)).toEqual(
      [],
    )
    expect(answer.ok()).toBe(true)
    return draft.id
  }
  const proven = (id: string) =>
    expect
      .poll(async () => (await get<{ change: Change }>(`/changes/${id}`).catch(() => undefined))?.change.state, {
        timeout: 80_000,
      })
      .toBe('proven')
  const { items: systems } = await get<{ items: { id: string; name: string }[] }>('/systems')
  const systemId = systems.find(system => system.name === 'godwit')?.id ?? ''
  const network = await get<{
    nodes: { id: string; name: string }[]
    nodePorts: { id: string; nodeId: string; name: string }[]
  }>(`/systems/${systemId}/network`)
  const node = network.nodes.find(each => each.name === 'godwit-5')?.id ?? ''
  const port = network.nodePorts.find(each => each.nodeId === node && each.name === 'port 1')?.id ?? ''
  await proven(
    await begin('set-storage-network', {
      systemId,
      nodes: [{ nodeId: node, portId: port, address: '10.20.30.15/24' }],
      origin: 'static',
      vlan: 30,
      mtu: 9000,
    }),
  )
  const { items: drives } = await get<{
    items: { id: string; nodeId: string; isBoot: boolean; poolId: string | null }[]
  }>(`/drives?systemId=${systemId}`)
  const driveIds = drives.filter(drive => drive.nodeId === node && !drive.isBoot).map(drive => drive.id)
  const poolId = drives.find(drive => drive.poolId !== null)?.poolId ?? ''
  const id = await begin('grow-cluster', { systemId, poolId, driveIds, roles: {}, ratePercent: 20 })
  await expect
    .poll(
      async () =>
        (await get<{ journal: { event: string; stepIndex: number }[] }>(`/changes/${id}`)).journal.some(
          entry => entry.stepIndex === 2 && entry.event === 'begun',
        ),
      { timeout: 30_000 },
    )
    .toBe(true)
  for (const name of ['worker', 'standins'])
    process.kill(
      Number(readFileSync(join(process.env['WENDREL_E2E_DATA'] ?? '', 'logs', `${name}.pid`), 'utf8')),
      'SIGKILL',
    )
  await proven(id)
  const after = await get<{ items: { nodeId: string; poolId: string | null }[] }>(`/drives?systemId=${systemId}`)
  expect(after.items.filter(drive => drive.nodeId === node && drive.poolId === poolId)).toHaveLength(driveIds.length)
})
