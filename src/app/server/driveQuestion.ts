import { intakeStates } from '@/core/estate'
import { driveSorts } from '@/core/views'
import type { DriveQuestion } from '@/records/queries'

/** What an address may say of a list of drives. */
export interface DrivesAsked {
  readonly filter?: string | undefined
  readonly state?: string | undefined
  readonly kind?: string | undefined
  readonly sort?: string | undefined
  readonly descending?: string | undefined
  readonly systemId?: string | undefined
}

/** What a list of drives is asked for, as its address says; what it does not know is left out. */
export function driveQuestion({ filter = '', state, kind, sort, descending, systemId }: DrivesAsked) {
  const known = intakeStates.find(each => each === state)
  const by = driveSorts.find(each => each === sort)
  return {
    filter: filter.slice(0, 120),
    isDescending: descending === 'true',
    ...(known === undefined ? {} : { state: known }),
    ...(kind === undefined ? {} : { kind: kind.slice(0, 60) }),
    ...(by === undefined ? {} : { sort: by }),
    ...(systemId === undefined ? {} : { systemId }),
  } satisfies DriveQuestion
}
