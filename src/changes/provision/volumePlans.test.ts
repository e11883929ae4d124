import { emptyEstate, type Estate, type Host, type HostGroup, type Mapping } from '@/core/estate'
import { sampleId as id, samplePool, sampleSystem, sampleVolume } from '@/core/estate/testing/samples'
import { isReady, type Plan } from '@/core/plan'
import { kindNamed, planIntent, readIntent } from '..'

const tebibyte = 1024n ** 4n
const now = new Date('2026-05-04T10:00:00Z')
const system = sampleSystem({ revision: 1 })
const pool = samplePool({
  id: id(2),
  name: 'fast',
  groupSizes: [11],
  spareCount: 1,
  rawBytes: 20n * tebibyte,
  usableBytes: 10n * tebibyte,
  writtenBytes: 4n * tebibyte,
  provisionedBytes: 9n * tebibyte,
})
const group: HostGroup = { id: id(3), name: 'register', revision: 1 }
const host: Host = {
  id: id(4),
  hostGroupId: group.id,
  name: 'register-1',
  agentAddress: 'http://a',
  operatingSystem: null,
  initiators: ['iqn.2019-04.example:a'],
  addresses: [],
  signIn: 'nothing' as const,
  siteId: null,
  revision: 1,
}
const volume = sampleVolume({
  id: id(5),
  poolId: pool.id,
  name: 'register-data-01',
  naa: '6'.repeat(32),
  sizeBytes: 2n * tebibyte,
  writtenBytes: tebibyte,
  revision: 9,
})
const mapping: Mapping = {
  id: id(6),
  systemId: system.id,
  locator: '/m',
  volumeId: volume.id,
  snapshotId: null,
  hostGroupId: group.id,
  groupName: group.name,
  lun: 3,
  revision: 1,
}
const estate: Estate = {
  ...emptyEstate,
  systems: [system],
  pools: [pool],
  volumes: [volume],
  hostGroups: [group],
  hosts: [host],
  mappings: [mapping],
}

const planned = (kind: string, intent: object, more: Partial<Estate> = {}) =>
  planIntent(kind, readIntent(kind, intent), async () => ({ ...estate, ...more }), now)
const fallen = (plan: Plan) =>
  plan.checks.filter(check => !check.holds && check.level === 'must').map(check => check.rule)
const wanted = (more: object = {}) => ({
  name: 'register-log-01',
  purpose: 'log',
  size: '1 TiB',
  poolId: pool.id,
  isThin: true,
  hostGroupId: group.id,
  ...more,
})

test("provisioning rests on the pool's revision, and says what it does to it", async () => {
  const plan = await planned('provision-volume', wanted())
  expect(isReady(plan)).toBe(true)
  expect(plan.reads).toContainEqual({ kind: 'pool', id: pool.id, name: 'fast', revision: 4 })
  expect(plan.effects.find(effect => effect.figure === 'provisionedBytes')).toMatchObject({
    before: `${9n * tebibyte}`,
    after: `${10n * tebibyte}`,
  })
  expect(plan.steps.map(step => step.name)).toEqual(['create', 'map'])
  expect(plan.claims).not.toContain(pool.id)
})

test("the name follows the estate's pattern past what is taken", async () => {
  const plan = await planned('provision-volume', wanted({ name: '', purpose: 'data' }))
  expect(plan.suggestions).toEqual({ name: 'register-data-02' })
})

test('a thick volume takes its space at once, holds the pool, and must fit', async () => {
  const fits = await planned('provision-volume', wanted({ isThin: false, size: '6 TiB' }))
  expect(isReady(fits)).toBe(true)
  expect(fits.claims).toContain(pool.id)
  expect(fits.steps[0]?.forecast.boundBy).toBe('drives')
  expect(fallen(await planned('provision-volume', wanted({ isThin: false, size: '6.1 TiB' })))).toEqual(['fits'])
})

test.each([
  [wanted({ size: '3' }), {}, ['size-unit']],
  [wanted({ poolId: '' }), {}, ['pool']],
  [wanted({ name: volume.name }), {}, ['name-free']],
  [wanted(), { pools: [{ ...pool, state: 'starting' as const }] }, ['pool-ready']],
  [wanted(), { hosts: [{ ...host, initiators: [] }] }, ['initiators']],
  [wanted(), { systems: [{ ...system, reach: 'not answering' as const, reachWhy: 'cut' }] }, ['system-answers']],
])('provisioning %j falls by its own rule', async (intent, more, rules) =>
  expect(fallen(await planned('provision-volume', intent, more))).toEqual(rules),
)

test('mapping twice is refused, mapping beside another group warns', async () => {
  expect(fallen(await planned('map-volume', { volumeId: volume.id, hostGroupId: group.id }))).toEqual(['new'])
  const other = { id: id(30), name: 'desk', revision: 1 }
  const plan = await planned(
    'map-volume',
    { volumeId: volume.id, hostGroupId: other.id },
    { hostGroups: [group, other], hosts: [host, { ...host, id: id(31), hostGroupId: other.id }] },
  )
  expect(isReady(plan)).toBe(true)
  expect(plan.checks.find(check => check.rule === 'alone')).toMatchObject({
    holds: false,
    level: 'warn',
    why: expect.stringContaining('register'),
  })
})

