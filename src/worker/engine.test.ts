import { one, within } from '@/core/estate'
import { carryOut, planNow, resume, stop, wendrel } from '@/drafting'
import { inTransaction, rows } from '@/records/database'
import { backToDraft, changeById, evidenceOf, heldVolumesPast, insertDraft, journalOf } from '@/records/changes'
import { hold, noteReach, workerSilentSeconds } from '@/records/inventory'
import { run } from '@/records/database'
import { tester, workbench } from './testing/workbench'

type Bench = Awaited<ReturnType<typeof workbench>>
let bench: Bench
let systemId = ''
let poolId = ''
const fast = 36_000
beforeAll(async () => {
  bench = await workbench(fast)
  systemId = await bench.registered('heron')
  const { drives } = await bench.estate(within(systemId))
  const pool = await bench.carriedOut('create-pool', {
    systemId,
    name: 'bulk',
    driveIds: drives.slice(0, 12).map(drive => drive.id),
    scheme: { kind: 'parity', parityDrives: 2 },
    maxGroupDrives: 12,
    spareCount: 1,
    snapshotSharePercent: 0,
  })
  poolId = String(pool.facts['poolId'])
})
afterAll(() => bench.close())

const volume = (name: string, more: object = {}) => ({
  name,
  purpose: 'data',
  size: '40 GiB',
  poolId,
  isThin: true,
  hostGroupId: '',
  ...more,
})
const scope = () => ({ database: bench.database })
const stateOf = async (id: string) => (await changeById(scope(), id))?.state

test('many long tasks hold up nothing: what waits gives its slot back, and a short change goes through beside it', async () => {
  await bench.paced(1)
  const { drives } = await bench.estate(within(systemId))
  const free = drives.filter(drive => drive.role === 'unassigned').map(drive => drive.id)
  // Two pools take all free drives; each waits for its drives for the better part of an hour.
  const pools = [free.slice(0, 6), free.slice(6, 12)].map((driveIds, index) =>
    bench.begun('create-pool', {
      systemId,
      name: `slow-${index}`,
      driveIds,
      scheme: { kind: 'parity', parityDrives: 1 },
      maxGroupDrives: 6,
      spareCount: 0,
      snapshotSharePercent: 0,
    }),
  )
  const long = await Promise.all(pools)
  for (let index = 0; index < 10; index += 1)
    long.push(
      await bench
        .begun('provision-volume', volume(`zeroed-${index}`, { isThin: false, size: '900 GiB' }))
        .catch(() => ''),
    )
  const waiting = () =>
    rows<{ change_id: string }>(scope(), 'select change_id from change_waits where task is not null')
  await bench.until(async () => (await waiting()).length >= 2, 'long changes wait')
  const short = await bench.carriedOut('provision-volume', volume('short'))
  expect(short.state).toBe('proven')
  expect(short.tookSeconds).toBeLessThan(20)
  expect(await Promise.all(long.slice(0, 2).map(stateOf))).toEqual(['running', 'running'])

  // A stop takes effect at once where a change only waits.
  const [first = '', second = ''] = long
  await stop(scope(), first, tester)
  expect((await bench.ended(first)).state).toBe('stopped')
  await resume(bench.database, first, true, tester)
  expect((await bench.ended(first)).state).toBe('undone')
  bench.fleet.clock.setRate(fast)
  expect((await bench.ended(second)).state).toBe('proven')
})

