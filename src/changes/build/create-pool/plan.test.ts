import type { CreatePoolIntent as Intent } from '@/core/intents'
import { emptyEstate, type Drive, type Estate } from '@/core/estate'
import { sampleDrive, sampleId, sampleSystem } from '@/core/estate/testing/samples'
import { isReady, type Plan } from '@/core/plan'
import { plan } from './plan'

const id = sampleId
const system = sampleSystem()
const drive = sampleDrive
const estateOf = (drives: readonly Drive[], more: Partial<Estate> = {}): Estate => ({
  ...emptyEstate,
  systems: [system],
  drives,
  ...more,
})
const intentOf = (drives: readonly Drive[], more: Partial<Intent> = {}): Intent => ({
  systemId: system.id,
  name: 'fast',
  driveIds: drives.map(each => each.id),
  scheme: { kind: 'parity', parityDrives: 2 },
  maxGroupDrives: 12,
  spareCount: 1,
  snapshotSharePercent: 10,
  ...more,
})
const many = (count: number, more: Partial<Drive> = {}) =>
  Array.from({ length: count }, (_, index) => drive(index, more))
const check = (made: Plan, rule: string) => made.checks.find(each => each.rule === rule)

test('a sound draft is ready, claims its drives, and rests on their revisions', () => {
  const drives = many(12)
  const made = plan(estateOf(drives), intentOf(drives))
  expect(isReady(made)).toBe(true)
  expect(made.claims).toEqual(expect.arrayContaining(drives.map(each => each.id)))
  expect(made.reads.map(read => read.revision)).toEqual([3, ...drives.map(() => 7)])
  expect(made.steps[0]?.step).toMatchObject({
    step: 'create',
    spares: ['/d/0'],
    groups: [drives.slice(1).map(each => each.locator)],
  })
  expect(made.forecast.boundBy).toBe('drives')
})

test('the ladder of the draft adds up to raw', () => {
  const drives = many(12)
  const sketch = plan(estateOf(drives), intentOf(drives)).sketch
  const rungs = sketch?.of === 'pool' ? sketch.ladder : []
  const taken = rungs.reduce((sum, rung) => sum + BigInt(rung.takenBytes), 0n)
  expect(taken + BigInt(rungs.at(-1)?.bytes ?? '0')).toBe(96_000_000_000_000n)
})

test.each([
  ['too few drives', many(4), {}, 'layout', 'needs at least 4 drives'],
  ['no drives at all', [], {}, 'layout', 'No drives are chosen yet'],
  [
    'mirrors that do not come out even',
    many(6),
    { scheme: { kind: 'mirror' as const, copies: 2 } },
    'layout',
    'whole mirror sets',
  ],
  [
    'a drive that was taken meanwhile',
    [...many(8), drive(50, { role: 'data', poolId: id(9) })],
    {},
    'drives-free',
    'In use meanwhile: ER50',
  ],
  ['a drive that is failing', [...many(8), drive(50, { state: 'failing' })], {}, 'drives-fine', 'ER50'],
  ['disks beside flash', [...many(8), drive(50, { media: 'HDD', protocol: 'SAS' })], {}, 'one-media', 'HDD and SSD'],
  ['a hostile name', many(12), { name: '../../etc/passwd' }, 'name', 'letters, digits'],
])('%s is refused, and the check says why', (_, drives, more, rule, why) => {
  const made = plan(estateOf(drives), intentOf(drives, more))
  expect(check(made, rule)).toMatchObject({ holds: false, level: 'must', why: expect.stringContaining(why) })
  expect(isReady(made)).toBe(false)
})

test('mixed sizes are let through with what they strand', () => {
  const drives = [
    ...many(6),
    drive(60, { capacityBytes: 16_000_000_000_000n }),
    drive(61, { capacityBytes: 16_000_000_000_000n }),
  ]
  const made = plan(estateOf(drives), intentOf(drives))
  expect(check(made, 'nothing-stranded')).toMatchObject({
    holds: false,
    level: 'warn',
    why: expect.stringContaining('7.28 TiB'),
  })
  expect(isReady(made)).toBe(true)
})

test('a drive that is gone, a silent system and a running change each bar it', () => {
  const drives = many(12)
  expect(check(plan(estateOf(drives.slice(1)), intentOf(drives)), 'drives-known')).toMatchObject({ holds: false })
  const silent = {
    ...emptyEstate,
    systems: [{ ...system, reach: 'not answering' as const, reachWhy: 'cable' }],
    drives,
  }
  expect(check(plan(silent, intentOf(drives)), 'system-answers')).toMatchObject({
    holds: false,
    why: expect.stringContaining('cable'),
  })
  const held = estateOf(drives, { claims: new Map([[drives[3]?.id ?? '', 'Create pool other']]) })
  expect(check(plan(held, intentOf(drives)), 'not-held')).toMatchObject({
    holds: false,
    why: expect.stringContaining('Create pool other'),
  })
})

test('what earlier runs took shapes the forecast of the next', () => {
  const drives = many(12)
  const first = plan(estateOf(drives), intentOf(drives)).forecast
  const later = plan(estateOf(drives, { pastMisses: Array.from({ length: 20 }, () => 2) }), intentOf(drives)).forecast
  expect(later.p50Seconds).toBeGreaterThan(first.p50Seconds * 1.8)
  expect(later.p90Seconds - later.p10Seconds).toBeLessThan(first.p90Seconds - first.p10Seconds)
})
