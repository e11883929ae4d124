import { emptyEstate, estateLadder, brokenInvariants, nameByPattern, nameCheck, namePrefix, suffixOf } from '.'
import { sampleDrive, samplePool } from './testing/samples'

const pool = samplePool({
  id: 'p',
  systemId: 's',
  rawBytes: 70n,
  usableBytes: 40n,
  writtenBytes: 11n,
  provisionedBytes: 20n,
  metadataBytes: 1n,
  snapshotReserveBytes: 4n,
  redundancyBytes: 20n,
  spareBytes: 10n,
})
const drive = sampleDrive(3, {
  id: 'd',
  systemId: 's',
  enclosureId: 'e',
  media: 'HDD',
  protocol: 'SAS',
  capacityBytes: 10n,
  serial: 'zq9a417',
  role: 'data',
  poolId: 'p',
  groupIndex: 0,
})

test('the estate ladder adds its pools and the drives that none uses', () => {
  const rungs = estateLadder([pool, { ...pool, id: 'q', name: 'other' }], 33n)
  expect(rungs[0]).toMatchObject({ name: 'raw', bytes: 173n })
  expect(rungs[1]).toMatchObject({ name: 'in pools', bytes: 140n, takenBytes: 33n })
  expect(rungs.reduce((sum, rung) => sum + rung.takenBytes, rungs.at(-1)?.bytes ?? 0n)).toBe(173n)
  expect(estateLadder([], 0n).every(rung => rung.bytes === 0n)).toBe(true)
})

test('what cannot be true is named', () => {
  const twin = { ...drive, id: 'd2', name: 'drive 3b' }
  const loose = { ...drive, id: 'd3', bay: 4, poolId: null }
  const rules = brokenInvariants({
    ...emptyEstate,
    pools: [pool, { ...pool, id: 'x', usableBytes: 71n }],
    drives: [drive, twin, loose],
  }).map(broken => broken.rule)
  expect(rules).toEqual(['bay-held-once', 'drive-in-one-pool', 'pool-adds-up'])
  expect(brokenInvariants({ ...emptyEstate, pools: [pool], drives: [drive] })).toEqual([])
})

test.each([['a'.repeat(64)], ['-x'], ["x'; drop table volumes;--"], ['<script>'], [''], ['ü'], ['a b'], ['../etc']])(
  '%s is no name',
  name => expect(nameCheck(name, 'a pool').holds).toBe(false),
)

test('names follow the pattern and skip what is taken', () => {
  const words = { group: 'Accession Register', purpose: 'data' }
  expect(nameByPattern('{group}-{purpose}-{nn}', words, new Set(['accession-register-data-01']))).toBe(
    'accession-register-data-02',
  )
  expect(nameByPattern('{group}-{purpose}-{nn}', { group: 'kiosk', purpose: '' }, new Set())).toBe('kiosk-01')
  expect(nameByPattern('{constructor}-{nn}', words, new Set())).toBe('01')
  expect(namePrefix('{group}-{purpose}-{nn}', words)).toBe('accession-register-data-')
})

test('the label on a bay is the end of the serial', () => expect(suffixOf('zq9a417')).toBe('A417'))
