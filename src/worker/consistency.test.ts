import { those } from '@/core/estate'
import { blankIntent, defineClassIntent } from '@/core/intents'
import { draftReverse } from '@/drafting'
import { evidenceOf } from '@/records/changes'
import { blocks, factOf } from './testing/blocks'
import { tester } from './testing/workbench'

let bench: Awaited<ReturnType<typeof blocks>>
const mebibyte = 1_048_576
const names = ['ledger-data-01', 'ledger-data-02', 'ledger-log', 'ledger-meta']

beforeAll(async () => {
  bench = await blocks()
})
afterAll(() => bench.close())

const many = (more: object = {}) => ({
  list: 'ledger-data-{01..02}, 64 MiB\nledger-log, 32 MiB\nledger-meta, 32 MiB',
  classId: '',
  poolId: bench.ids['pool'],
  isThin: true,
  isTogether: true,
  hostGroupId: bench.ids['accession-register'],
  consistencyGroup: 'ledger',
  ...more,
})
const volumes = async () => (await bench.estate([those('volumes', 'name', ...names)])).volumes
const snapshots = async () => {
  const ids = (await volumes()).map(({ id }) => id)
  return (await bench.estate([those('snapshots', 'volumeId', ...ids)])).snapshots
}

test('the volumes of an application come as one set: made, mapped, and in one consistency group', async () => {
  const change = await bench.done('provision-volumes', many())
  const evidence = await evidenceOf({ database: bench.database }, change.id)
  expect(evidence.map(({ claim, holds }) => [claim, holds])).toContainEqual([
    'The consistency group ledger has all of them and no other',
    true,
  ])
  bench.ids['group'] = factOf(change, 'consistencyGroupId')
  expect((await volumes()).map(each => each.consistencyGroupId)).toEqual(names.map(() => bench.ids['group']))
  const again = many({ list: 'ledger-x-{01..02}, 1 GiB' })
  expect(await bench.refused('provision-volumes', again)).toEqual(['group-name-free'])
  expect(await bench.refused('provision-volumes', { ...again, consistencyGroup: '../x' })).toEqual(['group-name'])
  const single = { ...again, list: 'ledger-x, 1 GiB', consistencyGroup: 'single' }
  expect(await bench.refused('provision-volumes', single)).toEqual(['group-of-one-system'])
})

test('their snapshots are of one instant, and hold what had been written to each by then', async () => {
  const range = { offsetBytes: `${2 * mebibyte}`, lengthBytes: mebibyte }
  const written: (string | undefined)[] = []
  for (const { naa } of await volumes())
    written.push((await bench.agent('register-1', `/devices/${naa}/write`, { ...range, seed: naa })).sha256)
  const change = await bench.done('snapshot-group', {
    consistencyGroupId: bench.ids['group'],
    name: 'evening',
    reason: 'before the upgrade',
  })
  const taken = await snapshots()
  expect(taken.map(each => [each.name, each.state, each.reason])).toEqual(
    names.map(name => [`${name}.evening`, 'consistent', 'before the upgrade']),
  )
  expect(new Set(taken.map(each => each.takenAt)).size).toBe(1)
  expect(change.facts['takenAt']).toBe(taken[0]?.takenAt)
  for (const { naa } of await volumes())
    await bench.agent('register-1', `/devices/${naa}/write`, { ...range, seed: 'later' })
  for (const [index, { volumeId, id, naa }] of taken.entries()) {
    await bench.done('show-snapshot', { volumeId, snapshotId: id, hostGroupId: bench.ids['backup'] })
    expect((await bench.agent('keep-1', `/devices/${naa}/read`, range)).sha256).toBe(written[index])
  }
  expect(
    await bench.refused('snapshot-group', { consistencyGroupId: bench.ids['group'], name: 'evening', reason: '' }),
  ).toEqual(['name-free'])
})

test('a schedule takes them at one instant too', async () => {
  const made = await bench.done('define-class', {
    ...blankIntent(defineClassIntent),
    name: 'Ledgers',
    lossesSurvived: 2,
    media: 'SSD',
    snapshotRule: 'FREQ=HOURLY',
    timeZone: 'UTC',
    keepLast: 2,
  })
  const volumeIds = (await volumes()).map(({ id }) => id)
  await bench.done('set-volume-class', { volumeIds, classId: factOf(made, 'classId') })
  const scheduled = async () => (await snapshots()).filter(each => each.dueAt !== null && each.state === 'consistent')
  await bench.until(async () => (await scheduled()).length >= 8, 'two rounds of all four are taken')
  const byDue = new Map<string, Set<string | null>>()
  for (const { dueAt, takenAt } of await scheduled())
    byDue.set(dueAt ?? '', (byDue.get(dueAt ?? '') ?? new Set()).add(takenAt))
  expect([...byDue.values()].map(moments => moments.size)).toEqual([...byDue.keys()].map(() => 1))
  await bench.done('set-volume-class', { volumeIds, classId: '' })
})

test('what cannot be of one instant is refused by its rule', async () => {
  const volumeIds = (await volumes()).map(({ id }) => id)
  const group = (more: object) => ({ volumeIds: [bench.ids['volume']], name: 'other', ...more })
  expect(await bench.refused('form-consistency-group', group({}))).toEqual(['volumes'])
  expect(await bench.refused('form-consistency-group', group({ volumeIds }))).toEqual(['in-no-other'])
  expect(await bench.refused('form-consistency-group', group({ volumeIds, name: '' }))).toContain('name')
})

test('a group is dissolved, its volumes and their snapshots stay, and it is formed again', async () => {
  const before = (await snapshots()).length
  const change = await bench.done('dissolve-consistency-group', { consistencyGroupId: bench.ids['group'] })
  expect((await volumes()).map(each => each.consistencyGroupId)).toEqual(names.map(() => null))
  expect((await snapshots()).length).toBe(before)
  const reverse = await draftReverse({ database: bench.database }, change.id, tester)
  expect(reverse).toMatchObject({ kind: 'form-consistency-group', intent: { name: 'ledger' } })
  await bench.done('form-consistency-group', reverse.intent)
  const { consistencyGroups } = await bench.estate([those('consistencyGroups', 'name', 'ledger')])
  expect(consistencyGroups).toMatchObject([{ volumeCount: 4 }])
  // Whoever made a group of that name on the system itself: it is found, and not made twice.
  expect(bench.array.all('consistencyGroups')).toHaveLength(1)
})