test('two workers share systems and changes: each change is carried out once, and each system read by one', async () => {
  const other = await bench.anotherWorker()
  const drafts = await Promise.all(
    Array.from({ length: 8 }, (_, index) => bench.drafted('provision-volume', volume(`shared-${index}`))),
  )
  const begun: string[] = []
  for (const { id } of drafts) {
    const draft = await changeById(scope(), id)
    // Each provisioning changes the pool, so that the plans after it may have to be looked at again.
    await carryOut(bench.database, id, draft?.planDigest ?? '', tester).then(
      () => begun.push(id),
      () => undefined,
    )
  }
  const ended: string[] = []
  for (const id of begun) {
    // One whose plan rests on the pool as it was before another was carried out goes back to its maker.
    ended.push((await bench.ended(id)).state)
    const steps = (await journalOf(scope(), id)).filter(entry => entry.event === 'begun')
    expect(steps.map(entry => entry.stepIndex)).toEqual([...new Set(steps.map(entry => entry.stepIndex))])
  }
  expect(ended).toContain('proven')
  expect(ended.filter(state => state !== 'proven' && state !== 'draft')).toEqual([])
  const locks = await rows<{ count: number }>(
    scope(),
    `select count(*)::int as count from pg_locks join pg_stat_activity using (pid) where locktype = 'advisory' and application_name = 'wendrel leases' and database = (select oid from pg_database where datname = current_database())`,
  )
  // One system, the clock, what is measured, telling and directories, each held once between the two.
  expect(locks[0]?.count).toBe(5)
  await other.stop()
})

test('a database that refuses for a while ends nothing: the worker goes on by itself when it is back', async () => {
  const [found] = await rows<{ name: string }>(scope(), 'select current_database() as name')
  const draft = await bench.drafted('provision-volume', volume('after-the-outage'))
  await bench.refuseDatabase(found?.name ?? '', 6000)
  await bench.until(
    () =>
      carryOut(bench.database, draft.id, draft.planDigest, tester).then(
        () => true,
        () => false,
      ),
    'the database is back',
  )
  expect((await bench.ended(draft.id)).state).toBe('proven')
  expect(await workerSilentSeconds(scope())).toBeLessThan(30)
})

test('a volume whose holding is over on a system that does not answer drafts nothing, and holds up no other', async () => {
  const made = await bench.carriedOut('provision-volume', volume('overdue'))
  const volumeId = String(made.facts['volumeId'])
  const past = async () => (await heldVolumesPast(scope(), new Date('2999-01-01'), 20)).map(each => each.name)
  await hold(scope(), volumeId, new Date('2998-01-01'))
  expect(await past()).toContain('overdue')
  await noteReach(scope(), systemId, { code: 'connection.not-reached', why: 'away' })
  expect(await past()).toEqual([])
  await noteReach(scope(), systemId, null)
  // A deletion that has failed is not tried again at once.
  const failed = await bench.drafted('delete-held-volume', { volumeId })
  await run(scope(), `update changes set state = 'running' where id = $1`, [failed.id])
  await run(scope(), `update changes set state = 'failed', ended_at = now() where id = $1`, [failed.id])
  expect(await past()).toEqual([])
  await run(scope(), `update changes set ended_at = now() - interval '2 hours' where id = $1`, [failed.id])
  expect(await past()).toEqual(['overdue'])
  await run(scope(), `update volumes set state = 'in use', holding_until = null where id = $1`, [volumeId])
})

test('a deletion that a process drafted before it died is carried out by the next, and drafted once', async () => {
  const made = await bench.carriedOut('provision-volume', volume('left-in-draft'))
  const volumeId = String(made.facts['volumeId'])
  await hold(scope(), volumeId, new Date('2998-01-01'))
  // As it was planned when its time was over.
  await inTransaction(bench.database, async inside => {
    await hold(inside, volumeId, new Date('2000-01-01'))
    const intent = { volumeId }
    const plan = await planNow(inside, 'delete-held-volume', intent)
    await insertDraft(inside, { kind: 'delete-held-volume', intent, plan, madeBy: wendrel.name })
  })
  const tries = () =>
    rows<{ state: string }>(
      scope(),
      `select state from changes where kind = 'delete-held-volume' and intent ->> 'volumeId' = $1`,
      [volumeId],
    )
  await bench.until(async () => (await tries()).some(each => each.state === 'proven'), 'the volume is deleted')
  expect(await tries()).toEqual([{ state: 'proven' }])
})

