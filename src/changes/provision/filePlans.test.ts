import { newRule } from '@/core/access'
import { emptyEstate, type Estate } from '@/core/estate'
import {
  sampleFileService,
  sampleFileSystem,
  sampleId,
  samplePool,
  sampleShare,
  sampleSystem,
  sampleVolume,
} from '@/core/estate/testing/samples'
import { planIntent } from '..'

const system = sampleSystem({ fileUnits: ['Controller A', 'Controller B'] })
const host = {
  id: sampleId(80),
  hostGroupId: sampleId(81),
  name: 'scan-1',
  agentAddress: 'http://a',
  operatingSystem: null,
  initiators: [],
  addresses: ['10.0.1.7'],
  signIn: 'nothing' as const,
  siteId: null,
  revision: 1,
}
const estate = (more: Partial<Estate> = {}): Estate => ({
  ...emptyEstate,
  systems: [system],
  pools: [samplePool()],
  volumes: [sampleVolume({ id: sampleId(4) })],
  hosts: [host],
  fileServices: [sampleFileService()],
  shares: [sampleShare()],
  ...more,
})
const planned = (kind: string, intent: object, more: Partial<Estate> = {}) =>
  planIntent(kind, intent, async () => estate(more), new Date('2026-05-01T00:00:00Z'))
const barred = async (...asked: Parameters<typeof planned>) =>
  (await planned(...asked)).checks.filter(check => !check.holds && check.level === 'must').map(check => check.rule)
const service = (more: object = {}) => ({
  systemId: system.id,
  name: 'files.two.example',
  firstAddress: '10.0.9.21/24',
  nameServers: '10.0.0.53',
  searchSuffixes: '',
  ...more,
})

test.each([
  [{}, []],
  [{ systemId: '' }, ['system']],
  [{ name: 'files' }, ['name']],
  [{ name: 'FILES.example' }, ['name-free']],
  [{ firstAddress: '10.0.9.21' }, ['address']],
  [{ firstAddress: '10.0.9.254/24' }, ['addresses']],
  [{ firstAddress: '10.0.0.2/24' }, ['addresses-free']],
  [{ firstAddress: 'fe80::1%eth0/64' }, ['address']],
  [{ nameServers: '10.0.0.53, ns.example' }, ['name-servers']],
])('a file service asked for as %j is barred by %j', async (more, rules) =>
  expect(await barred('serve-files', service(more))).toEqual(rules),
)

test('a file service has an address for each unit, and its names are judged by what the name server said', async () => {
  const at = '2026-05-01T00:00:00Z'
  const answer = (kind: 'forward' | 'reverse', query: string, answers: string[]) => ({
    kind,
    query,
    answers,
    at,
    why: null,
  })
  const nameAnswers = [
    answer('forward', 'files.two.example', ['10.0.9.21']),
    answer('reverse', '10.0.9.21', ['files.two.example']),
    answer('reverse', '10.0.9.22', []),
  ]
  const plan = await planned('serve-files', service(), { nameAnswers })
  expect(plan.effects[0]?.after).toBe('10.0.9.21 on Controller A, 10.0.9.22 on Controller B')
  expect(plan.checks.find(({ rule }) => rule === 'names')).toMatchObject({
    holds: false,
    level: 'warn',
    why: expect.stringContaining('10.0.9.22') as string,
  })
})

const share = (more: object = {}) => ({
  ...{ fileServiceId: sampleId(70), name: 'photos', size: '1 GiB', poolId: samplePool().id, classId: '' },
  ...{ ownerUid: 1, ownerGid: 1, mode: '0770', rules: [{ ...newRule, client: '10.0.1.0/24', access: 'rw' }] },
  ...more,
})

