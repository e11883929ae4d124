import { those, within } from '@/core/estate'
import { blankIntent, defineClassIntent } from '@/core/intents'
import { draftReverse, resume, stop } from '@/drafting'
import { evidenceOf } from '@/records/changes'
import { estateNow } from '@/records/inventory'
import { standingFindings, volumePage } from '@/records/queries'
import { blocks, factOf } from './testing/blocks'
import { tester } from './testing/workbench'

let bench: Awaited<ReturnType<typeof blocks>>
const mebibyte = 1_048_576
const range = (place: number) => ({ offsetBytes: `${place * mebibyte}`, lengthBytes: mebibyte })
const wait = 240_000
const fault = { target: 'curlew', milliseconds: 0, retryAfterSeconds: 0, atRatio: 0, drive: '', times: 0 }
let moved = ''

beforeAll(async () => {
  bench = await blocks()
  const curlew = await bench.registered('curlew')
  const { drives } = await bench.estate(within(curlew))
  const pool = await bench.done('create-pool', {
    systemId: curlew,
    name: 'curlew-fast-01',
    driveIds: drives.slice(0, 8).map(each => each.id),
    scheme: { kind: 'parity', parityDrives: 2 },
    maxGroupDrives: 12,
    spareCount: 0,
    snapshotSharePercent: 10,
  })
  bench.ids['curlew'] = curlew
  bench.ids['far'] = factOf(pool, 'poolId')
}, wait)
afterAll(() => bench.close())

const there = () => {
  const found = bench.fleet.arrays.find(each => each.model.name === 'curlew')
  if (found === undefined) throw new Error('The fleet has no curlew.')
  return found
}
const intent = (more: object = {}) => ({
  volumeId: bench.ids['volume'],
  poolId: bench.ids['far'],
  ratePercent: 30,
  ...more,
})
const at = (array: typeof bench.array) => array.all('volumes').find(each => each.name === 'register-data-01')
const disk = async () => `/devices/${(await bench.volume())?.naa ?? ''}`
/** Accounts bytes to the volume, so that its mirror takes a while of the fleet's time. */
async function heavy(): Promise<void> {
  const here = at(bench.array)
  if (here === undefined) throw new Error('The volume is gone.')
  bench.array.store.commit([bench.array.entry('volumes', { ...here, workloadBytes: `${400n * 10n ** 9n}` })])
  bench.fleet.clock.setRate(60)
  await bench.until(async () => ((await bench.volume())?.writtenBytes ?? 0n) > 300n * 10n ** 9n, 'the bytes are seen')
}
async function onItsWay(): Promise<string> {
  await heavy()
  bench.fleet.clock.setRate(5)
  const id = await bench.begun('move-to-system', intent())
  await bench.until(
    async () => bench.array.all('tasks').some(each => each.work === 'mirror-volume' && each.state === 'Running'),
    'it is being mirrored',
  )
  return id
}

test('what cannot be moved there is refused by its rule', async () => {
  expect(await bench.refused('move-to-system', intent({ poolId: '' }))).toEqual(['pool'])
  expect(await bench.refused('move-to-system', intent({ poolId: bench.ids['other'] }))).toEqual(['pool'])
  expect(await bench.refused('move-to-system', intent({ volumeId: '' }))).toContain('volume')
})

test(
  'a target that dies while it is filled leaves the volume where it was, and nothing half there',
  async () => {
    const { length } = there().all('volumes')
    const id = await onItsWay()
    bench.fleet.faults.inject({ ...fault, kind: 'not-answering' })
    await bench.until(async () => at(bench.array)?.mirror === undefined, 'the mirror is given up')
    expect((await bench.agent('register-1', `${await disk()}/write`, { ...range(3), seed: 'meanwhile' })).status).toBe(
      200,
    )
    bench.fleet.faults.clear()
    const change = await bench.ended(id)
    expect(change).toMatchObject({ state: 'failed', refusal: { code: 'change.task-failed' } })
    expect(change.refusal?.why).toContain('curlew does not answer.')
    expect(there().all('volumes')).toHaveLength(length)
    expect((await bench.volume())?.systemId).toBe(bench.ids['heron'])
  },
  wait,
)

test(
  'stopped while it is filled and taken back, it stays where it was',
  async () => {
    const id = await onItsWay()
    await stop({ database: bench.database }, id, tester)
    expect((await bench.ended(id)).state).toBe('stopped')
    await resume(bench.database, id, true, tester)
    await bench.until(async () => (await bench.ended(id)).state === 'undone', 'it is taken back')
    expect([at(bench.array)?.mirror, there().all('volumes')]).toEqual([undefined, []])
  },
  wait,
)

