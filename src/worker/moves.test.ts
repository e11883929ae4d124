import { those } from '@/core/estate'
import { blankIntent, defineClassIntent } from '@/core/intents'
import { draftReverse, resume, stop } from '@/drafting'
import { evidenceOf } from '@/records/changes'
import { blocks, factOf } from './testing/blocks'
import { tester } from './testing/workbench'

let bench: Awaited<ReturnType<typeof blocks>>
const mebibyte = 1_048_576
const range = (place: number) => ({ offsetBytes: `${place * mebibyte}`, lengthBytes: mebibyte })

beforeAll(async () => {
  bench = await blocks()
})
afterAll(() => bench.close())

const intent = (more: object = {}) => ({
  volumeId: bench.ids['volume'],
  poolId: bench.ids['other'],
  classId: '',
  ratePercent: 30,
  ...more,
})
const entity = () => {
  const found = bench.array.all('volumes').find(each => each.name === 'register-data-01')
  if (found === undefined) throw new Error('The volume is gone.')
  return found
}
/** Accounts bytes to the volume, so that its move takes a while of the fleet's time. */
const account = (bytes: bigint) =>
  bench.array.store.commit([bench.array.entry('volumes', { ...entity(), workloadBytes: `${bytes}` })])
const poolName = () => bench.array.one('pools', entity().poolId).name
/** Begins a move at a pace at which it can be watched for a minute, and waits until it is on its way. */
async function onItsWay(more: object = {}): Promise<string> {
  account(400n * 10n ** 9n)
  bench.fleet.clock.setRate(60)
  await bench.until(async () => ((await bench.volume())?.writtenBytes ?? 0n) > 300n * 10n ** 9n, 'the bytes are seen')
  bench.fleet.clock.setRate(5)
  const id = await bench.begun('move-volume', intent(more))
  const isMoving = (task: { readonly work: string; readonly state: string; readonly workedSeconds: number }) =>
    task.work === 'move-volume' && task.state === 'Running' && task.workedSeconds > 0
  await bench.until(() => Promise.resolve(bench.array.all('tasks').some(isMoving)), 'it is on its way')
  return id
}

test('a volume moves while its host writes: what had been written is the same, and so is what is written meanwhile', async () => {
  const { naa } = (await bench.volume()) ?? { naa: '' }
  for (const place of [0, 7, 63])
    await bench.agent('register-1', `/devices/${naa}/write`, { ...range(place), seed: 'a' })
  const before = (await bench.agent('register-1', `/devices/${naa}/read`, range(7))).sha256
  const id = await onItsWay()
  expect([poolName(), entity().movingTo]).toEqual(['heron-fast-01', bench.array.all('pools')[1]?.id])
  const meanwhile = await bench.agent('register-1', `/devices/${naa}/write`, { ...range(9), seed: 'meanwhile' })
  bench.fleet.clock.setRate(36_000)
  expect(await bench.ended(id)).toMatchObject({ state: 'proven', facts: { fromPoolId: bench.ids['pool'] } })
  expect(poolName()).toBe('heron-fast-02')
  expect((await bench.volume())?.poolId).toBe(bench.ids['other'])
  expect((await bench.agent('register-1', `/devices/${naa}/read`, range(7))).sha256).toBe(before)
  expect((await bench.agent('register-1', `/devices/${naa}/read`, range(9))).sha256).toBe(meanwhile.sha256)
  const evidence = await evidenceOf({ database: bench.database }, id)
  expect(evidence.map(({ claim, holds }) => [claim, holds])).toEqual([
    ['The system states that it comes from its new pool, under its own WWN and with its size', true],
    ['register-1 sees the volume with its full size', true],
    ['register-1 reads from its new pool what it read before the move', true],
  ])
  const back = await draftReverse({ database: bench.database }, id, tester)
  expect(back.intent).toMatchObject({ poolId: bench.ids['pool'] })
})

test('what is on its way takes room at both ends; stopped and undone it stays where it was, and the room is given back', async () => {
  await bench.done('move-volume', intent({ poolId: bench.ids['pool'] }))
  const free = async () => {
    const { pools } = await bench.estate()
    return pools.find(each => each.id === bench.ids['other'])?.writtenBytes ?? 0n
  }
  const id = await onItsWay()
  await bench.until(async () => (await free()) > 10n * 10n ** 9n, 'room is taken in the other pool')
  await stop({ database: bench.database }, id, tester)
  const stopped = await bench.ended(id)
  expect(stopped.state).toBe('stopped')
  await resume(bench.database, id, true, tester)
  await bench.until(async () => (await bench.ended(id)).state === 'undone', 'it is taken back')
  expect([poolName(), entity().movingTo]).toEqual(['heron-fast-01', undefined])
  await bench.until(async () => (await free()) < 10n * 10n ** 9n, 'the room is given back')
  const { snapshots } = await bench.estate([those('snapshots', 'volumeId', bench.ids['volume'])])
  expect(snapshots.every(each => each.name !== 'register-data-01.before-move-03')).toBe(true)
})

test('a worker that is killed on the way finds the move again, and asks for it once', async () => {
  const id = await onItsWay()
  await bench.restartWorker()
  bench.fleet.clock.setRate(36_000)
  expect(await bench.ended(id)).toMatchObject({ state: 'proven' })
  const asked = bench.array.all('tasks').filter(task => task.work === 'move-volume')
  expect(asked.filter(task => task.state === 'Completed')).toHaveLength(3)
  expect(asked.filter(task => task.state === 'Cancelled')).toHaveLength(1)
})

