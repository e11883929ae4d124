import type { DriveEntity } from '../array'
import type { SimulatedRow } from './SimulatedRow'

/** A node that is away this long is taken for lost: its pieces are made anew elsewhere (fleet seconds). */
const graceSeconds = 600

/** Whether what is on a drive is taken for lost: it or its cache drive failed, or its node has been away too long. */
export function isLostForGood(row: SimulatedRow, drive: DriveEntity): boolean {
  if (drive.isFailed || row.isBankLost(drive)) return true
  const node = row.nodeOf(drive)
  const waited = node.downSince === null ? 0 : (row.array.clock.now() - node.downSince) / 1000
  return waited > graceSeconds
}
