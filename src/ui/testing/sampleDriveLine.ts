import { intakeState, type Drive } from '@/core/estate'
import { sampleDrive } from '@/core/estate/testing/samples'
import type { DriveLine } from '@/core/views'

/** A drive as the list of drives has it. */
export function sampleDriveLine(number: number, more: Partial<Drive> = {}): DriveLine {
  const drive = sampleDrive(number, more)
  return {
    ...drive,
    systemName: 'godwit',
    standsIn: 'godwit-1',
    capacityBytes: `${drive.capacityBytes}`,
    intake: intakeState(drive),
    bestFor: null,
    poolName: drive.poolId === null ? null : 'fast',
  }
}
