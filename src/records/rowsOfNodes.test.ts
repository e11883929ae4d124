import { within } from '@/core/estate'
import { randomBytes } from 'node:crypto'
import type { Finding } from '@/core/findings'
import type { Inventory } from '@/ports'
import { rows, run, type Scope } from './database'
import { loadEstate } from './estate'
import {
  dropCatalogue,
  isWorkKnown,
  keepCatalogue,
  keepFindings,
  keepNameAnswers,
  keepNewWork,
  keepPathProbe,
  noteWork,
  signException,
  nextReading,
  storeInventory,
  withdrawException,
  workMisses,
} from './inventory'
import { pieceWorks, rowNetwork, standingFindings } from './queries'
import { enrolled, freshDatabase, sampleDriveFound, sampleInventory } from './testing'

let records: Awaited<ReturnType<typeof freshDatabase>>
let scope: Scope
let systemId: string
beforeAll(async () => {
  records = await freshDatabase()
  scope = { database: records.database }
  systemId = (await enrolled(scope, randomBytes(32), 'godwit')).systemId
})
afterAll(() => records.close())

const node = (number: number, more: object = {}): Inventory['nodes'][number] => ({
  locator: `/n/${number}`,
  enclosureLocator: '/e',
  name: `godwit-${number}`,
  hostName: null,
  rack: 'K1',
  state: 'fine',
  firmware: '2.4.1',
  model: 'M-210',
  clockOffsetSeconds: 0.1,
  isRestartServiceOn: true,
  mostCapacityDrives: 7,
  memoryBytes: 2 ** 37,
  agentAddress: null,
  ...more,
})
const port = (number: number, more: object = {}): Inventory['nodePorts'][number] => ({
  locator: `/np/${number}`,
  nodeLocator: `/n/${number}`,
  name: 'port 1',
  mac: '02:00:00:00:00:01',
  speedBitsPerSecond: 25e9,
  isUp: true,
  mtu: 9000,
  traffic: [],
  switchPortLocator: `/sp/${number}`,
  storage: null,
  ...more,
})
const switchPort = (switchNumber: number, number: number, peer: string | null = null) => ({
  locator: `/sp/${number}`,
  switchLocator: `/s/${switchNumber}`,
  name: `${number}`,
  mtu: 9216,
  vlans: [1, 30],
  isUp: true,
  peerPortLocator: peer,
})
const row = (more: Partial<Inventory> = {}) =>
  sampleInventory({
    drives: [sampleDriveFound(1, { nodeLocator: '/n/1' }), sampleDriveFound(2, { nodeLocator: '/n/2' })],
    nodes: [node(1), node(2)],
    nodePorts: [port(1), port(2)],
    switches: [1, 2].map(number => ({
      locator: `/s/${number}`,
      name: `switch ${number}`,
      model: null,
      firmware: null,
    })),
    switchPorts: [switchPort(1, 1), switchPort(2, 2), switchPort(1, 24, '/sp/25'), switchPort(2, 25, '/sp/24')],
    ...more,
  })
const store = async (found: Inventory) => storeInventory(records.database, systemId, found, await nextReading(scope))

test('nodes, ports and switches are joined by what their locators say, cables between switches included', async () => {
  await store(row())
  const { nodes, nodePorts, switches, switchPorts } = await rowNetwork(scope, systemId)
  expect(nodes.map(each => each.name)).toEqual(['godwit-1', 'godwit-2'])
  expect(switchPorts.map(each => each.name)).toEqual(['1', '2', '24', '25'])
  expect(nodePorts.map(each => switchPorts.find(far => far.id === each.switchPortId)?.name)).toEqual(['1', '2'])
  const [first, second] = ['24', '25'].map(name => switchPorts.find(each => each.name === name))
  expect([first?.peerPortId, second?.peerPortId]).toEqual([second?.id, first?.id])
  expect(switches.map(each => each.id)).toEqual([first?.switchId, second?.switchId])
  const { drives } = await loadEstate(scope, within(systemId), '')
  expect(drives.map(drive => drive.nodeId)).toEqual(nodes.map(each => each.id))
})

test('a plan rests on a port and a node as they are set, not on how far a clock has drifted', async () => {
  const before = await rowNetwork(scope, systemId)
  await store(
    row({
      nodes: [node(1, { clockOffsetSeconds: 0.3 }), node(2, { isRestartServiceOn: false })],
      nodePorts: [port(1, { mtu: 1500 }), port(2)],
    }),
  )
  const after = await rowNetwork(scope, systemId)
  const risen = (name: 'nodes' | 'nodePorts') =>
    after[name].map((each, index) => each.revision - (before[name][index]?.revision ?? 0))
  expect(risen('nodes')).toEqual([0, 1])
  expect(risen('nodePorts')).toEqual([1, 0])
  expect(after.nodes.map(each => each.id)).toEqual(before.nodes.map(each => each.id))
})

