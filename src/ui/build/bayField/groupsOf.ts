import type { Drive, Enclosure } from '@/core/estate'
import type { BayGroup } from './fieldLayout'

/** Enclosures with their drives as groups of bays. @param noteOf what stands beside a title */
export function groupsOf(
  enclosures: readonly Enclosure[],
  drives: readonly Drive[],
  titleOf: (enclosure: Enclosure) => string,
  noteOf: (own: readonly Drive[], enclosure: Enclosure) => string,
): BayGroup[] {
  const byEnclosure = new Map<string, Drive[]>()
  for (const drive of drives) {
    if (drive.enclosureId === null) continue
    const own = byEnclosure.get(drive.enclosureId)
    if (own === undefined) byEnclosure.set(drive.enclosureId, [drive])
    else own.push(drive)
  }
  return enclosures.map(enclosure => {
    const own = byEnclosure.get(enclosure.id) ?? []
    return {
      id: enclosure.id,
      title: titleOf(enclosure),
      note: noteOf(own, enclosure),
      bayCount: enclosure.bayCount,
      baysPerRow: enclosure.baysPerRow,
      drives: own,
    }
  })
}
