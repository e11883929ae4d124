import { readFileSync } from 'node:fs'
import { join } from 'node:path'
import { expect, test } from '@playwright/test'
import { ownEstate } from './estate'
import { withCluster } from './prepare'
import { address, carryOut, choose, fleet, isAccessible, isProven, margin, signIn } from './steps'

test.describe.configure({ mode: 'serial' })

const ports = () =>
  JSON.parse(readFileSync(join(ownEstate().data, 'fleet-ports.json'), 'utf8')) as {
    hosts: Record<string, number>
  }
test.beforeAll(({ request }) => withCluster(request))

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
  await choose(page, 'Host group', 'ct-scans')
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
  await fleet('workload', 'godwit', name, '40000000000000')
  await fleet('fault', 'godwit', 'drive-fails', 'drive=godwit-2/3')
  await readsRight()
  await page.goto(system)
  await expect(page.locator('[data-finding="drive-failed"]')).toBeVisible()
  await expect(page.locator('[data-piece-work="done"]').first()).toBeVisible({ timeout: 180_000 })
  await readsRight()
  await fleet('fault', 'godwit', 'node-down', 'node=godwit-4')
  await readsRight()
  await expect(page.locator('[data-finding="node-silent"]')).toBeVisible()
  await isAccessible(page)
  await expect.poll(() => page.locator('[data-piece-work="done"]').count(), { timeout: 180_000 }).toBeGreaterThan(1)
  await readsRight()
  await fleet('fault', 'godwit', 'node-up', 'node=godwit-4')
  await readsRight()
  await expect(page.locator('[data-finding="node-silent"]')).toHaveCount(0)
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
  await expect(finding).toBeVisible()
  const sign = finding.getByRole('link', { name: 'let it stand' })
  if (!(await sign.isVisible())) await finding.getByRole('button').first().click()
  await sign.click()
  await page.getByLabel('Why it may stand').fill('The next service is in two weeks.')
  // The estate's clock runs ahead of the wall's here; the exception ends by the estate's.
  await page.getByLabel('Until').fill(new Date(Date.now() + 120 * 86_400_000).toISOString().slice(0, 10))
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
    readonly planDigest: string
    readonly state: string
    readonly plan: {
      readonly checks: readonly { readonly holds: boolean; readonly level: string; readonly why: string }[]
    }
  }
  const begin = async (kind: string, intent: object) => {
    const draft = (await (
      await request.post(`${address()}/api/v1/changes`, { data: { kind, intent } })
    ).json()) as Change
    const answer = await request.post(`${address()}/api/v1/changes/${draft.id}/carry-out`, {
      data: { planDigest: draft.planDigest },
    })
    expect(draft.plan.checks.filter(check => !check.holds && check.level === 'must').map(check => check.why)).toEqual(
      [],
    )
    expect(answer.ok()).toBe(true)
    return draft.id
  }
  const proven = (id: string) =>
    expect
      .poll(async () => (await get<{ change: Change }>(`/changes/${id}`).catch(() => undefined))?.change.state, {
        timeout: 180_000,
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
      { timeout: 60_000 },
    )
    .toBe(true)
  for (const name of ['worker', 'standins'])
    process.kill(Number(readFileSync(join(ownEstate().data, 'logs', `${name}.pid`), 'utf8')), 'SIGKILL')
  await proven(id)
  const after = await get<{ items: { nodeId: string; poolId: string | null }[] }>(`/drives?systemId=${systemId}`)
  expect(after.items.filter(drive => drive.nodeId === node && drive.poolId === poolId)).toHaveLength(driveIds.length)
})