test.each([
  [{}, {}, []],
  [{ fileServiceId: '' }, {}, ['service', 'same-system']],
  [{ name: 'scans' }, {}, ['name-free']],
  [{ name: sampleVolume().name }, {}, ['volume-free']],
  [{ poolId: '' }, {}, ['pool']],
  [{}, { pools: [samplePool({ systemId: sampleId(99) })] }, ['same-system']],
  [{}, { pools: [samplePool({ state: 'failed' })] }, ['pool-ready']],
  [{}, { pools: [samplePool({ keptFor: 'catalogue' })] }, ['kept-for']],
  [{ size: '4' }, {}, ['size-unit']],
  [{ mode: '889' }, {}, ['mode']],
  [{ labels: 'x'.repeat(61) }, {}, ['labels']],
  [{ rules: [{ ...newRule, client: '10.0.1.7/24' }] }, {}, ['rules']],
  [{ rules: [{ ...newRule, client: '*', flavours: ['krb5p'] }] }, {}, ['sign-in']],
])('a share asked for as %j in an estate with %j is barred by %j', async (more, around, rules) =>
  expect(await barred('provision-share', share(more), around as Partial<Estate>)).toEqual(rules),
)

test('what a share is given besides its rights is a step each, in the same draft', async () => {
  const more = { showsEarlier: true, labels: ' photos \nlab\nphotos', warnPercent: 80 }
  const { steps } = await planned('provision-share', share(more))
  expect(steps.slice(3).map(({ words, step }) => [words, step])).toEqual([
    ['Show its snapshots to its hosts', expect.objectContaining({ step: 'show', name: 'photos' })],
    ['Keep what is said of it', expect.objectContaining({ notes: { labels: ['photos', 'lab'], warnPercent: 80 } })],
  ])
  expect((await planned('provision-share', share())).steps).toHaveLength(3)
})

test('how many hosts may mount and write is told before and after; a mode that contradicts the rules is said', async () => {
  const all = [{ ...newRule, client: '10.0.1.0/24', access: 'rw', squash: 'all' }]
  const plan = await planned('set-share-rights', {
    shareId: sampleId(71),
    ownerUid: 2001,
    ownerGid: 300,
    mode: '0770',
    rules: all,
  })
  expect(plan.effects).toMatchObject([
    { before: 1, after: 1 },
    { before: 1, after: 1 },
  ])
  expect(plan.checks.find(({ rule }) => rule === 'mode-and-rules')).toMatchObject({
    holds: false,
    why: expect.stringContaining('the stricter counts') as string,
  })
  const none = await planned('set-share-rights', {
    shareId: sampleId(71),
    ownerUid: 1,
    ownerGid: 1,
    mode: '0770',
    rules: [],
  })
  expect(none.checks.find(({ rule }) => rule === 'somebody')?.holds).toBe(false)
  expect(none.effects).toMatchObject([
    { before: 1, after: 0 },
    { before: 1, after: 0 },
  ])
})

test('a service that serves a share stays; a share is taken away by its name only', async () => {
  expect(await barred('stop-file-service', { fileServiceId: sampleId(70) })).toEqual(['no-share'])
  expect(await barred('stop-file-service', { fileServiceId: sampleId(70) }, { shares: [] })).toEqual([])
  expect(await barred('remove-share', { shareId: sampleId(71), confirmedName: 'scan' })).toEqual(['name-typed'])
  expect(await barred('remove-share', { shareId: sampleId(71), confirmedName: 'scans' })).toEqual([])
})

const again = {
  ...{ fileSystemId: sampleId(72), fileServiceId: sampleId(70), name: '' },
  ...{ ownerUid: 2001, ownerGid: 300, mode: '2770', rules: [{ ...newRule, client: '10.0.1.7' }] },
}
const quota = { path: '/', of: 'tree', id: null, softBytes: null, hardBytes: '1000', graceDays: 7 }
const left = { shares: [], fileSystems: [sampleFileSystem()] }

