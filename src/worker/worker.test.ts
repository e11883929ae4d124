import type { ChangeRecord } from '@/core/views'
import { randomBytes } from 'node:crypto'
import { mkdtempSync, rmSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { setTimeout as pause } from 'node:timers/promises'
import type { Sequelize } from 'sequelize'
import { identify, protocolNamed } from '@/connectors'
import { emptyEstate, one, type EstateNeeds, within } from '@/core/estate'
import { alterDraft, carryOut, draftReverse, makeDraft, resume, stop } from '@/drafting'
import { loadEstate, setSetting } from '@/records'
import { changeById, evidenceOf, forecastOutcomes, journalOf, latestChanges } from '@/records/changes'
import { estateClock, keepProbe } from '@/records/inventory'
import { freshDatabase } from '@/records/testing'
import { anyPorts, startFleet, type Fleet } from '@/standins'
import type { FaultKind } from '@/standins/fleet'
import { startWorker } from './startWorker'

const key = randomBytes(32)
const tester = { name: 'tester', address: null }
const never = new AbortController().signal
let folder: string
let fleet: Fleet
let records: Awaited<ReturnType<typeof freshDatabase>>
let database: Sequelize
let worker: Awaited<ReturnType<typeof startWorker>> | undefined
const ids: Record<string, string> = {}

beforeAll(async () => {
  folder = mkdtempSync(join(tmpdir(), 'fleet-'))
  fleet = await startFleet(folder, anyPorts, 36_000)
  records = await freshDatabase()
  database = records.database
  await setSetting({ database }, 'addresses', '127.0.0.0/8')
  await setSetting({ database }, 'estate-clock', 'systems')
  await start()
})
afterAll(async () => {
  await worker?.stop()
  await fleet.stop()
  await records.close()
  rmSync(folder, { recursive: true })
})

const start = async () => {
  worker = await startWorker(records.url, key, () => undefined, { pace: 5, meterPace: 0.02 })
}
const strike = (kind: FaultKind, times = 1, atRatio = 0.7) =>
  fleet.faults.inject({ target: 'heron', kind, milliseconds: 20, retryAfterSeconds: 0.05, atRatio, drive: '', times })
const estate = (needs: EstateNeeds = []) => loadEstate({ database }, needs, '')

async function ended(id: string): Promise<ChangeRecord> {
  for (let waited = 0; waited < 120_000; waited += 60) {
    const change = await changeById({ database }, id)
    if (change !== undefined && change.state !== 'running') return change
    await pause(60)
  }
  throw new Error(`The change did not end: ${JSON.stringify(await journalOf({ database }, id))}`)
}

async function carriedOut(kind: string, intent: object): Promise<ChangeRecord> {
  const draft = await makeDraft({ database }, kind, intent, tester)
  await carryOut(database, draft.id, draft.planDigest, tester)
  return ended(draft.id)
}

const poolIntent = async (name: string, from: number, count: number) => {
  const { drives } = await estate(within(ids['heron']))
  return {
    systemId: ids['heron'],
    name,
    driveIds: drives.slice(from, from + count).map(drive => drive.id),
    scheme: { kind: 'parity', parityDrives: 2 },
    maxGroupDrives: 12,
    spareCount: 1,
    snapshotSharePercent: 10,
  }
}
const volumeIntent = (name: string, more: object = {}) => ({
  name,
  purpose: 'data',
  size: '4 TiB',
  poolId: ids['pool'],
  isThin: true,
  hostGroupId: ids['group'],
  ...more,
})

test('a system is registered and proven by its serial numbers', async () => {
  const address = `http://127.0.0.1:${fleet.ports.arrays['heron']}`
  const access = { userName: 'admin', password: 'heron-demo' }
  const endpoint = { address, acceptedFingerprint: null }
  const { protocol, identity } = await identify(endpoint, never)
  const found = await protocolNamed(protocol).lookAt(endpoint, identity, access, never)
  const probeId = await keepProbe(
    { database },
    key,
    found,
    { protocol, ...endpoint, ...access, uuid: found.uuid },
    'tester',
  )
  const intent = { probeId, name: 'heron', siteId: '', isPlainHttpAccepted: false, acceptedFingerprint: '' }
  const draft = await makeDraft({ database }, 'register-system', intent, tester)
  await expect(carryOut(database, draft.id, draft.planDigest, tester)).rejects.toMatchObject({
    code: 'drafting.not-ready',
    why: expect.stringContaining('plain HTTP'),
  })
  const accepted = await alterDraft(
    { database },
    draft.id,
    { ...intent, isPlainHttpAccepted: true },
    draft.edit,
    tester,
  )
  await carryOut(database, draft.id, accepted.planDigest, tester)
  const change = await ended(draft.id)
  expect(change).toMatchObject({ state: 'proven', refusal: null })
  expect((await evidenceOf({ database }, draft.id)).map(entry => entry.holds)).toEqual([true, true])
  ids['heron'] = (await estate()).systems[0]?.id ?? ''
  while ((await estateClock({ database })).rate < 30_000) await pause(100)
  expect((await estate(within(ids['heron']))).drives).toHaveLength(24)
  const again = await makeDraft(
    { database },
    'register-system',
    { ...intent, isPlainHttpAccepted: true, name: 'heron-2' },
    tester,
  )
  expect(again.plan.checks.find(check => check.rule === 'new')).toMatchObject({
    holds: false,
    why: expect.stringContaining('registered already, as heron'),
  })
})

test('hosts join their groups', async () => {
  for (const [host, groupName] of [
    ['register-1', 'accession-register'],
    ['desk-1', 'reading-room'],
    ['kiosk-7', 'kiosk'],
  ] as const) {
    expect(
      await carriedOut('register-host', { agentAddress: `http://127.0.0.1:${fleet.ports.hosts[host]}`, groupName }),
    ).toMatchObject({ state: 'proven' })
  }
  ids['group'] = (await estate()).hostGroups.find(group => group.name === 'accession-register')?.id ?? ''
})

test('a pool is built, and the forecast kept beside what happened', async () => {
  const change = await carriedOut('create-pool', await poolIntent('heron-fast-01', 0, 12))
  expect(change).toMatchObject({ state: 'proven', stands: null })
  ids['pool'] = (await estate()).pools[0]?.id ?? ''
  expect((await estate()).pools[0]).toMatchObject({
    name: 'heron-fast-01',
    state: 'fine',
    groupSizes: [11],
    spareCount: 1,
  })
  const [outcome] = await forecastOutcomes({ database })
  expect(outcome?.actual).toBeGreaterThan(1000)
  // What the system worked is told by its own clock, once.
  const waited = (await journalOf({ database }, change.id)).filter(entry => entry.event === 'waited')
  expect(waited).toEqual([expect.objectContaining({ stepIndex: 1, doneRatio: 1 })])
})

test('a thin volume is proven by a write and read-back through its mapping, and hidden from others', async () => {
  const change = await carriedOut('provision-volume', volumeIntent('register-data-01'))
  expect(change).toMatchObject({ state: 'proven' })
  const evidence = await evidenceOf({ database }, change.id)
  expect(evidence.filter(entry => entry.claim.includes('reads the same back'))).toHaveLength(3)
  expect(evidence.find(entry => entry.claim.includes('not in the group'))).toMatchObject({ holds: true })
  expect(evidence.every(entry => entry.holds)).toBe(true)
  ids['volume'] = String(change.facts['volumeId'])
  expect((await estate([one('volumes', ids['volume'])])).mappings).toEqual([
    expect.objectContaining({ hostGroupId: ids['group'], lun: 0 }),
  ])
})

test.each([
  [{ size: '4' }, 'size-unit'],
  [{ size: '0 GiB' }, 'size-above-zero'],
  [{ size: '16 PiB' }, 'size-statable'],
  [{ size: '900 TiB', isThin: false }, 'fits'],
  [{ name: 'register-data-01' }, 'name-free'],
  [{ name: "x'; drop table volumes; --" }, 'name'],
  [{ name: 'x'.repeat(200) }, 'name'],
])('a volume of %j is refused by the rule %s, and the draft is kept', async (more, rule) => {
  const draft = await makeDraft({ database }, 'provision-volume', volumeIntent('other', more), tester)
  expect(draft.plan.checks.find(check => check.rule === rule)).toMatchObject({ holds: false, level: 'must' })
  await expect(carryOut(database, draft.id, draft.planDigest, tester)).rejects.toMatchObject({
    code: 'drafting.not-ready',
  })
  expect(await changeById({ database }, draft.id)).toMatchObject({
    state: 'draft',
    intent: expect.objectContaining(more),
  })
})

test('a thin volume larger than its pool warns with the over-commit; a host without initiators is refused', async () => {
  const large = await makeDraft({ database }, 'provision-volume', volumeIntent('large', { size: '900 TiB' }), tester)
  expect(large.plan.checks.find(check => check.rule === 'overcommit')).toMatchObject({ holds: false, level: 'warn' })
  expect(large.plan.effects.find(effect => effect.figure === 'overcommit')?.after).toBeGreaterThan(10)
  const kiosk = (await estate()).hostGroups.find(group => group.name === 'kiosk')?.id
  const blind = await makeDraft({ database }, 'provision-volume', volumeIntent('blind', { hostGroupId: kiosk }), tester)
  expect(blind.plan.checks.find(check => check.rule === 'initiators')).toMatchObject({ holds: false, level: 'must' })
})

test('of two plans that conflict one wins, and the other is told what changed', async () => {
  const intent = await poolIntent('contested', 12, 6)
  const [mine, theirs] = [
    await makeDraft({ database }, 'create-pool', intent, { name: 'one', address: null }),
    await makeDraft({ database }, 'create-pool', { ...intent, name: 'contested-2' }, { name: 'two', address: null }),
  ]
  const outcomes = await Promise.allSettled([
    carryOut(database, mine.id, mine.planDigest, tester),
    carryOut(database, theirs.id, theirs.planDigest, tester),
  ])
  expect(outcomes.map(outcome => outcome.status).sort()).toEqual(['fulfilled', 'rejected'])
  const loser = outcomes[0]?.status === 'rejected' ? mine : theirs
  const winner = loser === mine ? theirs : mine
  expect(outcomes.find(outcome => outcome.status === 'rejected')).toMatchObject({
    reason: { code: 'drafting.plan-stale', why: expect.stringContaining('at work on') },
  })
  expect((await changeById({ database }, loser.id))?.differences.length).toBeGreaterThan(0)
  expect(await ended(winner.id)).toMatchObject({ state: 'proven' })
  const after = await alterDraft({ database }, loser.id, loser.intent, loser.edit, tester)
  expect(after.plan.checks.find(check => check.rule === 'drives-free')).toMatchObject({
    holds: false,
    why: expect.stringContaining('In use meanwhile'),
  })
  const reverse = await draftReverse({ database }, winner.id, { name: 'one', address: null })
  await carryOut(database, reverse.id, reverse.planDigest, tester)
  expect(await ended(reverse.id)).toMatchObject({ state: 'proven' })
})

test('a task that fails is taken back: nothing stands, the drives are free again', async () => {
  strike('task-fails')
  const change = await carriedOut('create-pool', await poolIntent('doomed', 12, 6))
  expect(change).toMatchObject({
    state: 'failed',
    refusal: { code: 'change.task-failed', why: expect.stringContaining('internal error') },
    stands: expect.stringContaining('Nothing stands'),
  })
  expect((await estate()).pools.map(pool => pool.name)).toEqual(['heron-fast-01'])
  expect((await estate(within(ids['heron']))).drives.filter(drive => drive.role === 'unassigned')).toHaveLength(12)
})

test('an array that is busy or answers nonsense for a moment is waited for', async () => {
  strike('unavailable', 2)
  strike('malformed', 1)
  strike('expired-token', 1)
  expect(await carriedOut('provision-volume', volumeIntent('patient-01', { hostGroupId: '' }))).toMatchObject({
    state: 'proven',
  })
})

test('a worker that dies is followed by another, and nothing is made twice', async () => {
  fleet.clock.setRate(600)
  const draft = await makeDraft({ database }, 'create-pool', await poolIntent('survivor', 12, 6), tester)
  await carryOut(database, draft.id, draft.planDigest, tester)
  for (;;) {
    const journal = await journalOf({ database }, draft.id)
    if (journal.some(entry => entry.event === 'progress')) break
    await pause(50)
  }
  await worker?.stop() // aborts what it has in hand, as a kill would: no step is marked done
  expect(await changeById({ database }, draft.id)).toMatchObject({ state: 'running' })
  await fleet.stop()
  fleet = await startFleet(folder, fleet.ports, 600)
  fleet.clock.setRate(36_000)
  await start()
  expect(await ended(draft.id)).toMatchObject({ state: 'proven' })
  expect((await estate()).pools.filter(pool => pool.name === 'survivor')).toHaveLength(1)
  const begun = (await journalOf({ database }, draft.id)).filter(entry => entry.event === 'begun')
  expect(begun.map(entry => entry.stepIndex)).toEqual([0, 1])
})

test('a change stops at a safe point, and can be undone from there', async () => {
  const survivor = (await estate()).pools.find(pool => pool.name === 'survivor')
  expect(await carriedOut('remove-pool', { systemId: ids['heron'], poolId: survivor?.id })).toMatchObject({
    state: 'proven',
  })
  fleet.clock.setRate(1)
  await pause(400) // the fleet's last quick beat is over
  const draft = await makeDraft({ database }, 'create-pool', await poolIntent('halted', 12, 6), tester)
  await carryOut(database, draft.id, draft.planDigest, tester)
  await pause(600)
  await stop({ database }, draft.id, tester)
  expect(await ended(draft.id)).toMatchObject({ state: 'stopped', stands: expect.stringContaining('Done so far') })
  await resume(database, draft.id, true, tester)
  expect(await ended(draft.id)).toMatchObject({ state: 'undone' })
  fleet.clock.setRate(36_000)
  expect((await estate()).pools.some(pool => pool.name === 'halted')).toBe(false)
})

test('a removed volume goes into holding, comes back with its mapping, grows, and is deleted when its holding ends', async () => {
  const unnamed = await makeDraft({ database }, 'remove-volume', { volumeId: ids['volume'], confirmedName: '' }, tester)
  expect(unnamed.plan.checks.find(check => check.rule === 'named')).toMatchObject({ holds: false })
  const removed = await carriedOut('remove-volume', { volumeId: ids['volume'], confirmedName: 'register-data-01' })
  expect(removed).toMatchObject({ state: 'proven' })
  const held = await estate([one('volumes', ids['volume'])])
  expect(held.volumes[0]).toMatchObject({ state: 'holding' })
  expect(held.mappings).toEqual([])
  const back = await draftReverse({ database }, removed.id, tester)
  await carryOut(database, back.id, back.planDigest, tester)
  expect(await ended(back.id)).toMatchObject({ state: 'proven' })
  expect((await estate([one('volumes', ids['volume'])])).mappings).toHaveLength(1)
  expect(
    await carriedOut('expand-volume', { volumeId: ids['volume'], size: '3 TiB' }).catch((cause: unknown) => cause),
  ).toMatchObject({ code: 'drafting.not-ready' })
  expect(await carriedOut('expand-volume', { volumeId: ids['volume'], size: '5 TiB' })).toMatchObject({
    state: 'proven',
  })
  for (const name of ['register-data-09', 'register-data-01']) {
    expect(await carriedOut('rename-volume', { volumeId: ids['volume'], name })).toMatchObject({ state: 'proven' })
    expect((await estate([one('volumes', ids['volume'])])).volumes[0]?.name).toBe(name)
  }
  expect(await carriedOut('unmap-volume', { volumeId: ids['volume'], hostGroupId: ids['group'] })).toMatchObject({
    state: 'proven',
  })
  expect(await carriedOut('map-volume', { volumeId: ids['volume'], hostGroupId: ids['group'] })).toMatchObject({
    state: 'proven',
  })
  expect(
    await carriedOut('remove-volume', { volumeId: ids['volume'], confirmedName: 'register-data-01' }),
  ).toMatchObject({ state: 'proven' })
  fleet.clock.step(8 * 86_400)
  for (let waited = 0; waited < 120_000; waited += 200) {
    if ((await estate([one('volumes', ids['volume'] ?? '')])).volumes.length === 0) break
    await pause(200)
  }
  expect((await estate([one('volumes', ids['volume'] ?? '')])).volumes).toEqual([])
  // It is gone from the records before its deletion has been proven, and until then that change still holds its system.
  const deletion = (await latestChanges({ database }, 5)).find(change => change.kind === 'delete-held-volume')
  expect(await ended(deletion?.id ?? '')).toMatchObject({ state: 'proven' })
})

test('a system is taken out of the estate, and what was done to it is still told', async () => {
  const taken = await carriedOut('forget-system', { systemId: ids['heron'] })
  expect(taken).toMatchObject({ state: 'proven', stands: null })
  expect((await estate()).systems).toEqual([])
  expect((await forecastOutcomes({ database })).length).toBeGreaterThan(5)
})

test('history is only ever added to', async () => {
  await expect(database.query(`update change_journal set words = 'other'`)).rejects.toThrow('only ever added to')
  await expect(database.query('delete from evidence')).rejects.toThrow('only ever added to')
  await expect(database.query(`update changes set state = 'running' where state = 'proven'`)).rejects.toThrow(
    'cannot go from',
  )
  expect(emptyEstate.claims.size).toBe(0)
  for (let waited = 0; waited < 120_000 && (await database.query('select * from claims'))[0].length > 0; waited += 100)
    await pause(100)
  expect((await database.query('select * from claims'))[0]).toEqual([])
})
