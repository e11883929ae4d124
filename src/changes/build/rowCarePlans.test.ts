import type { Estate } from '@/core/estate'
import { sampleId, sampleNode, samplePool, sampleSystem } from '@/core/estate/testing/samples'
import { isReady } from '@/core/plan'
import { kindNamed } from '..'
import { check, now, planned, poolId, sampleRow, systemId } from '../testing/sampleRow'

const leftOver = {
  system: 'plover',
  lastUsedAt: '2023-09-14T00:00:00.000Z',
  partitions: ['partition 1: boot, 512 MiB'],
}
const [drive] = sampleRow().drives
const withDrive = (more: object): Estate => {
  const row = sampleRow()
  return { ...row, drives: row.drives.map(each => (each.id === drive?.id ? { ...each, ...more } : each)) }
}
const erase = (more: object = {}, from = withDrive({ leftOver })) =>
  planned(
    'erase-drive',
    { systemId, driveId: drive?.id, lastFour: drive?.serial.slice(-4), isWhole: false, ...more },
    from,
  )

test('a free drive is erased by its last four characters, read off in either case; what is on it is named', () => {
  const plan = erase({ lastFour: ` ${drive?.serial.slice(-4).toLowerCase() ?? ''} ` })
  expect(isReady(plan)).toBe(true)
  expect(check(plan, 'nothing-wanted')).toMatchObject({
    holds: false,
    level: 'warn',
    why: 'On it: partition 1: boot, 512 MiB; from plover, last used 2023-09-14.',
  })
  expect(plan.undo.possible).toBe(false)
  expect(plan.claims).toEqual([drive?.id])
})

test('erasing every sector takes as long as the drive writes, tables and heads almost nothing', () => {
  const [quick, whole] = [erase(), erase({ isWhole: true })].map(plan => plan.forecast.baseSeconds)
  expect(quick).toBeLessThan(10)
  // 800 GB at 0.9 of what such a flash drive writes in sequence.
  expect(whole).toBeGreaterThan(600)
  expect(whole).toBeLessThan(4000)
})

test.each([
  ['the boot drive', { isBoot: true }, 'no-boot', 'starts from it'],
  ['a drive that a pool uses', { role: 'data', poolId }, 'not-in-use', 'A pool uses it'],
  ['a spare', { role: 'spare', poolId }, 'not-in-use', 'A pool uses it'],
  ['a drive that has failed', { state: 'failed' }, 'drive-fine', 'nothing can be written'],
  ['a drive in no node', { nodeId: null }, 'can-be-read', 'is in no node'],
  ['a drive with another serial number', { serial: 'OTHER' }, 'last-four', 'as they stand on its label'],
])('%s is not erased', (_, more, rule, why) => {
  const plan = erase({}, withDrive(more))
  expect(check(plan, rule)).toMatchObject({ holds: false, why: expect.stringContaining(why) })
  expect(isReady(plan)).toBe(false)
})

test('a drive that is gone, or whose node is silent, is not erased', () => {
  expect(check(erase({ driveId: sampleId(999) }), 'drive')).toMatchObject({ holds: false })
  const row = withDrive({})
  const silent = { ...row, nodes: row.nodes.map(node => ({ ...node, state: 'not answering' as const })) }
  expect(isReady(erase({}, silent))).toBe(false)
})

test('a drive that nobody could read afterwards is not erased: nothing would prove that it is empty', () => {
  const row = withDrive({})
  const deaf = { ...row, nodes: row.nodes.map(node => ({ ...node, agentAddress: null })) }
  const plan = erase({}, deaf)
  expect(check(plan, 'can-be-read')).toMatchObject({ holds: false, field: 'driveId' })
  expect([isReady(plan), plan.steps]).toEqual([false, []])
})

const light = (driveIds: readonly string[], isOn = true) => planned('set-locate-light', { systemId, driveIds, isOn })

test('lights of several drives are one change that can be taken back; none, or one that is gone, is no change', () => {
  const ids = sampleRow()
    .drives.slice(0, 3)
    .map(each => each.id)
  const plan = light(ids)
  expect([isReady(plan), plan.title]).toEqual([true, 'Switch the light on at 3 drives'])
  expect(kindNamed('set-locate-light').reverse?.({ systemId, driveIds: ids, isOn: true }, {})).toMatchObject({
    intent: { driveIds: ids, isOn: false },
  })
  expect(isReady(light([]))).toBe(false)
  expect(check(light([...ids, sampleId(999)]), 'drives')).toMatchObject({
    holds: false,
    why: 'Some chosen drives are gone.',
  })
})

test('the restart service that is switched off is watched by nobody, which is said and no bar', () => {
  const off = planned('set-restart-service', { systemId, nodeIds: [sampleId(1), sampleId(2)], isOn: false })
  expect(isReady(off)).toBe(true)
  expect(check(off, 'watched')).toMatchObject({ holds: false, level: 'warn' })
  expect(off.claims).toEqual([sampleId(1), sampleId(2)])
  expect(isReady(planned('set-restart-service', { systemId, nodeIds: [], isOn: true }))).toBe(false)
})