test('a file system that is left is shared again by its own name, with limits as a step of their own', async () => {
  const plan = await planned('share-again', { ...again, quotas: [quota] }, left)
  expect(plan.title).toBe('Share scans again at files.example')
  expect(plan.steps.map(({ words }) => words)).toEqual([
    'Export it as files.example:/scans',
    'Set its quotas and kinds of files',
  ])
  expect((await planned('share-again', again, left)).steps).toHaveLength(1)
  const noted = await planned('share-again', { ...again, labels: ['scans'], warnPercent: 80 }, left)
  expect(noted.steps.map(({ step }) => step)[1]).toMatchObject({ notes: { labels: ['scans'], warnPercent: 80 } })
  const reversed = JSON.parse(
    JSON.stringify(
      (
        await planned(
          'remove-share',
          { shareId: sampleId(71), confirmedName: 'scans' },
          { fileSystems: [sampleFileSystem()] },
        )
      ).steps[0],
    ),
  ) as { step: { again: { fileSystemId: string; over: string } } }
  expect(reversed.step.again).toMatchObject({ fileSystemId: sampleId(72), over: 'NFS', name: 'scans', mode: '2770' })
})

test.each<[object, Partial<Estate>, string[]]>([
  [{}, {}, []],
  [{ fileSystemId: '' }, {}, ['file-system', 'name']],
  [{ fileServiceId: '' }, {}, ['service']],
  [{ name: 'a/b' }, {}, ['name']],
  [{ over: 'SMB' }, {}, ['joined']],
  [{ mode: '9' }, {}, ['mode']],
  [{ quotas: [{ ...quota, path: '/../etc' }] }, {}, ['quotas']],
  [{}, { shares: [sampleShare()] }, ['unshared', 'name-free']],
  [{}, { volumes: [sampleVolume({ id: sampleId(4), state: 'holding' })] }, ['volume']],
  [{}, { fileServices: [sampleFileService({ systemId: sampleId(2) })] }, ['same-system']],
])('a file system shared again as %j in %j is barred by %j', async (more, estate, rules) =>
  expect(await barred('share-again', { ...again, ...more }, { ...left, ...estate })).toEqual(rules),
)

test('a volume that carries a file system is shown to no host, alone or among others', async () => {
  const group = { id: sampleId(81), name: 'scanners', revision: 1 }
  const more = { ...left, hostGroups: [group], hosts: [{ ...host, initiators: ['iqn.2026-01.example:a'] }] }
  const volumeId = sampleId(4)
  expect(await barred('map-volume', { volumeId, hostGroupId: group.id }, more)).toContain('no-file-system')
  expect(await barred('map-volumes', { volumeIds: [volumeId], hostGroupId: group.id }, more)).toContain(
    'no-file-system',
  )
})

test('somebody is tried from a host that can be asked, and that is known on the network', async () => {
  const trial = { shareId: sampleId(71), hostId: host.id, uid: 7, gid: 7, groups: [], isRestarted: false }
  const plan = await planned('test-share', trial)
  expect(plan.effects[0]?.after).toBe('will be refused by mode-bits')
  expect(await barred('test-share', trial, { hosts: [{ ...host, agentAddress: null }] })).toEqual(['asked'])
  expect(await barred('test-share', trial, { hosts: [{ ...host, addresses: [] }] })).toEqual(['address'])
})

test('earlier files are shown where a system has a directory for them, and what that lets be found is said', async () => {
  const asked = { shareId: sampleShare().id, isShown: true }
  const shares = [sampleShare({ snapshotDirectory: { name: '.earlier', isShown: false } })]
  expect(await barred('show-earlier-files', { ...asked, shareId: '' })).toEqual(['share'])
  expect(await barred('show-earlier-files', asked)).toEqual(['has-directory'])
  expect(await barred('show-earlier-files', { ...asked, isShown: false }, { shares })).toEqual(['other'])
  const plan = await planned('show-earlier-files', asked, { shares })
  expect(plan.checks.filter(({ holds }) => !holds).map(({ rule, level }) => [rule, level])).toEqual([
    ['has-snapshots', 'warn'],
    ['earlier-rights', 'warn'],
  ])
  expect(plan.effects.map(({ after }) => after)).toEqual(['in .earlier', 0])
})
