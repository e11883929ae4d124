import { emptyEstate, type Estate, type Host, type HostGroup, type Mapping } from '@/core/estate'
import {
  sampleClass,
  sampleId as id,
  samplePool,
  sampleSnapshot,
  sampleSystem,
  sampleVolume,
} from '@/core/estate/testing/samples'
import { isReady, type Plan } from '@/core/plan'
import { planIntent, readIntent } from '..'

const tebi = 1024n ** 4n
const now = new Date('2026-05-04T10:00:00Z')
const system = sampleSystem({ revision: 1 })
const pool = samplePool({ id: id(2), name: 'fast', rawBytes: 20n * tebi, usableBytes: 10n * tebi })
const group: HostGroup = { id: id(3), name: 'register', revision: 1 }
const host: Host = {
  ...{ id: id(4), hostGroupId: group.id, name: 'register-1', agentAddress: null, operatingSystem: null, revision: 1 },
  initiators: ['iqn.2019-04.example:a'],
  addresses: [],
  signIn: 'nothing' as const,
  siteId: null,
}
const volume = sampleVolume({ id: id(5), poolId: pool.id, name: 'image-01', sizeBytes: tebi, writtenBytes: tebi / 2n })
const mapping: Mapping = {
  ...{ id: id(6), systemId: system.id, locator: '/m', volumeId: volume.id, snapshotId: null, revision: 1 },
  ...{ hostGroupId: group.id, groupName: group.name, lun: 3 },
}
const estate: Estate = {
  ...emptyEstate,
  systems: [system],
  pools: [pool],
  volumes: [volume],
  hostGroups: [group],
  hosts: [host],
}
const planned = (kind: string, intent: object, more: Partial<Estate> = {}) =>
  planIntent(kind, readIntent(kind, intent), async () => ({ ...estate, ...more }), now)
const broken = ({ checks }: Plan, level: 'must' | 'warn' = 'must') =>
  checks.filter(check => !check.holds && check.level === level).map(check => check.rule)
const whyOf = ({ checks }: Plan, rule: string) => checks.find(check => check.rule === rule)?.why

test('a list of hosts is taken in parts, and says which groups are new and which see volumes already', async () => {
  const list = [
    'other-1,register,iqn.2026-01.example:o',
    ...Array.from({ length: 1200 }, (_, at) => `h-${at},racks,iqn.2026-01.example:${at}`),
  ].join('\n')
  const plan = await planned('register-hosts', { list }, { mappings: [mapping] })
  expect(isReady(plan)).toBe(true)
  expect(plan.steps).toHaveLength(3)
  expect(broken(plan, 'warn')).toEqual(['groups', 'see'])
  expect(whyOf(plan, 'groups')).toBe('One host group is new: racks.')
  expect(plan.effects.map(({ before, after }) => [before, after])).toEqual([
    [1, 1202],
    [1, 2],
  ])
})

test('of a list with faults the first few are told with their lines, and how many more there are', async () => {
  const bad = Array.from({ length: 9 }, (_, at) => `h-${at},g,wrong-${at}`).join('\n')
  expect(whyOf(await planned('register-hosts', { list: bad }), 'lines')).toMatch(/^Line 1: .*Line 5: .* And 4 more\.$/s)
  const known = 'register-1,g,iqn.2026-01.example:x\nnew,g,IQN.2019-04.EXAMPLE:A'
  expect(whyOf(await planned('register-hosts', { list: known }), 'new')).toBe(
    'Line 1: register-1 is registered already. Line 2: iqn.2019-04.example:a is register-1.',
  )
})

test('a host that sees something stays; one whose name a system keeps may go, and that is said', async () => {
  expect(broken(await planned('forget-host', { hostId: host.id }, { mappings: [mapping] }))).toEqual(['unseen'])
  const kept = { ...system, accessGroups: [{ name: 'register', initiators: host.initiators.slice() }] }
  const plan = await planned('forget-host', { hostId: host.id }, { systems: [kept] })
  expect(isReady(plan)).toBe(true)
  expect(broken(plan, 'warn')).toEqual(['not-let-in'])
  expect(broken(await planned('forget-host', { hostId: '' }))).toEqual(['host'])
})

test('what no agent can do is refused with the reason, and a mapping is proven by the system’s own word', async () => {
  const ready = { volumeId: volume.id, hostId: host.id, fileSystem: 'xfs', path: '', isRestarted: false }
  const plan = await planned('prepare-volume', ready, { mappings: [mapping] })
  expect(broken(plan)).toEqual(['host'])
  expect(whyOf(plan, 'host')).toContain('has no agent')
  expect(isReady(await planned('map-volume', { volumeId: volume.id, hostGroupId: group.id }))).toBe(true)
})

const many = { volumeId: volume.id, snapshotId: '', names: 'desk-{01..60}', hostGroupId: '' }