test(
  'it moves while its host writes, under its WWN, and what it was stays in holding',
  async () => {
    const before = await bench.volume()
    const snapshot = await bench.done('take-snapshot', {
      ...{ volumeId: bench.ids['volume'], name: 'register-data-01.monday', reason: '' },
    })
    const written = await bench.agent('register-1', `${await disk()}/write`, { ...range(7), seed: 'before' })
    const id = await onItsWay()
    const meanwhile = await bench.agent('register-1', `${await disk()}/write`, { ...range(9), seed: 'meanwhile' })
    await bench.restartWorker()
    bench.fleet.clock.setRate(36_000)
    const change = await bench.ended(id)
    expect([change.state, change.refusal?.why]).toEqual(['proven', undefined])
    moved = id
    const now = await bench.volume()
    expect(now).toMatchObject({
      systemId: bench.ids['curlew'],
      poolId: bench.ids['far'],
      naa: before?.naa,
      state: 'in use',
    })
    for (const [place, { sha256 }] of [
      [7, written],
      [9, meanwhile],
    ] as const)
      expect((await bench.agent('register-1', `${await disk()}/read`, range(place))).sha256).toBe(sha256)
    const evidence = await evidenceOf({ database: bench.database }, id)
    expect(evidence.map(({ claim, holds }) => [claim, holds])).toEqual([
      ['Its new system states it in its pool, under its own WWN and with its size, mirrored to nobody', true],
      ['Its old system keeps what it was under another WWN, and shows it to nobody', true],
      ['register-1 sees it with its full size, by ways to its new system only', true],
      ['register-1 reads from its new system what the old one held at that instant', true],
    ])
    const former = await bench.volume(factOf(change, 'formerId'))
    expect(former).toMatchObject({
      ...{ name: 'register-data-01.moved-away-01', systemId: bench.ids['heron'], state: 'holding' },
    })
    const { snapshots } = await bench.estate([those('snapshots', 'id', factOf(snapshot, 'snapshotId'))])
    expect(snapshots.map(({ volumeId }) => volumeId)).toEqual([former?.id])
  },
  wait,
)

test(
  'afterwards it is moved back the same way',
  async () => {
    const back = await draftReverse({ database: bench.database }, moved, tester)
    expect(back.intent).toMatchObject({ poolId: bench.ids['pool'] })
    await bench.done('move-to-system', back.intent as object)
    expect(await bench.volume()).toMatchObject({ systemId: bench.ids['heron'], poolId: bench.ids['pool'] })
  },
  wait,
)

test(
  'taken back after the switch, its hosts read and write it where it was, and it has gone from the other system',
  async () => {
    const before = await bench.volume()
    const id = await onItsWay()
    bench.fleet.clock.setRate(36_000)
    await bench.until(async () => at(bench.array)?.mirror?.state === 'synchronised', 'both hold the same')
    while (at(bench.array)?.mirror?.role === 'source') await new Promise(done => setTimeout(done, 1))
    bench.fleet.faults.inject({ ...fault, kind: 'not-answering' })
    await stop({ database: bench.database }, id, tester)
    expect((await bench.ended(id)).state).toBe('stopped')
    bench.fleet.faults.clear()
    await resume(bench.database, id, true, tester)
    await bench.until(async () => (await bench.ended(id)).state === 'undone', 'it is taken back')
    expect(await bench.volume()).toMatchObject({
      ...{ systemId: before?.systemId, locator: before?.locator, naa: before?.naa },
    })
    expect([at(bench.array)?.mirror, at(there())]).toEqual([undefined, undefined])
    const { sha256, status } = await bench.agent('register-1', `${await disk()}/write`, { ...range(5), seed: 'again' })
    expect(status).toBe(200)
    expect((await bench.agent('register-1', `${await disk()}/read`, range(5))).sha256).toBe(sha256)
  },
  wait,
)

test(
  'it is not switched where a host has no way to the other system',
  async () => {
    const id = await onItsWay()
    for (const controller of ['A', 'B']) bench.fleet.faults.inject({ ...fault, kind: 'controller-down', controller })
    bench.fleet.clock.setRate(36_000)
    const change = await bench.ended(id)
    bench.fleet.faults.clear()
    expect(change).toMatchObject({ state: 'failed', refusal: { code: 'host.refused' } })
    expect(await bench.volume()).toMatchObject({ systemId: bench.ids['heron'] })
    expect((await bench.agent('register-1', `${await disk()}/read`, range(7))).status).toBe(200)
    expect([at(bench.array)?.mirror, at(there())]).toEqual([undefined, undefined])
  },
  wait,
)

