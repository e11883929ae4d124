import { one, those } from '@/core/estate'
import { spaceOf } from '@/core/snapshots'
import { evidenceOf } from '@/records/changes'
import { draftReverse } from '@/drafting'
import { blocks, factOf } from './testing/blocks'
import { tester } from './testing/workbench'

let bench: Awaited<ReturnType<typeof blocks>>
let ids: Awaited<ReturnType<typeof blocks>>['ids'] = {}
let agent: Awaited<ReturnType<typeof blocks>>['agent']
let done: Awaited<ReturnType<typeof blocks>>['done']
const mebibyte = 1_048_576

beforeAll(async () => {
  bench = await blocks()
  ;({ ids, agent, done } = bench)
})
afterAll(() => bench.close())

const range = (place: number) => ({ offsetBytes: `${place * mebibyte}`, lengthBytes: mebibyte })
const write = async (naa: string, place: number, seed: string, host = 'register-1') =>
  (await agent(host, `/devices/${naa}/write`, { ...range(place), seed })).sha256
const read = async (naa: string, place: number, host = 'register-1') =>
  (await agent(host, `/devices/${naa}/read`, range(place))).sha256

const volume = (id = ids['volume']) => bench.volume(id)
const snapshots = async () => (await bench.estate([those('snapshots', 'volumeId', ids['volume'])])).snapshots
const taken = async (name: string, reason = '') =>
  factOf(await done('take-snapshot', { volumeId: ids['volume'], name, reason }), 'snapshotId')
const refused = (kind: string, intent: object) => bench.refused(kind, intent)

test('a snapshot holds what had been written, is pending until the system says otherwise, and takes what is overwritten', async () => {
  const { naa = '' } = (await volume()) ?? {}
  ids['naa'] = naa
  const first = await write(naa, 3, 'first')
  ids['before'] = await taken('before', 'before the upgrade')
  const [seen] = await snapshots()
  expect(seen).toMatchObject({
    name: 'before',
    state: 'consistent',
    reason: 'before the upgrade',
    ownBytes: 0n,
    dueAt: null,
  })
  expect(Date.parse(seen?.takenAt ?? '')).toBeGreaterThan(0)
  await write(naa, 3, 'second')
  await write(naa, 4, 'fresh')
  ids['after'] = await taken('after')
  await write(naa, 3, 'third')
  await bench.until(async () => spaceOf(await snapshots()).totalBytes === 2n * BigInt(mebibyte), 'space of both')
  const space = spaceOf(await snapshots())
  expect(space.isExact).toBe(true)
  expect(space.ordered.map(({ name, ownBytes }) => [name, ownBytes])).toEqual([
    ['before', BigInt(mebibyte)],
    ['after', BigInt(mebibyte)],
  ])
  ids['first'] = first ?? ''
})

test('it is shown to a backup host, which reads the bytes of that moment and may not write', async () => {
  const intent = { volumeId: ids['volume'], snapshotId: ids['before'], hostGroupId: ids['backup'] }
  const shown = await done('show-snapshot', intent)
  const evidence = await evidenceOf({ database: bench.database }, shown.id)
  expect(evidence.map(each => each.claim)).toEqual([
    'keep-1 sees the volume with its full size',
    'A write from keep-1 is refused',
  ])
  const { naa = '' } = (await snapshots()).find(each => each.id === ids['before']) ?? {}
  expect(await read(naa, 3, 'keep-1')).toBe(ids['first'])
  expect((await agent('register-1', `/devices/${naa}/read`, range(3))).status).toBe(404)
  expect(
    await refused('remove-snapshots', { volumeId: ids['volume'], snapshotIds: [ids['before']], reason: '' }),
  ).toEqual(['not-shown'])
  await done('hide-snapshot', intent)
  expect((await agent('keep-1', `/devices/${naa}/read`, range(3))).status).toBe(404)
})

test('a clone is what its snapshot was, takes only what is written to it, and holds its snapshot', async () => {
  const clone = await done('clone-volume', {
    volumeId: ids['volume'],
    snapshotId: ids['before'],
    name: 'register-trial-01',
    poolId: '',
    hostGroupId: ids['catalogue'],
  })
  const claims = (await evidenceOf({ database: bench.database }, clone.id)).map(each => each.claim)
  expect(claims).toContain('register-2 reads the same bytes from the clone and the snapshot')
  ids['clone'] = factOf(clone, 'cloneId')
  const found = await volume(ids['clone'])
  expect(found).toMatchObject({ cloneOfId: ids['before'], writtenBytes: 0n })
  expect(await read(found?.naa ?? '', 3, 'register-2')).toBe(ids['first'])
  await write(found?.naa ?? '', 3, 'mine', 'register-2')
  expect(await read(ids['naa'] ?? '', 3)).not.toBe(await read(found?.naa ?? '', 3, 'register-2'))
  await bench.until(
    async () => (await volume(ids['clone']))?.writtenBytes === BigInt(mebibyte),
    'what it has written itself',
  )
  expect(
    await refused('remove-snapshots', { volumeId: ids['volume'], snapshotIds: [ids['before']], reason: '' }),
  ).toEqual(['no-clone'])
  // The snapshot was only shown for the proof.
  const { mappings } = await bench.estate([one('snapshots', ids['before'])])
  expect(mappings.filter(each => each.snapshotId !== null)).toEqual([])
})