test('a node that is gone takes its ports with it and leaves its drives', async () => {
  await store(row({ nodes: [node(1)], nodePorts: [port(1)] }))
  const { nodes, nodePorts } = await rowNetwork(scope, systemId)
  expect([nodes.length, nodePorts.length]).toEqual([1, 1])
  const { drives } = await loadEstate(scope, within(systemId), '')
  expect(drives.map(drive => drive.nodeId === null)).toEqual([false, true])
  await store(row())
})

const finding = (key: string, more: Partial<Finding> = {}): Finding => ({
  key,
  check: key.split('/')[0] ?? '',
  gravity: 'soon',
  title: key,
  evidence: '',
  risk: '',
  remedy: '',
  draft: null,
  offline: '',
  explainedBy: [],
  ...more,
})
const standing = async () => (await standingFindings(scope, systemId)).map(each => each.finding.key)

test('a finding stands since it was first found; when it is found no more it is cleared, and begins anew if it comes back', async () => {
  await keepFindings(scope, systemId, 'row', [finding('a/1'), finding('b/1')])
  const [first] = await standingFindings(scope, systemId)
  await keepFindings(scope, systemId, 'row', [finding('a/1', { evidence: 'worse' })])
  const [again, ...others] = await standingFindings(scope, systemId)
  expect(others).toEqual([])
  expect(again).toMatchObject({ since: first?.since, finding: { evidence: 'worse' } })
  await keepFindings(scope, systemId, 'row', [finding('a/1'), finding('b/1')])
  expect(await standing()).toEqual(['a/1', 'b/1'])
  const kept = await rows<{ key: string; open: boolean }>(
    scope,
    'select key, cleared_at is null as open from findings order by id',
  )
  expect(kept).toEqual([
    { key: 'a/1', open: true },
    { key: 'b/1', open: false },
    { key: 'b/1', open: true },
  ])
})

test('an exception covers its finding until its day or until it is withdrawn; signed twice by one step it is one', async () => {
  const exception = {
    findingKey: 'a/1',
    gravity: 'soon' as const,
    reason: 'It waits for a part.',
    until: new Date(Date.now() + 86_400_000),
    signedBy: 'keeper',
  }
  await signException(scope, exception, 'step 1')
  await signException(scope, exception, 'step 1')
  expect((await loadEstate(scope, [], '')).exceptions).toHaveLength(1)
  const covered = async () => (await standingFindings(scope, systemId)).filter(each => each.exception !== null)
  expect(await covered()).toMatchObject([
    { finding: { key: 'a/1' }, exception: { reason: 'It waits for a part.', signedBy: 'keeper' } },
  ])
  // What has become graver meanwhile is covered no more, and covered again once it is not.
  const set = (gravity: string) =>
    run(scope, "update findings set body = jsonb_set(body, '{gravity}', to_jsonb($1::text)) where key = 'a/1'", [
      gravity,
    ])
  await set('now')
  expect(await covered()).toEqual([])
  await set('note')
  expect(await covered()).toHaveLength(1)
  await withdrawException(scope, 'step 1')
  expect(await covered()).toEqual([])
  expect((await loadEstate(scope, [], '')).exceptions).toHaveLength(1)
  await signException(scope, { ...exception, until: new Date(Date.now() - 1000) }, 'step 2')
  expect(await covered()).toEqual([])
})

const work = (more: object = {}) => ({
  locator: '/t/1',
  poolLocator: '/p',
  kind: 'rebuild' as const,
  state: 'running' as const,
  doneRatio: 0.1,
  bytes: 10n ** 13n,
  startedAt: '2026-03-01T10:00:00.000Z',
  endedAt: null,
  ...more,
})
const forecast = {
  baseSeconds: 3600,
  p10Seconds: 3000,
  p50Seconds: 3600,
  p90Seconds: 5400,
  boundBy: 'drives',
  learnedFrom: 0,
}
const poolId = async () => (await loadEstate(scope, [], '')).pools.find(pool => pool.locator === '/p')?.id ?? ''

