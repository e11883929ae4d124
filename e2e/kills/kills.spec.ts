import { expect, test } from '@playwright/test'
import { ownEstate } from '../estate'
import { fleet } from '../steps'
import { KilledEstate, victims } from './KilledEstate'
import { elsewhere } from './elsewhere'
import { labelled } from './labelled'
import { served } from './served'
import { used } from './used'

interface Drive {
  readonly id: string
  readonly nodeId: string | null
  readonly serial: string
  readonly role: string
  readonly state: string
  readonly isBoot: boolean
  readonly leftOver: object | null
  readonly capacityBytes: string
}
interface Network {
  readonly nodes: readonly { readonly id: string; readonly name: string }[]
  readonly nodePorts: readonly { readonly id: string; readonly nodeId: string; readonly name: string }[]
  readonly switchPorts: readonly { readonly id: string; readonly mtu: number; readonly vlans: readonly number[] }[]
}

test.describe.configure({ mode: 'serial' })

interface Copied {
  readonly volumeId: string
  readonly poolId: string
  readonly groups: readonly { readonly id: string; readonly name: string }[]
}

/** Snapshots, clones and classes, with the process killed in every change. */
async function copies(estate: KilledEstate, victim: string, { volumeId, poolId, groups }: Copied): Promise<void> {
  const idOf = (name: string) => groups.find(group => group.name === name)?.id ?? ''
  const taken = await estate.proven('take-snapshot', { volumeId, name: `before-${victim}`, reason: 'before the kills' })
  const snapshotId = taken.facts['snapshotId'] ?? ''
  const one = { volumeId, snapshotId }
  for (const reason of ['for the audit', '']) await estate.proven('hold-snapshot', { ...one, reason })
  for (const kind of ['show-snapshot', 'hide-snapshot'])
    await estate.proven(kind, { ...one, hostGroupId: idOf('backup') })
  const clone = await estate.proven('clone-volume', {
    ...one,
    name: `clone-${victim}`,
    poolId: '',
    hostGroupId: idOf('ct-scans'),
  })
  const cloneId = clone.facts['cloneId'] ?? ''
  await estate.proven('split-clone', { volumeId: cloneId })
  await estate.proven('restore-volume', { ...one, confirmedName: `thin-${victim}` })
  const some = { volumeId, snapshotIds: [snapshotId] }
  await estate.proven('remove-snapshots', { ...some, reason: '' })
  await estate.proven('keep-snapshots', some)
  await estate.proven('remove-volume', { volumeId: cloneId, confirmedName: `clone-${victim}` })
  const made = await estate.proven('define-class', { ...bareClass, name: `Class ${victim}` })
  const classId = made.facts['classId'] ?? ''
  await estate.proven('set-volume-class', { volumeIds: [volumeId], classId })
  await estate.proven('provision-volumes', {
    list: `many-${victim}-{01..30}, 1 GiB`,
    classId,
    poolId,
    isThin: true,
    isTogether: false,
    hostGroupId: idOf('ct-scans'),
  })
  await estate.proven('remove-class', { classId })
  const { items } = await estate.get<{ items: { id: string; name: string }[] }>(
    `/volumes?filter=many-${victim}&limit=100`,
  )
  expect(items.map(each => each.name)).toHaveLength(30)
  for (const { id, name } of items) await estate.carried('remove-volume', { volumeId: id, confirmedName: name })
}

const bareClass = {
  classId: '',
  lossesSurvived: 2,
  media: 'any',
  latencyMilliseconds: null,
  headroomPercent: 1,
  snapshotRule: '',
  timeZone: 'UTC',
  keepLast: null,
  hourly: null,
  daily: null,
  weekly: null,
  monthly: null,
  yearly: null,
  holdingDays: null,
}