test('split from its snapshot it stands alone; copied to another pool it does so by itself', async () => {
  const before = await read((await volume(ids['clone']))?.naa ?? '', 3, 'register-2')
  await done('split-clone', { volumeId: ids['clone'] })
  expect((await volume(ids['clone']))?.cloneOfId).toBeNull()
  expect(await read((await volume(ids['clone']))?.naa ?? '', 3, 'register-2')).toBe(before)
  const copy = await done('clone-volume', {
    volumeId: ids['volume'],
    snapshotId: '',
    name: 'register-copy-01',
    poolId: ids['other'],
    hostGroupId: ids['catalogue'],
  })
  const made = await volume(factOf(copy, 'cloneId'))
  expect(made).toMatchObject({ poolId: ids['other'], cloneOfId: null })
  expect(await read(made?.naa ?? '', 3, 'register-2')).toBe(await read(ids['naa'] ?? '', 3))
})

test('a volume is taken back to a snapshot, and again to what it was before that', async () => {
  const naa = ids['naa'] ?? ''
  const now = await read(naa, 3)
  const intent = { volumeId: ids['volume'], snapshotId: ids['before'], confirmedName: 'register-data-01' }
  expect(await refused('restore-volume', { ...intent, confirmedName: '' })).toEqual(['named'])
  const back = await done('restore-volume', intent)
  expect(await read(naa, 3)).toBe(ids['first'])
  const claims = (await evidenceOf({ database: bench.database }, back.id)).map(each => each.claim)
  expect(claims).toContain('register-1 reads the same bytes from the volume and the snapshot')
  const reverse = await draftReverse({ database: bench.database }, back.id, tester)
  expect(reverse?.kind).toBe('restore-volume')
  await done('restore-volume', { ...(reverse?.intent as object), confirmedName: 'register-data-01' })
  expect(await read(naa, 3)).toBe(now)
})

test('what is removed waits, can be brought back, and what is held stays', async () => {
  await done('hold-snapshot', { volumeId: ids['volume'], snapshotId: ids['after'], reason: 'for the audit' })
  expect(
    await refused('remove-snapshots', { volumeId: ids['volume'], snapshotIds: [ids['after']], reason: '' }),
  ).toEqual(['no-hold'])
  await done('hold-snapshot', { volumeId: ids['volume'], snapshotId: ids['after'], reason: '' })
  const gone = await done('remove-snapshots', {
    volumeId: ids['volume'],
    snapshotIds: [ids['after'], ids['before']],
    reason: '',
  })
  expect((await snapshots()).filter(each => each.goesAt !== null)).toHaveLength(2)
  const effect = gone.plan.effects.find(each => each.figure === 'snapshotBytes')
  expect(BigInt(effect?.before ?? 0)).toBeGreaterThan(BigInt(effect?.after ?? 0))
  await done('keep-snapshots', { volumeId: ids['volume'], snapshotIds: [ids['after'], ids['before']] })
  expect((await snapshots()).filter(each => each.goesAt !== null)).toEqual([])
})

test('names, sources and sizes that cannot be are refused by their rule', async () => {
  const clone = { volumeId: ids['volume'], snapshotId: ids['before'], name: 'x', poolId: '', hostGroupId: '' }
  expect(await refused('take-snapshot', { volumeId: ids['volume'], name: 'before', reason: '' })).toEqual(['name-free'])
  expect(await refused('take-snapshot', { volumeId: ids['volume'], name: '../x', reason: '' })).toEqual(['name'])
  expect(await refused('clone-volume', { ...clone, name: 'register-data-01' })).toEqual(['name-free'])
  expect(await refused('clone-volume', { ...clone, snapshotId: ids['volume'] })).toEqual(['snapshot'])
  expect(await refused('split-clone', { volumeId: ids['volume'] })).toEqual(['is-clone'])
  expect(await refused('keep-snapshots', { volumeId: ids['volume'], snapshotIds: [ids['before']] })).toEqual([
    'in-holding',
  ])
  await done('expand-volume', { volumeId: ids['volume'], size: '96 MiB' })
  const smaller = { volumeId: ids['volume'], snapshotId: ids['before'], confirmedName: 'register-data-01' }
  expect(await refused('restore-volume', smaller)).toEqual(['same-size'])
})

test('a volume with snapshots is not erased from under them', async () => {
  const { fleet } = bench
  const heron = fleet.arrays.find(array => array.model.name === 'heron')
  const held = heron?.all('volumes').find(each => each.name === 'register-data-01')
  const answer = await fetch(
    `http://127.0.0.1:${fleet.ports.arrays['heron']}/redfish/v1/Storage/1/Volumes/${held?.id}`,
    {
      method: 'DELETE',
      headers: { Authorization: `Basic ${Buffer.from('admin:heron-demo').toString('base64')}` },
    },
  )
  expect([409, 412, 428]).toContain(answer.status)
  expect(heron?.all('volumes').some(each => each.id === held?.id)).toBe(true)
})
