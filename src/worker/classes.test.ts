import { QueryTypes } from 'sequelize'
import { one, those, within } from '@/core/estate'
import { monthReport } from '@/records/queries'
import { workbench } from './testing/workbench'

let bench: Awaited<ReturnType<typeof workbench>>
const ids: Partial<Record<string, string>> = {}
const blank = {
  classId: '',
  name: 'Nothing lost',
  lossesSurvived: 2,
  media: 'SSD',
  latencyMilliseconds: 2,
  headroomPercent: 20,
  snapshotRule: 'FREQ=HOURLY',
  timeZone: 'Europe/Lisbon',
  keepLast: 2,
  hourly: 3,
  daily: null,
  weekly: null,
  monthly: null,
  yearly: null,
  holdingDays: null,
}

beforeAll(async () => {
  bench = await workbench(1, { pace: 10 })
  const systemId = await bench.registered('heron')
  ids['bittern'] = await bench.registered('bittern')
  const { drives } = await bench.estate(within(systemId))
  bench.fleet.clock.setRate(36_000)
  await bench.carriedOut('create-pool', {
    systemId,
    name: 'heron-fast-01',
    driveIds: drives.slice(0, 12).map(each => each.id),
    scheme: { kind: 'parity', parityDrives: 2 },
    maxGroupDrives: 12,
    spareCount: 0,
    snapshotSharePercent: 10,
  })
  bench.fleet.clock.setRate(1)
})
afterAll(() => bench.close())

const done = async (kind: string, intent: object) => {
  const change = await bench.carriedOut(kind, intent)
  expect([kind, change.state, change.refusal?.why]).toEqual([kind, 'proven', undefined])
  return change
}
const broken = async (kind: string, intent: object) =>
  (await bench.drafted(kind, intent)).plan.checks
    .filter(check => !check.holds && check.level === 'must')
    .map(check => check.rule)
const snapshots = async () => (await bench.estate([those('snapshots', 'volumeId', ids['volume'])])).snapshots

test('a class says what it promises, and what cannot be promised is refused by its rule', async () => {
  const made = await done('define-class', blank)
  ids['class'] = String(made.facts['classId'] as string)
  expect(await broken('define-class', blank)).toEqual(['name-free'])
  expect(await broken('define-class', { ...blank, name: ' ' })).toEqual(['name'])
  expect(await broken('define-class', { ...blank, name: 'x', snapshotRule: 'FREQ=SECONDLY' })).toEqual(['schedule'])
  expect(await broken('define-class', { ...blank, name: 'x', timeZone: 'Mars/Olympus' })).toEqual(['schedule'])
  expect(await broken('define-class', { ...blank, name: 'x', keepLast: null, hourly: null })).toEqual(['retention'])
  expect(await broken('define-class', { ...blank, name: 'x', snapshotRule: '' })).toEqual(['retention'])
})

test('a volume under a class finds its pool by the score, and those that are out say why', async () => {
  const intent = {
    name: 'register-data-01',
    purpose: 'data',
    size: '2 TiB',
    poolId: '',
    isThin: true,
    hostGroupId: '',
    classId: ids['class'],
  }
  const draft = await bench.drafted('provision-volume', intent)
  const sketch = draft.plan.sketch
  if (sketch?.of !== 'placement') throw new Error('No ranking is drawn.')
  expect(sketch.pools.map(({ name, out }) => [name, out.length > 0])).toEqual([
    ['heron-fast-01', false],
    ['bittern-fast-01', true],
    ['bittern-bulk-01', true],
  ])
  expect(sketch.pools[1]?.out).toEqual(['survives 1, 2 promised'])
  expect(sketch.pools[2]?.out).toEqual(expect.arrayContaining(['of HDD, SSD promised']))
  const made = await done('provision-volume', intent)
  ids['volume'] = String(made.facts['volumeId'] as string)
  const { volumes } = await bench.estate([one('volumes', ids['volume'])])
  expect(volumes[0]).toMatchObject({ classId: ids['class'], poolId: sketch.chosenId })
  expect(await broken('provision-volume', { ...intent, name: 'x', classId: ids['volume'] })).toEqual(
    expect.arrayContaining(['class', 'pool']),
  )
})

