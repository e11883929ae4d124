import { sampleClass, sampleId, sampleSnapshot, sampleVolume } from '../estate/testing/samples'
import { judged, mayGo, snapshotName, spaceOf } from '.'

const around = (more: object = {}) => ({ schedule: sampleClass(), volumes: [], mappings: [], ...more })
const mapping = {
  id: sampleId(7),
  systemId: sampleId(1),
  locator: '/m/1',
  volumeId: null,
  snapshotId: sampleId(3),
  hostGroupId: null,
  groupName: 'backup',
  lun: 0,
  revision: 1,
}

test('the retention judges what the schedule took; what is needed besides says by whom', () => {
  const all = [2, 3, 4, 5, 6].map(number => sampleSnapshot(number))
  const manual = sampleSnapshot(1, { dueAt: null })
  const clone = sampleVolume({ cloneOfId: sampleId(4), name: 'desk-1' })
  const found = judged([manual, ...all], around({ volumes: [clone], mappings: [mapping] }))
  expect(found.map(({ snapshot, rules, clones, shownTo }) => [snapshot.name, rules, clones, shownTo])).toEqual([
    ['photos-01.1', [], [], []],
    ['photos-01.2', ['daily'], [], []],
    ['photos-01.3', [], [], ['backup']],
    ['photos-01.4', [], ['desk-1'], []],
    ['photos-01.5', ['keepLast'], [], []],
    ['photos-01.6', ['keepLast'], [], []],
  ])
  expect(mayGo(found, sampleClass())).toEqual([])
})

test('only what nothing needs may go: nothing that somebody took, holds, or that is pending', () => {
  const all = [
    sampleSnapshot(1),
    sampleSnapshot(2),
    sampleSnapshot(3, { heldReason: 'for the audit' }),
    sampleSnapshot(4, { state: 'pending', takenAt: null }),
    sampleSnapshot(5, { goesAt: '2026-05-09T00:00:00.000Z' }),
    sampleSnapshot(6, { dueAt: null }),
    sampleSnapshot(7),
    sampleSnapshot(8),
  ]
  expect(mayGo(judged(all, around()), sampleClass()).map(({ name }) => name)).toEqual(['photos-01.2'])
  expect(mayGo(judged(all, around({ schedule: undefined })), undefined)).toEqual([])
  // A class that keeps nothing by a rule removes nothing: what it keeps has not been said.
  const none = sampleClass({ retention: {} })
  expect(mayGo(judged(all, around({ schedule: none })), none)).toEqual([])
})

test('what a system says that cannot be is not counted', () => {
  const all = [
    sampleSnapshot(1, {
      ownBytes: 5n,
      heldUntil: [
        { locator: '/v/1', bytes: '5' },
        { locator: '/v/2', bytes: '7' },
      ],
    }),
    sampleSnapshot(2, {
      ownBytes: 3n,
      heldUntil: [
        { locator: '/v/1', bytes: '99' },
        { locator: '/v/9', bytes: '99' },
        { locator: '/v/2', bytes: '3' },
      ],
    }),
  ]
  const space = spaceOf([...all].reverse())
  expect(space.ordered.map(({ name }) => name)).toEqual(['photos-01.1', 'photos-01.2'])
  expect([
    space.isExact,
    space.totalBytes,
    space.reclaim([sampleId(1)]),
    space.reclaim([sampleId(1), sampleId(2), 'x']),
  ]).toEqual([true, 15n, 5n, 15n])
  const least = spaceOf([sampleSnapshot(1, { ownBytes: 5n }), all[1] ?? sampleSnapshot(2)])
  expect([least.isExact, least.totalBytes, least.reclaim([sampleId(2), sampleId(2)])]).toEqual([false, 8n, 3n])
})

test('a name says of what and when, and is never too long', () => {
  const at = new Date('2026-11-12T03:04:05Z')
  expect(snapshotName('staff-homes-01', at)).toBe('staff-homes-01.20261112-030405')
  expect(snapshotName('x'.repeat(80), at)).toHaveLength(63)
  expect(snapshotName(`${'x'.repeat(46)}-${'y'.repeat(20)}`, at)).toBe(`${'x'.repeat(46)}.20261112-030405`)
})