test('a clock is set with what it is off by now, and not where the node is silent', () => {
  const nodes = (more: object) => ({ nodes: [sampleNode(1, { clockOffsetSeconds: -361.2, ...more })] })
  const set = (more: object) => planned('set-node-clock', { systemId, nodeId: sampleId(1) }, sampleRow(nodes(more)))
  expect(set({}).effects).toMatchObject([{ before: '-361.2 s', after: 'about 0 s' }])
  expect([isReady(set({})), isReady(set({ state: 'not answering' }))]).toEqual([true, false])
})

const sign = (more: object) =>
  planned('sign-exception', {
    findingKey: 'a/1',
    findingTitle: 'A',
    reason: 'It waits for its part.',
    until: '2026-06-30',
    ...more,
  })

test.each([
  ['a reason of a word', { reason: '  wait   ' }, 'reason', 'at least 10 characters'],
  ['no day', { until: '' }, 'until', 'Choose the day'],
  ['a day that is none', { until: '2026-02-31x' }, 'until', 'Choose the day'],
  ['a day that is over', { until: '2026-05-03' }, 'until', 'That day is over.'],
  ['two years', { until: '2028-05-04' }, 'until', 'a year at most'],
])('an exception with %s is not signed', (_, more, rule, why) =>
  expect(check(sign(more), rule)).toMatchObject({ holds: false, why: expect.stringContaining(why) }),
)

test('an exception ends with its day, and that day itself still counts', () => {
  expect(check(sign({}), 'until')).toMatchObject({ holds: true, why: 'It ends in 58 days.' })
  expect(isReady(sign({ until: now.toISOString().slice(0, 10) }))).toBe(true)
})

const entry = {
  component: 'node',
  model: 'M-210',
  version: '2.6.0',
  releasedAt: '2026-04-01T00:00:00Z',
  isUrgent: true,
  notes: '',
}
const file = {
  format: 'wendrel-firmware-catalogue-1',
  maker: 'Mirefield',
  issuedAt: '2026-04-02T00:00:00Z',
  entries: [entry],
}
const imported = (body: unknown, from = sampleRow()) =>
  planned('import-catalogue', { text: typeof body === 'string' ? body : JSON.stringify(body) }, from)

test.each<[string, unknown, string]>([
  ['no file', '', 'Choose a catalogue file.'],
  ['no JSON', '<catalogue/>', 'The file is not JSON.'],
  [
    'another format',
    { ...file, format: 'other-2' },
    'In format: must be equal to constant (wendrel-firmware-catalogue-1).',
  ],
  [
    'a field of no meaning',
    { ...file, entries: [entry, { ...entry, urgency: 1 }] },
    'In entries.1: must NOT have additional properties: "urgency".',
  ],
  ['a date that is none', { ...file, issuedAt: 'soon' }, 'In issuedAt: must match format "date-time".'],
  [
    'a missing version',
    { ...file, entries: [{ ...entry, version: undefined }] },
    "In entries.0: must have required property 'version'.",
  ],
])('a catalogue with %s is refused with the place', (_, body, why) => {
  const plan = imported(body)
  expect(check(plan, 'format')).toMatchObject({ holds: false, why })
  expect(isReady(plan)).toBe(false)
})

test('a catalogue older than the one on record is kept, but does not become the newest', () => {
  const catalogues = [{ ...file, issuedAt: '2026-05-01T00:00:00Z' }] as unknown as Estate['catalogues']
  const older = imported(file, sampleRow({ catalogues }))
  expect(isReady(older)).toBe(true)
  expect(check(older, 'newer')).toMatchObject({
    holds: false,
    level: 'warn',
    why: expect.stringContaining('2026-05-01'),
  })
  expect(
    check(imported({ ...file, issuedAt: '2026-06-01T00:00:00Z' }, sampleRow({ catalogues })), 'newer')?.holds,
  ).toBe(true)
})

test('a switch port is set back to what it was; nothing is planned for one that is gone', () => {
  const intent = { systemId, switchPortId: sampleId(71), mtu: 1500, vlans: [1, 30] }
  const plan = planned('set-switch-port', intent)
  expect(plan.undo.possible).toBe(true)
  expect(isReady(planned('set-switch-port', { ...intent, switchPortId: sampleId(999) }))).toBe(false)
})

test('a cluster is dissolved by its name once it holds no pool', () => {
  const from = sampleRow({ systems: [sampleSystem({ name: 'godwit', clusterName: 'kiln' })] })
  expect(isReady(planned('dissolve-cluster', { systemId, typedName: 'kiln' }, from))).toBe(true)
  const held = { ...from, pools: [samplePool({ failureDomain: 'node' })] }
  expect(isReady(planned('dissolve-cluster', { systemId, typedName: 'kiln' }, held))).toBe(false)
})