test('its snapshots are taken as they come due, once each, and go when no rule needs them', async () => {
  // Half past an hour: what was due at the full one has been spread over five minutes.
  await bench.stepped(((90 - new Date(bench.fleet.clock.now()).getUTCMinutes()) % 60) * 60 + 1)
  await bench.until(
    async () => (await snapshots()).some(each => each.dueAt !== null && each.state === 'consistent'),
    'the first of the schedule',
  )
  for (let hour = 0; hour < 6; hour += 1) {
    const before = Math.max(...(await snapshots()).map(each => Date.parse(each.dueAt ?? '') || 0))
    await bench.stepped(3600)
    await bench.until(
      async () => Math.max(...(await snapshots()).map(each => Date.parse(each.dueAt ?? '') || 0)) > before,
      `hour ${hour}`,
    )
  }
  await bench.until(async () => (await snapshots()).length === 3, 'the retention')
  const due = (await snapshots()).map(each => Date.parse(each.dueAt ?? '')).sort((a, b) => a - b)
  expect(due.map(at => at % 3_600_000)).toEqual([0, 0, 0])
  expect(new Set(due).size).toBe(3)
})

test('how many moments were kept is noted once each is over, those too that passed while nobody could take them', async () => {
  const noted = async () => {
    const [found] = await bench.database.query<{ due: number; taken: number; last: Date | null }>(
      `select coalesce(sum(volumes), 0)::int as due, coalesce(sum(taken), 0)::int as taken, max(due_at) as last
       from snapshot_moments where class_id = $1 and volumes > 0`,
      { bind: [ids['class']], type: QueryTypes.SELECT },
    )
    return found ?? { due: 0, taken: 0, last: null }
  }
  const fullHour = Math.floor(bench.fleet.clock.now() / 3_600_000) * 3_600_000
  await bench.until(async () => (await noted()).last?.getTime() === fullHour, 'the last that is over')
  const first = await noted()
  await bench.stepped(3600)
  await bench.until(async () => (await noted()).due > first.due, 'the next hour')
  const before = await noted()
  expect(before.taken - first.taken).toBe(before.due - first.due)
  // Three hours at once: the latest moment is taken, the two before it are not made up for.
  await bench.stepped(3 * 3600)
  await bench.until(async () => (await noted()).due >= before.due + 3, 'the hours that passed at once')
  expect(await noted()).toMatchObject({ due: before.due + 3, taken: before.taken + 1 })
  const month = new Date(bench.fleet.clock.now()).toISOString().slice(0, 7)
  const { snapshots: told } = await monthReport({ database: bench.database }, month)
  expect(told.every(each => each.rule === 'every hour' && each.taken <= each.due)).toBe(true)
})

test('two workers take no moment twice, and one that is held outlives its rules', async () => {
  // The schedule has let go what the steps before have left over: nothing is altered between draft and carrying out.
  await bench.until(async () => (await snapshots()).length === 3, 'the retention')
  const [oldest] = await snapshots()
  await done('hold-snapshot', { volumeId: ids['volume'], snapshotId: oldest?.id, reason: 'for the audit' })
  const other = await bench.anotherWorker()
  const latest = async () => Math.max(...(await snapshots()).map(each => Date.parse(each.dueAt ?? '') || 0))
  // Looked at before the step: the other worker may take the next one while this one is stopped.
  const before = await latest()
  await bench.stepped(4 * 3600)
  await bench.restartWorker()
  await bench.until(async () => (await latest()) > before, 'the next one')
  await bench.until(
    async () => (await snapshots()).filter(each => each.state === 'consistent').length >= 3,
    'it is consistent',
  )
  const all = await snapshots()
  expect(new Set(all.map(each => each.dueAt)).size).toBe(all.length)
  expect(all.some(each => each.id === oldest?.id)).toBe(true)
  await other.stop()
})

