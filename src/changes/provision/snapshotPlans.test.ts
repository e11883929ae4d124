import { emptyEstate, type Estate, type Mapping } from '@/core/estate'
import {
  sampleClass,
  sampleId as id,
  samplePool,
  sampleSnapshot,
  sampleSystem,
  sampleVolume,
} from '@/core/estate/testing/samples'
import { isReady } from '@/core/plan'
import { planIntent, readIntent } from '..'

const tebi = 1024n ** 4n
const now = new Date('2026-05-04T10:00:00Z')
const volume = sampleVolume({ id: id(20), name: 'register', sizeBytes: 2n * tebi, writtenBytes: tebi, revision: 3 })
const pool = samplePool({ usableBytes: 10n * tebi, rawBytes: 20n * tebi, snapshotReserveBytes: tebi })
const [first, second] = [sampleSnapshot(1, { ownBytes: 10n }), sampleSnapshot(2, { ownBytes: 20n })]
const other = sampleSnapshot(3, { volumeId: id(77) })
const estate: Estate = {
  ...emptyEstate,
  systems: [sampleSystem({ revision: 1 })],
  pools: [pool],
  volumes: [volume],
  snapshots: [first, second],
}
const planned = (kind: string, intent: object, more: Partial<Estate> = {}) =>
  planIntent(
    kind,
    readIntent(kind, { volumeId: volume.id, ...intent }),
    () => Promise.resolve({ ...estate, ...more }),
    now,
  )
const broken = async (kind: string, intent: object, more: Partial<Estate> = {}) =>
  (await planned(kind, intent, more)).checks.filter(each => !each.holds && each.level === 'must').map(each => each.rule)
const of = (snapshot: { readonly id: string }) => ({ snapshotId: snapshot.id })
const some = (...all: readonly { readonly id: string }[]) => ({ snapshotIds: all.map(each => each.id), reason: '' })

test('a snapshot is named by its moment where nobody names it, and rests on the volume as it is', async () => {
  const plan = await planned('take-snapshot', { name: 'register.before-move', reason: 'before the move' })
  expect([isReady(plan), plan.title]).toEqual([true, 'Snapshot of register: before the move'])
  expect(plan.steps.map(({ step }) => step)).toMatchObject([{ step: 'take', name: 'register.before-move' }])
  expect(plan.reads.find(({ kind }) => kind === 'volume')).toMatchObject({ name: 'register', revision: 3 })
  const { suggestions } = await planned('take-snapshot', { name: '', reason: '' })
  expect(suggestions?.['name']).toContain('register')
})

test.each([
  ['a name that a snapshot has', 'take-snapshot', { name: first.name, reason: '' }, {}, ['name-free']],
  [
    'a volume in holding',
    'take-snapshot',
    { name: 'x', reason: '' },
    { volumes: [{ ...volume, state: 'holding' as const }] },
    ['volume'],
  ],
  ['a hold without a reason', 'hold-snapshot', { ...of(first), reason: '' }, {}, ['reason']],
  ['a hold for next to no reason', 'hold-snapshot', { ...of(first), reason: 'hm' }, {}, ['reason']],
  [
    'a hold of what is on its way out',
    'hold-snapshot',
    { ...of(first), reason: 'an audit' },
    { snapshots: [{ ...first, goesAt: '2026-05-06T00:00:00Z' }] },
    ['stays'],
  ],
  ['nothing chosen to be removed', 'remove-snapshots', some(), {}, ['chosen']],
  [
    'one of another volume to be removed',
    'remove-snapshots',
    some(first, other),
    { snapshots: [first, other] },
    ['chosen'],
  ],
  [
    'one that is held',
    'remove-snapshots',
    some(first),
    { snapshots: [{ ...first, heldReason: 'an audit' }, second] },
    ['no-hold'],
  ],
  [
    'one that a clone shares with',
    'remove-snapshots',
    some(first),
    { volumes: [volume, sampleVolume({ id: id(30), name: 'copy', cloneOfId: first.id })] },
    ['no-clone'],
  ],
  ['nothing that could be brought back', 'keep-snapshots', { snapshotIds: [first.id] }, {}, ['in-holding']],
  ['a clone of nothing to be split', 'split-clone', {}, {}, ['is-clone']],
])('%s is refused', async (_, kind, intent, more, rules) => expect(await broken(kind, intent, more)).toEqual(rules))

test('what is removed is counted with what it gives back, and what its class needs takes a reason', async () => {
  const plan = await planned('remove-snapshots', some(first, second))
  expect(plan.title).toBe('Remove two snapshots of register')
  expect(plan.effects.find(each => each.figure === 'snapshots')).toMatchObject({ before: 2, after: 0 })
  const serviceClass = sampleClass({ id: id(40), name: 'Kept', snapshotRule: 'FREQ=HOURLY' })
  const under = { volumes: [{ ...volume, classId: serviceClass.id }], serviceClasses: [serviceClass] }
  expect(await broken('remove-snapshots', some(first), under)).toEqual(['promise'])
  const reasoned = { ...some(first), reason: 'asked for by the registrar' }
  expect(await broken('remove-snapshots', reasoned, under)).toEqual([])
})

test('one that a host is shown is not taken from under it', async () => {
  const mapping: Mapping = {
    ...{ id: id(6), systemId: id(1), locator: '/m', volumeId: null, snapshotId: first.id, revision: 1 },
    ...{ hostGroupId: id(3), groupName: 'backup', lun: 3 },
  }
  expect(await broken('remove-snapshots', some(first), { mappings: [mapping] })).toEqual(['not-shown'])
})

test('a hold is released by taking its reason away, and one that is none is not', async () => {
  const held = { snapshots: [{ ...first, heldReason: 'an audit' }] }
  const plan = await planned('hold-snapshot', { ...of(first), reason: '' }, held)
  expect([isReady(plan), plan.title]).toEqual([true, `Release ${first.name}`])
  expect(plan.effects[0]).toMatchObject({ before: 'an audit', after: null })
})

test('what is brought back is in holding, all of it', async () => {
  const going = { ...first, goesAt: '2026-05-06T00:00:00Z' }
  const plan = await planned('keep-snapshots', { snapshotIds: [first.id] }, { snapshots: [going, second] })
  expect([isReady(plan), plan.effects[0]?.before]).toEqual([true, 1])
  expect(
    await broken('keep-snapshots', { snapshotIds: [first.id, second.id] }, { snapshots: [going, second] }),
  ).toEqual(['in-holding'])
})

test('a clone is split where its pool has room for what it shares, and never into a pool that has not', async () => {
  const clone = sampleVolume({ id: id(30), name: 'copy', cloneOfId: first.id })
  const shares = { volumes: [volume, clone] }
  const split = (more: Partial<Estate> = {}) => planned('split-clone', { volumeId: clone.id }, { ...shares, ...more })
  const plan = await split()
  expect([isReady(plan), plan.title]).toEqual([true, `Split copy from ${first.name}`])
  expect(plan.undo.possible).toBe(false)
  const { before, after } = plan.effects[0] ?? {}
  expect(BigInt(before ?? 0) - BigInt(after ?? 0)).toBe(tebi)
  const full = { pools: [{ ...pool, writtenBytes: pool.usableBytes }] }
  expect((await split(full)).checks.find(each => each.rule === 'fits')?.holds).toBe(false)
})