test('a target that dies on the way leaves the volume where it was', async () => {
  await bench.done('move-volume', intent({ poolId: bench.ids['pool'] }))
  const id = await onItsWay()
  const pool = bench.array.all('pools').find(each => each.name === 'heron-fast-02')
  const victims = (pool?.groups[0] ?? []).slice(0, 3).map(each => bench.array.one('drives', each))
  bench.array.store.commit(victims.map(each => bench.array.entry('drives', { ...each, isFailed: true })))
  const change = await bench.ended(id)
  expect(change).toMatchObject({ state: 'failed', refusal: { code: 'change.task-failed' } })
  expect(change.refusal?.why).toContain('Pool heron-fast-02 has failed.')
  expect([poolName(), entity().movingTo]).toEqual(['heron-fast-01', undefined])
  const { naa } = (await bench.volume()) ?? { naa: '' }
  expect((await bench.agent('register-1', `/devices/${naa}/read`, range(7))).status).toBe(200)
  await bench.until(async () => {
    const { pools } = await bench.estate()
    return pools.find(each => each.id === bench.ids['other'])?.state === 'failed'
  }, 'the pool is known to have failed')
  expect(await bench.refused('move-volume', intent())).toContain('pool')
  bench.array.store.commit(victims.map(each => bench.array.entry('drives', { ...each, isFailed: false })))
  await bench.until(async () => {
    const { pools } = await bench.estate()
    return pools.find(each => each.id === bench.ids['other'])?.state === 'fine'
  }, 'the pool is fine again')
})

test('under another class it finds its place by itself, and is under it afterwards', async () => {
  bench.fleet.clock.setRate(36_000)
  const made = await bench.done('define-class', {
    ...blankIntent(defineClassIntent),
    name: 'Registers',
    lossesSurvived: 2,
    media: 'SSD',
    timeZone: 'UTC',
    holdingDays: 7,
  })
  const change = await bench.done('move-volume', intent({ poolId: '', classId: factOf(made, 'classId') }))
  expect(change.title).toBe('Move register-data-01 to heron-fast-02')
  expect(await bench.volume()).toMatchObject({ poolId: bench.ids['other'], classId: factOf(made, 'classId') })
  // Its other pool is on flash; a class of disks finds none.
  const onDisks = { ...blankIntent(defineClassIntent), name: 'Slow', media: 'HDD', timeZone: 'UTC', holdingDays: 7 }
  const disks = await bench.done('define-class', onDisks)
  expect(await bench.refused('move-volume', intent({ poolId: '', classId: factOf(disks, 'classId') }))).toEqual([
    'pool',
  ])
})

test('what cannot move is refused by its rule', async () => {
  expect(await bench.refused('move-volume', intent())).toEqual(['pool'])
  expect(await bench.refused('move-volume', intent({ volumeId: '' }))).toContain('volume')
  const { facts } = await bench.done('take-snapshot', { volumeId: bench.ids['volume'], name: 'for-clone', reason: '' })
  await bench.done('clone-volume', {
    volumeId: bench.ids['volume'],
    snapshotId: factOf({ facts }, 'snapshotId'),
    name: 'register-copy',
    poolId: '',
    hostGroupId: '',
  })
  expect(await bench.refused('move-volume', intent({ poolId: bench.ids['pool'] }))).toEqual(['alone'])
  const clone = (await bench.estate([those('volumes', 'name', 'register-copy')])).volumes[0]
  expect(await bench.refused('move-volume', intent({ volumeId: clone?.id, poolId: bench.ids['pool'] }))).toEqual([
    'alone',
  ])
})

test('a limit is proven by a host that asks for more and does not get it; one that the system only states is not', async () => {
  const limited = { volumeId: bench.ids['volume'], mostRequests: 200, mostThroughput: '8 MiB' }
  const change = await bench.done('limit-volume', limited)
  expect((await bench.volume())?.limits).toEqual({ requestsPerSecond: 200, bytesPerSecond: 8 * mebibyte })
  const evidence = await evidenceOf({ database: bench.database }, change.id)
  expect(evidence.map(({ claim, holds }) => [claim, holds])).toEqual([
    ['The system states the limit for the volume of this WWN', true],
    ['register-1, which reads as fast as it can, gets no more than 200 requests a second', true],
    [`register-1, which reads as fast as it can, gets no more than ${8 * mebibyte} bytes a second`, true],
  ])
  expect(evidence[1]?.measured).toMatchObject({ requests: '1000', seconds: '5.00' })
  bench.fleet.faults.inject({
    ...{
      target: 'heron',
      kind: 'limit-ignored',
      milliseconds: 0,
      retryAfterSeconds: 0,
      atRatio: 0,
      drive: '',
      times: 0,
    },
  })
  const unproven = await bench.carriedOut('limit-volume', { ...limited, mostRequests: 100, mostThroughput: '' })
  bench.fleet.faults.clear()
  expect(unproven.state).toBe('unproven')
  const back = await draftReverse({ database: bench.database }, change.id, tester)
  expect(back.intent).toEqual({ volumeId: bench.ids['volume'], mostRequests: null, mostThroughput: '' })
  await bench.done('limit-volume', back.intent)
  expect((await bench.volume())?.limits).toEqual({ requestsPerSecond: null, bytesPerSecond: null })
})
