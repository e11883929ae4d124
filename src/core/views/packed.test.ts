import fc from 'fast-check'
import { sampleDrive, sampleId } from '../estate/testing/samples'
import { packed, unpacked } from './packed'

test('rows come back as they were, whatever their values share', () => {
  const row = fc.record({
    id: fc.string(),
    kind: fc.constantFrom('SSD', 'HDD', null),
    bytes: fc.bigInt(0n, 1n << 80n),
    isLit: fc.boolean(),
  })
  fc.assert(fc.property(fc.array(row), rows => expect(unpacked(packed(rows))).toEqual(rows)))
})

test('of drives that are alike, little more than what tells them apart is sent', () => {
  const drives = Array.from({ length: 500 }, (_, index) => sampleDrive(index, { id: sampleId(index), bay: index % 24 }))
  const weight = (value: unknown) =>
    JSON.stringify(value, (_, each: unknown) => (typeof each === 'bigint' ? `${each}` : each)).length
  expect(weight(packed(drives))).toBeLessThan(weight(drives) / 4)
  expect(unpacked(packed(drives))).toEqual(drives)
})
