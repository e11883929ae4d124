import { leastGroupDrives, raidLayout, type RaidScheme } from '@/core/layout'
import type { RaidType } from './entities'
import { badValue } from './Refused'

const schemeByRaidType: Readonly<Record<RaidType, RaidScheme>> = {
  RAID1: { kind: 'mirror', copies: 2 },
  RAID1Triple: { kind: 'mirror', copies: 3 },
  RAID5: { kind: 'parity', parityDrives: 1 },
  RAID6: { kind: 'parity', parityDrives: 2 },
  RAID6TP: { kind: 'parity', parityDrives: 3 },
}

/** How many drives of a group may fail before it no longer holds what was written to it. */
export function survivedBy(raidType: RaidType): number {
  const scheme = schemeByRaidType[raidType]
  return scheme.kind === 'mirror' ? scheme.copies - 1 : scheme.parityDrives
}

/** What groups cut as asked can hold; a group that cannot be laid is refused. Each group is a list of its drives' bytes. */
export function layGroups(
  groups: readonly (readonly bigint[])[],
  raidType: RaidType,
): { readonly usableBytes: bigint } {
  const scheme = schemeByRaidType[raidType]
  if (groups.length === 0) throw badValue('The pool was not made.', 'It has no drives.', 'Name drives.')
  const usable = groups.map(group => {
    const layout = raidLayout(group, scheme, group.length, 0)
    if (!layout.feasible || layout.groupCount !== 1) {
      throw badValue(
        'The pool was not made.',
        `${raidType} needs groups of at least ${leastGroupDrives(scheme)} drives, mirrors whole sets.`,
        'Add drives.',
      )
    }
    return layout.usableBytes
  })
  return { usableBytes: usable.reduce((sum, bytes) => sum + bytes, 0n) }
}
