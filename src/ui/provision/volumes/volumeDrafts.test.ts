import { sampleId } from '@/core/estate/testing/samples'
import { volumeDrafts } from './volumeDrafts'

const line = (index: number, more: object = {}) => ({
  id: sampleId(index),
  name: `photos-${index}`,
  state: 'in use' as const,
  missingSince: null,
  follows: false,
  ...more,
})

test('volumes in use are mapped together, by an intent that their change reads', () => {
  const drafts = volumeDrafts([line(1), line(2)])
  if (typeof drafts === 'string') throw new Error(drafts)
  expect(drafts.map(each => each.words)).toEqual([
    'Map to a host group',
    'Put under a class',
    'Schedule snapshots',
    'Limit them',
    'Say what they serve',
    'Form a consistency group',
  ])
  expect(drafts[0]).toMatchObject({
    drafted: { kind: 'map-volumes' },
    intent: { volumeIds: [sampleId(1), sampleId(2)], hostGroupId: '' },
  })
})

test('what bars it is named: one in holding, one that is missing, too many, none', () => {
  expect(volumeDrafts([line(1), line(2, { state: 'holding' })])).toBe('photos-2 is in holding; bring it back first.')
  expect(volumeDrafts([line(1, { missingSince: '2026-05-04T10:00:00Z' })])).toBe('photos-1 is missing at its system.')
  expect(volumeDrafts([line(1, { follows: true })])).toBe('photos-1 follows a volume of another system.')
  expect(volumeDrafts([])).toBe('Choose volumes first.')
  const many = Array.from({ length: 65 }, (_, index) => line(index + 1))
  expect(volumeDrafts(many)).toBe('At most 64 at once.')
  expect(typeof volumeDrafts(many.slice(1))).toBe('object')
})