test('work is kept once with the forecast made first; its times are the system’s own and no later look moves them', async () => {
  const seenAt = new Date('2026-03-01T10:20:00Z')
  await keepNewWork(scope, systemId, work(), forecast, seenAt)
  await keepNewWork(scope, systemId, work(), { ...forecast, p50Seconds: 1 }, seenAt)
  expect(await isWorkKnown(scope, systemId, '/t/1')).toBe(true)
  await noteWork(scope, systemId, work({ doneRatio: 0.6 }), seenAt)
  expect(await pieceWorks(scope, await poolId())).toMatchObject([
    {
      p50Seconds: 3600,
      doneRatio: 0.6,
      state: 'running',
      startedEstateAt: '2026-03-01T10:00:00.000Z',
      endedEstateAt: null,
    },
  ])
  const done = work({ state: 'done', doneRatio: 1, endedAt: '2026-03-01T11:30:00.000Z' })
  await noteWork(scope, systemId, done, new Date('2026-03-01T14:00:00Z'))
  await noteWork(scope, systemId, { ...done, endedAt: '2026-03-01T13:00:00.000Z' }, new Date('2026-03-01T15:00:00Z'))
  expect(await pieceWorks(scope, await poolId())).toMatchObject([
    { state: 'done', endedEstateAt: '2026-03-01T11:30:00.000Z', wasForecast: true, bytes: 10n ** 13n },
  ])
  expect(await workMisses(scope, 'rebuild')).toEqual([1.5])
  expect(await workMisses(scope, 'move')).toEqual([])
})

test('work that ended before it was seen claims no forecast; a system that tells no times is timed by the looks', async () => {
  const late = work({
    locator: '/t/2',
    state: 'done',
    doneRatio: 1,
    endedAt: '2026-03-02T11:00:00.000Z',
    startedAt: '2026-03-02T10:00:00.000Z',
  })
  await keepNewWork(scope, systemId, late, forecast, new Date('2026-03-02T12:00:00Z'))
  await noteWork(scope, systemId, late, new Date('2026-03-02T12:00:00Z'))
  const silent = work({ locator: '/t/3', startedAt: null })
  await keepNewWork(scope, systemId, silent, forecast, new Date('2026-03-03T10:00:00Z'))
  await noteWork(scope, systemId, { ...silent, state: 'done', doneRatio: 1 }, new Date('2026-03-03T12:00:00Z'))
  const [third, second] = await pieceWorks(scope, await poolId())
  expect(second).toMatchObject({ wasForecast: false, state: 'done' })
  expect(third).toMatchObject({ wasForecast: true, endedEstateAt: '2026-03-03T12:00:00.000Z' })
  expect(await workMisses(scope, 'rebuild')).toEqual([1.5, 1, 2])
})

test('of two probes the later one stands, also where the earlier arrives last', async () => {
  const probe = (at: string, passedMtu: number) => ({
    systemId,
    at,
    wantedMtu: 9000,
    answers: [{ fromNodeId: systemId, toNodeId: systemId, passedMtu, why: null }],
  })
  await keepPathProbe(scope, probe('2026-03-01T10:00:00.000Z', 1500))
  await keepPathProbe(scope, probe('2026-03-01T12:00:00.000Z', 9000))
  await keepPathProbe(scope, probe('2026-03-01T11:00:00.000Z', 576))
  expect((await rowNetwork(scope, systemId)).probe?.answers[0]?.passedMtu).toBe(9000)
})

test('of each question to the name server the last answer is known, with why there is none', async () => {
  const asked = { query: 'godwit-1.example', kind: 'forward' as const, at: '2026-03-01T10:00:00.000Z' }
  await keepNameAnswers(scope, [{ ...asked, answers: [], why: 'no such name' }])
  // The same question twice at once, as two ports of one name ask it.
  await keepNameAnswers(scope, [
    { ...asked, answers: ['10.1.1.9'], why: null, at: '2026-03-01T10:30:00.000Z' },
    { ...asked, answers: ['10.1.1.1'], why: null, at: '2026-03-01T11:00:00.000Z' },
  ])
  expect((await rowNetwork(scope, systemId)).nameAnswers).toMatchObject([
    { query: 'godwit-1.example', answers: ['10.1.1.1'], why: null },
  ])
})

test('of a maker’s catalogues the one issued last counts; taken back, the one before counts again', async () => {
  const catalogue = (issuedAt: string) => ({
    format: 'wendrel-firmware-catalogue-1' as const,
    maker: 'Mirefield',
    issuedAt,
    entries: [],
  })
  await keepCatalogue(scope, catalogue('2026-05-01T00:00:00.000Z'), 'keeper', 'k1')
  await keepCatalogue(scope, catalogue('2026-06-01T00:00:00.000Z'), 'keeper', 'k2')
  await keepCatalogue(scope, catalogue('2026-04-01T00:00:00.000Z'), 'keeper', 'k3')
  const issued = async () => (await loadEstate(scope, [], '')).catalogues.map(each => each.issuedAt)
  expect(await issued()).toEqual(['2026-06-01T00:00:00.000Z'])
  await dropCatalogue(scope, 'k2')
  expect(await issued()).toEqual(['2026-05-01T00:00:00.000Z'])
})