test('several volumes are mapped in one change: a step each, and what bars any of them bars all', async () => {
  const second = sampleVolume({ ...volume, id: id(40), name: 'register-log-01', naa: '7'.repeat(32), revision: 3 })
  const other = { id: id(30), name: 'desk', revision: 1 }
  const more = {
    volumes: [volume, second],
    hostGroups: [group, other],
    hosts: [host, { ...host, id: id(31), hostGroupId: other.id }],
  }
  const wish = { volumeIds: [volume.id, second.id], hostGroupId: other.id }
  const plan = await planned('map-volumes', wish, more)
  expect(isReady(plan)).toBe(true)
  expect(plan.steps.map(step => step.words)).toEqual(['Map register-data-01 to desk', 'Map register-log-01 to desk'])
  expect(plan.claims).toEqual([volume.id, second.id])
  expect(plan.effects[0]).toMatchObject({ before: 0, after: 2 })
  expect(plan.checks.find(check => check.rule === 'alone')).toMatchObject({ holds: false, level: 'warn' })

  const fallenBy = async (wish: object, changed: Partial<Estate> = {}) =>
    fallen(await planned('map-volumes', wish, { ...more, ...changed }))
  expect(await fallenBy({ ...wish, hostGroupId: group.id })).toEqual(['new'])
  expect(await fallenBy({ ...wish, hostGroupId: '' })).toEqual(['host-group', 'initiators'])
  expect(await fallenBy({ ...wish, volumeIds: [] })).toEqual(['volumes'])
  expect(await fallenBy({ ...wish, volumeIds: [volume.id, id(99)] })).toEqual(['volumes'])
  expect(await fallenBy(wish, { volumes: [volume, { ...second, state: 'holding' }] })).toEqual(['volumes'])
})

test('removing needs the very name, and promises the way back', async () => {
  expect(fallen(await planned('remove-volume', { volumeId: volume.id, confirmedName: 'register-data-1' }))).toEqual([
    'named',
  ])
  const plan = await planned('remove-volume', { volumeId: volume.id, confirmedName: volume.name })
  expect(isReady(plan)).toBe(true)
  expect(plan.undo).toMatchObject({ possible: true, how: expect.stringContaining('7 days') })
  expect(kindNamed('remove-volume').reverse({ volumeId: volume.id }, { access: '["register"]' })).toEqual({
    kind: 'bring-back-volume',
    intent: { volumeId: volume.id, groupNames: ['register'] },
  })
})

test('a volume in holding is deleted when its time is over and not a moment before', async () => {
  const held = (until: string) => ({
    volumes: [{ ...volume, state: 'holding' as const, holdingUntil: until }],
    mappings: [],
  })
  expect(fallen(await planned('delete-held-volume', { volumeId: volume.id }, held('2026-05-04T10:00:01Z')))).toEqual([
    'holding-over',
  ])
  expect(isReady(await planned('delete-held-volume', { volumeId: volume.id }, held('2026-05-04T10:00:00Z')))).toBe(true)
  expect(
    fallen(await planned('expand-volume', { volumeId: volume.id, size: '9 TiB' }, held('2026-06-01T00:00:00Z'))),
  ).toEqual(['volume'])
})

test('a volume grows and never shrinks', async () => {
  expect(fallen(await planned('expand-volume', { volumeId: volume.id, size: '2 TiB' }))).toEqual(['grows'])
  const plan = await planned('expand-volume', { volumeId: volume.id, size: '3 TiB' })
  expect(isReady(plan)).toBe(true)
  expect(plan.undo.possible).toBe(false)
})

test('a pool with volumes stays', async () => {
  expect(fallen(await planned('remove-pool', { systemId: system.id, poolId: pool.id }))).toEqual(['empty'])
  expect(isReady(await planned('remove-pool', { systemId: system.id, poolId: pool.id }, { volumes: [] }))).toBe(true)
})

test('an intent that is none is refused with the field', () => {
  expect(() => readIntent('provision-volume', { ...wanted(), size: 4 })).toThrow(
    expect.objectContaining({ code: 'change.intent-refused', faults: [expect.objectContaining({ field: 'size' })] }),
  )
  expect(() => readIntent('provision-volume', { ...wanted(), more: 1 })).toThrow(/more/)
  expect(() => readIntent('fly', {})).toThrow(expect.objectContaining({ code: 'change.unknown-kind' }))
})

const renaming = { volumeId: volume.id, name: 'register-data-02' }
test('a volume is given another name that no other has, under the WWN by which hosts know it', async () => {
  const plan = await planned('rename-volume', renaming)
  expect(isReady(plan)).toBe(true)
  expect(plan.steps[0]?.step).toMatchObject({
    locator: volume.locator,
    naa: volume.naa,
    from: volume.name,
    to: renaming.name,
  })
  expect(plan.claims).toEqual([volume.id])
  expect(kindNamed('rename-volume').reverse(renaming, { from: volume.name })).toEqual({
    kind: 'rename-volume',
    intent: { volumeId: volume.id, name: volume.name },
  })
})

test.each([
  ['its own name', volume.name, {}, 'new'],
  ['no name', '', {}, 'name'],
  ['a path', '../etc', {}, 'name'],
  ['a taken name', 'taken', { volumes: [volume, { ...volume, id: id(77), name: 'taken' }] }, 'name-free'],
  ['a held volume', 'other', { volumes: [{ ...volume, state: 'holding' as const }] }, 'volume'],
  ['a silent system', 'other', { systems: [{ ...system, reach: 'not answering' as const }] }, 'system-answers'],
])('it is not renamed: %s', async (_, name, more, rule) => {
  const plan = await planned('rename-volume', { volumeId: volume.id, name }, more)
  expect(plan.checks.filter(check => !check.holds).map(check => check.rule)).toEqual([rule])
})
