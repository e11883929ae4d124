import { sampleDrive } from './testing/samples'
import { driveKinds, intakeState, kindWords } from '.'

test('kinds add up to all drives, and every state is counted once', () => {
  const leftOver = { system: null, lastUsedAt: null, partitions: ['p'] }
  const drives = [
    sampleDrive(1),
    sampleDrive(2, { leftOver }),
    sampleDrive(3, { state: 'failed', role: 'data', poolId: 'p' }),
    sampleDrive(4, { isBoot: true, capacityBytes: 240_000_000_000n }),
    sampleDrive(5, { media: 'HDD', protocol: 'SAS', role: 'spare', poolId: 'p' }),
  ]
  const kinds = driveKinds(drives.map(drive => ({ ...drive, intake: intakeState(drive), count: 1 })))
  expect(kinds.reduce((sum, kind) => sum + kind.count, 0)).toBe(5)
  expect(kinds.reduce((sum, kind) => sum + kind.bytes, 0n)).toBe(
    drives.reduce((sum, drive) => sum + drive.capacityBytes, 0n),
  )
  expect(kinds.find(kind => kind.words === '8 TB NVMe')?.byState).toMatchObject({
    unassigned: 1,
    foreign: 1,
    failed: 1,
  })
  expect(kinds.flatMap(kind => Object.values(kind.byState)).reduce((sum, count) => sum + count, 0)).toBe(5)
  expect(kindWords(sampleDrive(9, { protocol: 'SAS' }))).toBe('8 TB SAS SSD')
})
