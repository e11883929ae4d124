import type { Drive } from '../estate'

export type DriveRole = 'cache' | 'capacity'

export interface SuggestedRole {
  readonly role: DriveRole
  readonly why: string
}

/** Full drive writes a day from which flash stands being written through all day. */
const cacheWritesPerDay = 3

/**
 * What a drive is best for among those beside it: flash that stands many writes and is small next to the rest takes the writes of
 * others; everything else keeps data.
 * @param beside all drives of the same node that could be chosen
 */
export function suggestedRole(
  drive: Pick<Drive, 'media' | 'capacityBytes' | 'driveWritesPerDay'>,
  beside: readonly Pick<Drive, 'media' | 'capacityBytes'>[],
): SuggestedRole {
  if (drive.media === 'HDD')
    return { role: 'capacity', why: 'A disk keeps data; it is too slow to take the writes of others.' }
  const writes = drive.driveWritesPerDay
  if (writes === null || writes < cacheWritesPerDay) {
    const stands = writes === null ? 'How many writes it stands is not stated' : `It stands ${writes} full writes a day`
    return { role: 'capacity', why: `${stands}; a cache needs ${cacheWritesPerDay}.` }
  }
  const largest = beside.reduce((most, each) => (each.capacityBytes > most ? each.capacityBytes : most), 0n)
  const hasDisks = beside.some(each => each.media === 'HDD')
  if (hasDisks) return { role: 'cache', why: `Flash beside disks, and it stands ${writes} full writes a day.` }
  return drive.capacityBytes * 2n <= largest
    ? { role: 'cache', why: `It stands ${writes} full writes a day and is small beside the others.` }
    : { role: 'capacity', why: 'It is as large as the others: as cache its space would be missed.' }
}
