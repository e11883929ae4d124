import type { Drive, IntakeState } from '../estate'

/** A row of the list of drives; bytes as decimal text, since a page of rows goes to the browser as JSON. */
export interface DriveLine {
  readonly id: string
  readonly systemId: string
  readonly systemName: string
  /** The node or enclosure in which it stands; empty where it is not stated. */
  readonly standsIn: string
  readonly bay: number
  readonly serial: string
  readonly model: string
  readonly firmware: string | null
  readonly media: Drive['media']
  readonly protocol: Drive['protocol']
  readonly capacityBytes: string
  readonly intake: IntakeState
  /** The pool that it is in; null where it is in none. */
  readonly poolName: string | null
  readonly groupIndex: number | null
  readonly wearRatio: number | null
  readonly isLit: boolean
  /** What it is best for in its node; null where it stands in none, or starts it. */
  readonly bestFor: 'cache' | 'capacity' | null
  readonly leftOver: Drive['leftOver']
  readonly powerOnHours: number | null
  readonly driveWritesPerDay: number | null
}

export const driveSorts = ['label', 'where', 'kind', 'state', 'serial', 'model', 'size', 'hours', 'writes'] as const
export type DriveSort = (typeof driveSorts)[number]

/** Drives that are alike in media, protocol, size and state. */
export interface DriveCount extends Pick<Drive, 'media' | 'protocol' | 'capacityBytes'> {
  readonly intake: IntakeState
  readonly count: number
}