for (const victim of victims) {
  test(`an array's life, with ${victim} killed in every change`, async ({ request }) => {
    const estate = new KilledEstate(request, victim)
    await estate.signIn()
    const heron = ownEstate().heron
    await estate.heard(heron)
    const probe = await estate.post<{ id: string }>('/probes', {
      address: heron,
      userName: 'admin',
      password: 'heron-demo',
      isPlainHttpAccepted: true,
    })
    await estate.proven('register-system', {
      probeId: probe.id,
      name: 'heron',
      siteId: '',
      isPlainHttpAccepted: true,
      acceptedFingerprint: '',
    })
    const systemId = await estate.systemId('heron')
    const drives = (await estate.get<{ items: Drive[] }>(`/drives?systemId=${systemId}`)).items
    const free = drives.filter(drive => drive.role === 'unassigned' && drive.state === 'fine').map(drive => drive.id)
    const layout = { scheme: { kind: 'parity', parityDrives: 2 }, maxGroupDrives: 12, snapshotSharePercent: 10 }
    const pool = await estate.proven('create-pool', {
      ...layout,
      systemId,
      name: `pool-${victim}`,
      driveIds: free.slice(0, 12),
      spareCount: 1,
    })
    const poolId = pool.facts['poolId'] ?? ''
    const other = { ...layout, systemId, name: `other-${victim}`, driveIds: free.slice(12, 18), spareCount: 0 }
    const otherId = (await estate.proven('create-pool', other)).facts['poolId'] ?? ''
    const groups = (await estate.get<{ items: { id: string; name: string }[] }>('/host-groups')).items
    const hostGroupId = groups.find(group => group.name === 'accession-register')?.id ?? ''
    const volume = { purpose: 'data', poolId }
    const thin = await estate.proven('provision-volume', {
      ...volume,
      name: `thin-${victim}`,
      size: '2 TiB',
      isThin: true,
      hostGroupId,
    })
    const thick = await estate.proven('provision-volume', {
      ...volume,
      name: `thick-${victim}`,
      size: '300 GiB',
      isThin: false,
      hostGroupId: '',
    })
    const [thinId, thickId] = [thin.facts['volumeId'] ?? '', thick.facts['volumeId'] ?? '']
    await estate.proven('map-volume', { volumeId: thickId, hostGroupId })
    await estate.proven('expand-volume', { volumeId: thickId, size: '700 GiB' })
    for (const name of [`renamed-${victim}`, `thick-${victim}`])
      await estate.proven('rename-volume', { volumeId: thickId, name })
    await estate.proven('unmap-volume', { volumeId: thickId, hostGroupId })
    const small = { ...volume, size: '10 GiB', isThin: true, hostGroupId: '' }
    const volumeIds: string[] = []
    for (const name of [`one-${victim}`, `two-${victim}`])
      volumeIds.push((await estate.proven('provision-volume', { ...small, name })).facts['volumeId'] ?? '')
    await estate.proven('map-volumes', { volumeIds, hostGroupId })
    for (const [index, name] of [`one-${victim}`, `two-${victim}`].entries())
      await estate.proven('remove-volume', { volumeId: volumeIds[index], confirmedName: name })
    await copies(estate, victim, { volumeId: thinId, poolId, groups })
    await used(estate, victim, { poolId, otherId, hostGroupId })
    await labelled(estate, victim, poolId)
    await elsewhere(estate, victim, { poolId, hostGroupId })
    await served(estate, victim)
    await estate.proven('remove-volume', { volumeId: thinId, confirmedName: `thin-${victim}` })
    await estate.proven('bring-back-volume', { volumeId: thinId, groupNames: ['accession-register'] })
    await estate.proven('remove-volume', { volumeId: thinId, confirmedName: `thin-${victim}` })
    await estate.proven('remove-volume', { volumeId: thickId, confirmedName: `thick-${victim}` })
    // What the system was told to do, it was told once.
    const told = (task: string) => estate.tasksNamed(heron, 'admin', 'heron-demo', new RegExp(`^${task}-${victim}$`))
    expect([await told('Initialise pool pool'), await told('Zero thick')]).toEqual([1, 2])
    await fleet('step', `${8 * 86_400}`)
    await estate.kill()
    await expect
      .poll(async () => (await estate.get<{ total: number }>(`/volumes?poolId=${poolId}`)).total, { timeout: 90_000 })
      .toBe(0)
    for (const each of [poolId, otherId]) await estate.proven('remove-pool', { systemId, poolId: each })
    await estate.proven('forget-missing', { systemId })
    await estate.proven('forget-system', { systemId })
    expect(await estate.systemId('heron')).toBe('')
  })

  test(`a cluster's life, with ${victim} killed in every change`, async ({ request }) => {
    const estate = new KilledEstate(request, victim)
    await estate.signIn()
    const systemId = await estate.systemId('godwit')
    const network = () => estate.get<Network>(`/systems/${systemId}/network`)
    const driveList = async () => (await estate.get<{ items: Drive[] }>(`/drives?systemId=${systemId}`)).items
    const { nodes, nodePorts, switchPorts } = await network()
    const forgotten = switchPorts.find(port => port.mtu === 1500) ?? switchPorts[0]
    await estate.proven('set-switch-port', {
      systemId,
      switchPortId: forgotten?.id,
      mtu: 9216,
      vlans: forgotten?.vlans ?? [],
    })
    await estate.proven('set-storage-network', {
      systemId,
      nodes: nodes.map((node, index) => ({
        nodeId: node.id,
        portId: nodePorts.find(port => port.nodeId === node.id && port.name === 'port 1')?.id,
        address: `10.20.30.${11 + index}/24`,
      })),
      origin: 'static',
      vlan: 30,
      mtu: 9000,
    })
    await estate.proven('set-node-clock', { systemId, nodeId: nodes[0]?.id })
    await estate.proven('set-restart-service', { systemId, nodeIds: nodes.map(node => node.id), isOn: false })
    await estate.proven('set-restart-service', { systemId, nodeIds: nodes.map(node => node.id), isOn: true })
    const all = await driveList()
    const erased =
      all.find(drive => drive.leftOver !== null) ?? all.find(drive => !drive.isBoot && drive.role === 'unassigned')
    const erasings = () =>
      estate.tasksNamed(ownEstate().godwit, 'admin', 'godwit-demo', new RegExp(`Erase drive ${erased?.serial}`))
    const before = await erasings()
    await estate.proven('erase-drive', {
      systemId,
      driveId: erased?.id,
      lastFour: erased?.serial.slice(-4),
      isWhole: false,
    })
    expect(await erasings()).toBe(before + 1)
    await estate.proven('set-locate-light', { systemId, driveIds: [erased?.id], isOn: true })
    await estate.proven('set-locate-light', { systemId, driveIds: [erased?.id], isOn: false })
    const own = (await driveList()).filter(drive => !drive.isBoot)
    const fifth = nodes.find(node => node.name === 'godwit-5')?.id
    const formed = await estate.proven('form-cluster', {
      systemId,
      name: `row-${victim}`,
      driveIds: own.filter(drive => drive.nodeId !== fifth).map(drive => drive.id),
      roles: {},
      domain: 'node',
      scheme: { kind: 'erasure', dataPieces: 2, parityPieces: 1 },
      keepsRebuildReserve: true,
      snapshotSharePercent: 10,
    })
    const poolId = formed.facts['poolId'] ?? ''
    const driveIds = own.filter(drive => drive.nodeId === fifth).map(drive => drive.id)
    await estate.proven('grow-cluster', { systemId, poolId, driveIds, roles: {}, ratePercent: 100 })
    await estate.proven('shrink-cluster', { systemId, poolId, driveIds, ratePercent: 100 })
    await estate.proven('remove-pool', { systemId, poolId })
    await estate.proven('dissolve-cluster', { systemId, typedName: `row-${victim}` })
    await estate.proven('sign-exception', {
      findingKey: `kills/${victim}`,
      findingTitle: 'A finding',
      reason: 'It is tried whether it stands.',
      until: new Date(Date.now() + 300 * 86_400_000).toISOString().slice(0, 10),
    })
    await estate.proven('import-catalogue', {
      text: JSON.stringify({
        format: 'wendrel-firmware-catalogue-1',
        maker: 'Mirefield',
        issuedAt: `2026-05-0${1 + victims.indexOf(victim)}T00:00:00Z`,
        entries: [],
      }),
    })
  })
}