test('a volume goes by a schedule of its own in the place of its class’s, and by the class again', async () => {
  const own = {
    ...{ volumeIds: [ids['volume']], isOwn: true, snapshotRule: 'FREQ=HOURLY;BYMINUTE=20', timeZone: 'UTC' },
    ...{ keepLast: 1, hourly: null, daily: null, weekly: null, monthly: null, yearly: null },
  }
  const refused = (more: object) => broken('schedule-volumes', { ...own, ...more })
  expect(await refused({ keepLast: null })).toEqual(['retention'])
  expect(await refused({ snapshotRule: 'FREQ=MINUTELY;INTERVAL=0' })).toEqual(['schedule'])
  expect(await refused({ quietFrom: 3, quietTo: 3 })).toContain('quiet')
  expect(await refused({ isOwn: false })).toEqual(['other'])
  expect(await refused({ volumeIds: [ids['bittern']] })).toContain('volumes')
  const change = await done('schedule-volumes', own)
  expect(change.plan.checks.find(({ rule }) => rule === 'class-promises')?.why).toContain('register-data-01')
  expect(await refused({})).toEqual(['other'])
  const scheduled = async () =>
    (await snapshots()).filter(({ dueAt, heldReason }) => dueAt !== null && heldReason === null)
  for (let hour = 0; hour < 3; hour += 1) {
    const before = Math.max(...(await scheduled()).map(each => Date.parse(each.dueAt ?? '')))
    await bench.stepped(3600)
    await bench.until(
      async () => Math.max(...(await scheduled()).map(each => Date.parse(each.dueAt ?? ''))) > before,
      `its own moment ${hour}`,
    )
  }
  await bench.until(async () => (await scheduled()).length === 1, 'the retention of its own')
  const [last] = await scheduled()
  expect([Date.parse(last?.dueAt ?? '') % 3_600_000, last?.reason]).toEqual([20 * 60_000, 'its own schedule'])
  await done('schedule-volumes', { ...own, isOwn: false })
  await bench.stepped(3600)
  await bench.until(
    async () => (await scheduled()).some(each => Date.parse(each.dueAt ?? '') % 3_600_000 === 0),
    'a moment of the class',
  )
})

test('a class that would break promises says of which volumes, and what is removed promises nothing', async () => {
  const three = { ...blank, classId: ids['class'], lossesSurvived: 3 }
  const draft = await bench.drafted('define-class', three)
  expect(draft.plan.checks.find(check => check.rule === 'promises')?.why).toContain(
    'register-data-01: survives any 3 losses, but heron-fast-01 survives any 2 losses',
  )
  const { volumes } = await bench.estate([those('volumes', 'name', 'ticket-desk-01')])
  const under = await bench.drafted('set-volume-class', { volumeIds: [volumes[0]?.id], classId: ids['class'] })
  expect(under.plan.checks.find(check => check.rule === 'promises')?.holds).toBe(false)
  await done('remove-class', { classId: ids['class'] })
  const after = await bench.estate([one('volumes', ids['volume'])])
  expect([after.serviceClasses, after.volumes[0]?.classId]).toEqual([[], null])
})

test('many volumes in one draft: all of them, each once, whatever dies in between', async () => {
  bench.fleet.clock.setRate(60)
  const host = `http://127.0.0.1:${bench.fleet.ports.hosts['desk-1']}`
  await done('register-host', { agentAddress: host, groupName: 'reading-room' })
  const hostGroupId = (await bench.estate()).hostGroups.find(each => each.name === 'reading-room')?.id
  const made = await done('define-class', {
    ...blank,
    name: 'Desktops',
    snapshotRule: '',
    keepLast: null,
    hourly: null,
  })
  const many = {
    list: 'name,size\ndesk-{01..60}, 80 GiB\ndesk-meta, 10 GiB',
    classId: made.facts['classId'],
    poolId: '',
    isThin: true,
    isTogether: false,
    hostGroupId,
  }
  expect(await broken('provision-volumes', { ...many, list: '' })).toEqual(['lines', 'pool'])
  expect(await broken('provision-volumes', { ...many, list: 'ticket-desk-01, 4 GiB' })).toEqual(['names-free'])
  expect(await broken('provision-volumes', { ...many, list: 'a, 4' })).toEqual(['lines', 'pool'])
  const id = await bench.begun('provision-volumes', many)
  await bench.restartWorker()
  await bench.restartWorker()
  const change = await bench.ended(id)
  expect([change.state, change.refusal?.why]).toEqual(['proven', undefined])
  const heron = bench.fleet.arrays.find(each => each.model.name === 'heron')
  const desks = heron?.all('volumes').filter(each => each.name.startsWith('desk-')) ?? []
  expect(desks).toHaveLength(61)
  expect(new Set(desks.map(each => each.name)).size).toBe(61)
  expect(heron?.all('connections').filter(each => desks.some(desk => desk.id === each.volumeId))).toHaveLength(61)
  const { volumes } = await bench.estate([those('volumes', 'classId', String(made.facts['classId'] as string))])
  expect(volumes).toHaveLength(61)
})
