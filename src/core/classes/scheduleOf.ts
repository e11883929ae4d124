import type { ServiceClass, Volume } from '../estate'

/** By what snapshots are taken, and how long they are kept. */
export type SnapshotSchedule = Pick<ServiceClass, 'snapshotRule' | 'timeZone' | 'retention' | 'quietHours'>

/** The schedule that counts for a volume: its own, else its class's; undefined where it has neither. */
export const scheduleOf = (
  volume: Pick<Volume, 'ownSchedule'> | undefined,
  serviceClass: SnapshotSchedule | undefined,
): SnapshotSchedule | undefined => volume?.ownSchedule ?? serviceClass
