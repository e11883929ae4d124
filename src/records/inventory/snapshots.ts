import type { Scope } from '../database'
import { inside } from '../model'
import { modelOf } from '../objects'

interface Noted {
  readonly reason?: string
  readonly dueAt?: Date
  readonly heldReason?: string | null
  readonly goesAt?: Date | null
}

/** Keeps what Wendrel knows of snapshots beside what their system states; what is left out stays as it is. */
export async function noteSnapshots(scope: Scope, ids: readonly string[], noted: Noted): Promise<void> {
  if (ids.length > 0 && Object.keys(noted).length > 0)
    await modelOf(scope.database, 'snapshots').update(noted, { where: { id: [...ids] }, ...inside(scope) })
}