test(
  'a class that promises a copy elsewhere is kept by a mirror, broken where it breaks, and the mirror ends on its word',
  async () => {
    const made = await bench.done('define-class', {
      ...blankIntent(defineClassIntent),
      ...{ name: 'Never lost', media: 'any', timeZone: 'UTC', holdingDays: 7, copyWithinMinutes: 0 },
      defaultGroupId: bench.ids['accession-register'],
    })
    const classId = factOf(made, 'classId')
    const intentOf = {
      name: 'register-log-01',
      purpose: 'log',
      size: '32 MiB',
      poolId: bench.ids['pool'],
      isThin: true,
    }
    const volume = await bench.done('provision-volume', { ...intentOf, hostGroupId: '', classId })
    const volumeId = factOf(volume, 'volumeId')
    expect(volume.title).toBe('Provision register-log-01 to accession-register')
    const promise = async () => {
      const page = await volumePage({ database: bench.database }, volumeId)
      return page?.promises.find(each => each.promise === 'copy')?.state
    }
    expect(await promise()).toBe('broken')
    const mirror = { volumeId, poolId: bench.ids['far'], ratePercent: 30 }
    await bench.done('mirror-volume', mirror)
    expect(await promise()).toBe('kept')
    const follower = await bench.estate([those('volumes', 'name', 'register-log-01')])
    const far = follower.volumes.find(each => each.systemId === bench.ids['curlew'])
    expect(far?.mirror).toMatchObject({ role: 'target', state: 'alike' })
    // Each way stands once, though both systems have a volume of that WWN.
    const page = await volumePage({ database: bench.database }, volumeId)
    expect(new Set(page?.ways.map(({ hostId, systemName }) => `${hostId} ${systemName}`)).size).toBe(page?.ways.length)
    expect(await bench.refused('expand-volume', { volumeId: far?.id, size: '1 GiB' })).toContain('volume')
    expect(await bench.refused('mirror-volume', mirror)).toContain('not-mirrored')
    expect(await bench.refused('move-to-system', mirror)).toContain('not-mirrored')
    bench.fleet.faults.inject({ ...fault, kind: 'not-answering' })
    const { naa } = (await bench.volume(volumeId)) ?? { naa: '' }
    const written = await bench.agent('register-1', `/devices/${naa}/write`, { ...range(2), seed: 'alone' })
    bench.fleet.faults.clear()
    expect(written.status).toBe(200)
    await bench.until(async () => (await promise()) === 'broken', 'it is known to be broken')
    const told = async () =>
      (await standingFindings({ database: bench.database }, null)).find(each => each.finding.check === 'mirror-broken')
    await bench.until(async () => (await told()) !== undefined, 'it is told of')
    expect((await told())?.finding).toMatchObject({
      title: 'The mirror of register-log-01 on curlew is broken',
      draft: { kind: 'refill-mirror', intent: { volumeId } },
    })
    const refill = { volumeId, ratePercent: 30 }
    expect(await bench.refused('refill-mirror', { ...refill, volumeId: bench.ids['volume'] })).toEqual(['mirrored'])
    const refilled = await bench.done('refill-mirror', refill)
    // What was written while it was broken has come over.
    const ends = [bench.array, there()].map(array => {
      const one = array.all('volumes').find(each => each.name === 'register-log-01')
      return array.blocks.read(one?.id ?? '', BigInt(2 * mebibyte), 64).toString('hex')
    })
    expect([ends[0], ends[0] === '00'.repeat(64)]).toEqual([ends[1], false])
    expect(await evidenceOf({ database: bench.database }, refilled.id)).toMatchObject([
      { holds: true },
      { holds: true },
    ])
    expect(await promise()).toBe('kept')
    await bench.until(async () => (await told()) === undefined, 'its finding is over')
    expect(await bench.refused('refill-mirror', refill)).toEqual(['broken'])
    // Seven days in holding are over within seconds at the pace of the fleet.
    bench.fleet.clock.setRate(60)
    const behind = async () =>
      Math.abs(bench.fleet.clock.now() - (await estateNow({ database: bench.database })).getTime())
    await bench.until(async () => (await behind()) < 3_600_000, 'the estate keeps the time of its systems')
    const ended = await bench.done('end-mirror', { volumeId })
    expect((await bench.volume(volumeId))?.mirror).toBeNull()
    expect(await bench.volume(factOf(ended, 'farId'))).toMatchObject({
      state: 'holding',
      naa: factOf(ended, 'farNaa'),
      mirror: null,
    })
    expect(await bench.refused('end-mirror', { volumeId })).toEqual(['mirrored'])
  },
  wait,
)