test('many clones are made in parts of one snapshot that is taken first, and what they may grow to is said', async () => {
  const plan = await planned('clone-volumes', many)
  expect(isReady(plan)).toBe(true)
  expect(plan.title).toBe('Make 60 clones of image-01')
  expect(plan.steps.map(({ step }) => (step as { step: string }).step)).toEqual(['take', 'clone', 'clone', 'clone'])
  expect(plan.effects.find(({ figure }) => figure === 'mostBytes')?.after).toBe(`${60n * tebi}`)
  const snapshot = sampleSnapshot(1, { volumeId: volume.id, sizeBytes: tebi })
  const from = await planned(
    'clone-volumes',
    { ...many, snapshotId: snapshot.id, hostGroupId: group.id },
    { snapshots: [snapshot] },
  )
  expect(from.steps.map(({ step }) => (step as { step: string }).step)).toEqual([
    'clone',
    'map',
    'clone',
    'map',
    'clone',
    'map',
  ])
})

test.each([
  ['a range that counts backwards', { names: 'd-{9..1}' }, 'names'],
  ['too many', { names: 'd-{1..501}' }, 'names'],
  ['names that systems do not take', { names: 'd {1..3}' }, 'names'],
  ['names that exist', { names: 'image-{01..02}' }, 'names-free'],
  ['a snapshot of another volume', { snapshotId: id(88) }, 'snapshot'],
])('many clones are refused for %s', async (_, more, rule) => {
  expect(broken(await planned('clone-volumes', { ...many, ...more }))).toEqual([rule])
})

test('a volume that is mapped is no image, and an image is not mapped', async () => {
  expect(broken(await planned('keep-as-image', { volumeId: volume.id }, { mappings: [mapping] }))).toEqual(['unseen'])
  const image = { ...volume, isImage: true }
  expect(broken(await planned('keep-as-image', { volumeId: volume.id }, { volumes: [image] }))).toEqual(['other'])
  const mapped = { volumeId: volume.id, hostGroupId: group.id }
  expect(broken(await planned('map-volume', mapped, { volumes: [image] }))).toEqual(['no-image'])
  expect(isReady(await planned('release-image', { volumeId: volume.id }, { volumes: [image] }))).toBe(true)
})

test('under a class the room that snapshots will need is told, by what changes a day', async () => {
  const serviceClass = sampleClass({ retention: { daily: 30 }, headroomRatio: null })
  const asked = { name: 'x-01', purpose: '', size: '1 TiB', poolId: pool.id, isThin: true, hostGroupId: '' }
  const need = async (more: object) =>
    (await planned('provision-volume', { ...asked, ...more }, { serviceClasses: [serviceClass] })).effects.find(
      ({ figure }) => figure === 'snapshotBytes',
    )
  expect(await need({})).toBeUndefined()
  expect(Number((await need({ classId: serviceClass.id }))?.after) / Number(tebi)).toBeCloseTo(0.6)
  const quick = await need({ classId: serviceClass.id, changePercent: 10 })
  expect([Number(quick?.after) / Number(tebi), quick?.label]).toEqual([
    3,
    'Its snapshots, once it is full, at 10% a day',
  ])
})

test('where hosts stand is said of several at once, and only what is there can be said', async () => {
  const canal = { id: id(50), name: 'Canal House', revision: 1 }
  const asked = (intent: object) =>
    planIntent(
      'place-hosts',
      readIntent('place-hosts', { hostIds: estate.hosts.map(each => each.id), siteId: canal.id, ...intent }),
      async () => ({ ...estate, sites: [canal] }),
      new Date('2026-05-04T10:00:00Z'),
    )
  const broken = async (intent: object) =>
    (await asked(intent)).checks.filter(each => !each.holds).map(({ rule }) => rule)
  const plan = await asked({})
  expect(plan.steps[0]?.step).toMatchObject({ to: canal.id })
  expect(plan.effects[0]).toMatchObject({ before: 'none', after: 'Canal House' })
  expect(await broken({ siteId: id(51) })).toEqual(['site'])
  expect(await broken({ siteId: '' })).toEqual(['other'])
  expect(await broken({ hostIds: [] })).toEqual(['hosts', 'other'])
  expect(await broken({ hostIds: [id(99)] })).toEqual(['hosts', 'other'])
})

const aligned = (more: Partial<Estate> = {}, intent: object = {}) =>
  planned(
    'align-group',
    { systemId: system.id, hostGroupId: group.id, ...intent },
    { volumes: [volume], mappings: [mapping], ...more },
  )
test('all hosts of a group are let in where it is shown something, and nobody twice', async () => {
  const plan = await aligned()
  expect([isReady(plan), plan.title]).toEqual([true, `Let all hosts of register in on ${system.name}`])
  expect(plan.steps[0]?.step).toMatchObject({ groupName: 'register', shownLocator: volume.locator, isReadOnly: false })
  expect(broken(await aligned({ mappings: [] }))).toEqual(['shown'])
  expect(broken(await aligned({}, { systemId: '' }))).toContain('system')
  expect(broken(await aligned({}, { hostGroupId: '' }))).toContain('host-group')
  expect(broken(await aligned({ hosts: [{ ...host, initiators: [] }] }))).toEqual(['initiators'])
  const knows = { ...system, accessGroups: [{ name: group.name, initiators: host.initiators }] }
  expect(broken(await aligned({ systems: [knows] }))).toEqual(['lacking'])
})
