import { expect, type APIRequestContext } from '@playwright/test'
import { arrayAddress, ownEstate } from './estate'
import { address, administrator, fleet } from './steps'

/** What earlier spec files have left; a file that runs alone makes it here, by the API and the way of any change. */
async function post<T>(request: APIRequestContext, path: string, data: object): Promise<T> {
  const answer = await request.post(`${address()}/api/v1${path}`, { data })
  expect(answer.ok(), `${path}: ${await answer.text()}`).toBe(true)
  return (await answer.json()) as T
}
const get = async <T>(request: APIRequestContext, path: string) =>
  (await (await request.get(`${address()}/api/v1${path}`)).json()) as T

interface Change {
  readonly id: string
  readonly planDigest: string
  readonly state: string
}

async function carriedOut(request: APIRequestContext, kind: string, intent: object): Promise<void> {
  const { id, planDigest } = await post<Change>(request, '/changes', { kind, intent })
  await post(request, `/changes/${id}/carry-out`, { planDigest })
  const state = async () => (await get<{ change: Change }>(request, `/changes/${id}`)).change.state
  await expect.poll(state, { timeout: 180_000, message: kind }).toBe('proven')
}

/** An administrator who can sign in. */
export async function withAdministrator(request: APIRequestContext): Promise<void> {
  const door = await request.get(`${address()}/welcome`, { maxRedirects: 0 })
  if (door.status() !== 200) return
  const code = ownEstate().code
  const answer = await request.post(`${address()}/api/v1/first-administrator`, { data: { code, ...administrator } })
  expect(answer.status()).toBe(204)
}

export async function signedIn(request: APIRequestContext): Promise<void> {
  await withAdministrator(request)
  expect((await request.post(`${address()}/api/v1/session`, { data: administrator })).status()).toBe(204)
}

interface Named {
  readonly id: string
  readonly name: string
}
const systemId = async (request: APIRequestContext, name: string) =>
  (await get<{ items: Named[] }>(request, '/systems')).items.find(system => system.name === name)?.id

/** The fleet's pace as a run begins (startWendrel). */
const quickRate = '3600'

/** heron, registered. */
export const withHeron = (request: APIRequestContext) => withArray(request, 'heron')

/** An array of the fleet, registered under its own name; @returns its id */
async function withArray(request: APIRequestContext, name: string): Promise<string> {
  await signedIn(request)
  // A test that failed before it set the pace again must not slow those that follow.
  await fleet('rate', quickRate)
  const known = await systemId(request, name)
  if (known !== undefined) return known
  const where = { address: arrayAddress(name), userName: 'admin', password: `${name}-demo` }
  const probe = await post<Named>(request, '/probes', { ...where, isPlainHttpAccepted: true })
  const accepted = { isPlainHttpAccepted: true, acceptedFingerprint: '' }
  await carriedOut(request, 'register-system', { probeId: probe.id, name, siteId: '', ...accepted })
  return (await systemId(request, name)) ?? ''
}

/** A pool of eight drives that nothing uses yet. */
async function withPool(request: APIRequestContext, id: string, name: string): Promise<string> {
  const pools = () => get<{ items: Named[] }>(request, `/pools?systemId=${id}`)
  const known = (await pools()).items.find(pool => pool.name === name)
  if (known !== undefined) return known.id
  const drives = await get<{ items: { id: string; role: string; state: string }[] }>(request, `/drives?systemId=${id}`)
  const free = drives.items.filter(each => each.role === 'unassigned' && each.state === 'fine')
  await carriedOut(request, 'create-pool', {
    ...{ systemId: id, name, scheme: { kind: 'parity', parityDrives: 2 }, maxGroupDrives: 12, spareCount: 0 },
    driveIds: free.slice(-8).map(each => each.id),
    snapshotSharePercent: 10,
  })
  return (await pools()).items.find(pool => pool.name === name)?.id ?? ''
}

/** A volume on heron that a host with an agent sees, and a pool of its partner to which it can go. */
export async function withMovable(request: APIRequestContext): Promise<{ volume: string; farPool: string }> {
  const [heron, curlew] = [await withArray(request, 'heron'), await withArray(request, 'curlew')]
  const [near, farPool, volume] = ['heron-near-01', 'curlew-far-01', 'ledger-data-01']
  const poolId = await withPool(request, heron, near)
  await withPool(request, curlew, farPool)
  const hosts = await get<{ items: (Named & { hostGroupId: string })[] }>(request, '/hosts?filter=register-1')
  const hostGroupId = hosts.items.find(({ name }) => name === 'register-1')?.hostGroupId
  await carriedOut(request, 'provision-volume', {
    ...{ name: volume, purpose: 'data', size: '64 MiB', poolId, isThin: true, hostGroupId },
  })
  return { volume, farPool }
}

/** A cluster of godwit's first four nodes. */
export async function withCluster(request: APIRequestContext): Promise<void> {
  await signedIn(request)
  await fleet('rate', quickRate)
  const id = (await systemId(request, 'godwit')) ?? ''
  const pools = await get<{ items: { systemId: string }[] }>(request, '/pools')
  if (pools.items.some(pool => pool.systemId === id)) return
  const { nodes, nodePorts, switchPorts } = await get<{
    nodes: Named[]
    nodePorts: (Named & { nodeId: string })[]
    switchPorts: (Named & { mtu: number; vlans: number[] })[]
  }>(request, `/systems/${id}/network`)
  for (const port of switchPorts.filter(each => each.mtu === 1500))
    await carriedOut(request, 'set-switch-port', { systemId: id, switchPortId: port.id, mtu: 9216, vlans: port.vlans })
  const four = nodes.filter(node => node.name !== 'godwit-5')
  await carriedOut(request, 'set-storage-network', {
    systemId: id,
    nodes: four.map((node, index) => ({
      nodeId: node.id,
      portId: nodePorts.find(port => port.nodeId === node.id && port.name === 'port 1')?.id,
      address: `10.20.30.${11 + index}/24`,
    })),
    origin: 'static',
    vlan: 30,
    mtu: 9000,
  })
  const drives = async () =>
    (
      await get<{ items: { id: string; serial: string; nodeId: string; isBoot: boolean; leftOver: object | null }[] }>(
        request,
        `/drives?systemId=${id}`,
      )
    ).items
  for (const drive of (await drives()).filter(each => each.leftOver !== null)) {
    const intent = { systemId: id, driveId: drive.id, lastFour: drive.serial.slice(-4), isWhole: false }
    await carriedOut(request, 'erase-drive', intent)
  }
  await carriedOut(request, 'form-cluster', {
    systemId: id,
    name: 'godwit-cluster',
    driveIds: (await drives())
      .filter(drive => !drive.isBoot && four.some(node => node.id === drive.nodeId))
      .map(drive => drive.id),
    roles: {},
    domain: 'node',
    scheme: { kind: 'erasure', dataPieces: 2, parityPieces: 1 },
    keepsRebuildReserve: true,
    snapshotSharePercent: 10,
  })
}
