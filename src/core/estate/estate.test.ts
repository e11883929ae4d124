import {
  emptyEstate,
  estateLadder,
  brokenInvariants,
  nameByPattern,
  nameCheck,
  namePrefix,
  suffixOf,
  type Drive,
  type Pool,
} from '.'

const pool: Pool = {
  id: 'p',
  systemId: 's',
  locator: '/p',
  name: 'bulk',
  scheme: { kind: 'parity', parityDrives: 2 },
  driveKind: { media: 'HDD', protocol: 'SAS' },
  groupSizes: [6],
  spareCount: 1,
  state: 'fine',
  rawBytes: 70n,
  usableBytes: 40n,
  writtenBytes: 11n,
  provisionedBytes: 20n,
  metadataBytes: 1n,
  snapshotReserveBytes: 4n,
  redundancyBytes: 20n,
  strandedBytes: 0n,
  spareBytes: 10n,
  revision: 1,
}
const drive: Drive = {
  id: 'd',
  systemId: 's',
  locator: '/d',
  enclosureId: 'e',
  bay: 3,
  name: 'drive 3',
  media: 'HDD',
  protocol: 'SAS',
  capacityBytes: 10n,
  model: 'm',
  serial: 'zq9a417',
  wwn: null,
  firmware: null,
  state: 'fine',
  role: 'data',
  poolId: 'p',
  groupIndex: 0,
  rotationSpeedRpm: 7200,
  powerOnHours: 1,
  wearRatio: null,
  revision: 1,
}

test('the estate ladder adds its pools and the drives that none uses', () => {
  const rungs = estateLadder([pool, { ...pool, id: 'q', name: 'other' }], 33n)
  expect(rungs[0]).toMatchObject({ name: 'raw', bytes: 173n })
  expect(rungs[1]).toMatchObject({ name: 'in pools', bytes: 140n, takenBytes: 33n })
  expect(rungs.reduce((sum, rung) => sum + rung.takenBytes, rungs.at(-1)?.bytes ?? 0n)).toBe(173n)
  expect(estateLadder([], 0n).map(rung => rung.bytes)).toEqual([0n, 0n, 0n, 0n, 0n, 0n, 0n])
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
  expect(namePrefix('{group}-{purpose}-{nn}', words)).toBe('accession-register-data-')
})

test('the label on a bay is the end of the serial', () => expect(suffixOf('zq9a417')).toBe('A417'))