test('several volumes are mapped in one change, and every host of the group is asked for each', async () => {
  const agentAddress = `http://127.0.0.1:${bench.fleet.ports.hosts['register-1']}`
  await bench.carriedOut('register-host', { agentAddress, groupName: 'register' })
  const hostGroupId = (await bench.estate()).hostGroups.find(group => group.name === 'register')?.id
  const made = [
    await bench.carriedOut('provision-volume', volume('first-of-two')),
    await bench.carriedOut('provision-volume', volume('second-of-two')),
  ]
  const volumeIds = made.map(change => String(change.facts['volumeId']))
  const change = await bench.carriedOut('map-volumes', { volumeIds, hostGroupId })
  expect(change).toMatchObject({ state: 'proven', title: 'Map two volumes to register' })
  const evidence = await evidenceOf(scope(), change.id)
  expect(evidence.map(each => [each.claim, each.holds])).toEqual([
    ['first-of-two: register-1 sees the volume with its full size', true],
    ['second-of-two: register-1 sees the volume with its full size', true],
  ])
  expect(evidence.map(each => each.measured['lun'])).toEqual(['0', '1'])
  const { mappings } = await bench.estate([one('volumes', volumeIds[0]), one('volumes', volumeIds[1])])
  expect(mappings.map(mapping => mapping.volumeId).sort()).toEqual([...volumeIds].sort())
})

test('a system is not taken out of the estate beside its changes', async () => {
  await bench.paced(1)
  const forgetting = await bench.drafted('forget-system', { systemId })
  const { drives } = await bench.estate(within(systemId))
  const id = await bench.begun('create-pool', {
    systemId,
    name: 'at-work',
    driveIds: drives
      .filter(drive => drive.role === 'unassigned')
      .slice(0, 4)
      .map(drive => drive.id),
    scheme: { kind: 'parity', parityDrives: 1 },
    maxGroupDrives: 6,
    spareCount: 0,
    snapshotSharePercent: 0,
  })
  const now = await changeById(scope(), forgetting.id)
  await expect(carryOut(bench.database, forgetting.id, now?.planDigest ?? '', tester)).rejects.toMatchObject({
    code: 'drafting.plan-stale',
    why: expect.stringContaining('is at work on it'),
  })
  bench.fleet.clock.setRate(fast)
  expect((await bench.ended(id)).state).toBe('proven')
})

test('what was altered since it was seen is not carried out; nor is an edit taken that rests on an older one', async () => {
  const { alterDraft } = await import('@/drafting')
  const seen = await bench.drafted('provision-volume', volume('seen', { size: '4 GiB' }))
  const altered = await alterDraft(scope(), seen.id, volume('seen', { size: '40 GiB' }), seen.edit, {
    name: 'mara',
    address: null,
  })
  await expect(carryOut(bench.database, seen.id, seen.planDigest, tester)).rejects.toMatchObject({
    code: 'drafting.other-plan',
    why: expect.stringContaining('mara'),
  })
  await expect(
    alterDraft(scope(), seen.id, volume('seen', { size: '5 GiB' }), seen.edit, tester),
  ).rejects.toMatchObject({
    code: 'drafting.edited-elsewhere',
  })
  // Two edits at the same moment: one is taken.
  const both = await Promise.allSettled(
    ['6 GiB', '7 GiB'].map(size => alterDraft(scope(), seen.id, volume('seen', { size }), altered.edit, tester)),
  )
  expect(both.map(each => each.status).sort()).toEqual(['fulfilled', 'rejected'])
})

test('a change that has begun in other hands is not put back to a draft by whoever has lost it', async () => {
  bench.fleet.clock.setRate(1)
  const id = await bench.begun('provision-volume', volume('slowly-zeroed', { isThin: false, size: '2 TiB' }))
  await bench.until(async () => (await journalOf(scope(), id)).length > 0, 'its first step has begun')
  const change = await changeById(scope(), id)
  if (change === undefined) throw new Error('The change is gone.')
  const back = () =>
    inTransaction(bench.database, within => backToDraft(within, change, change.plan, ['the estate has changed']))
  expect([await back(), await stateOf(id)]).toEqual([false, 'running'])
  bench.fleet.clock.setRate(fast)
  expect((await bench.ended(id)).state).toBe('proven')
  expect([await back(), await stateOf(id)]).toEqual([false, 'proven'])
})
