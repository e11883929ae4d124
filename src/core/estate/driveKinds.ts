import { formatBytes } from '../units'
import { intakeStates, type IntakeState } from './intakeState'
import type { Drive } from './schemas'

type Alike = Pick<Drive, 'media' | 'protocol' | 'capacityBytes'>

/** Drives alike in media, protocol and size, counted by state. */
export interface DriveKind {
  readonly words: string
  readonly count: number
  readonly bytes: bigint
  readonly byState: Readonly<Record<IntakeState, number>>
}

export const kindWords = ({ capacityBytes, media, protocol }: Alike) =>
  `${formatBytes(capacityBytes, 'decimal')} ${protocol === 'NVMe' ? 'NVMe' : media === 'SSD' ? `${protocol} SSD` : 'HDD'}`

/** All kinds of drives, most bytes first; the counts add up to all drives. Sizes that read alike are one kind. */
export function driveKinds(
  counted: readonly (Alike & { readonly intake: IntakeState; readonly count: number })[],
): DriveKind[] {
  const kinds = new Map<string, { count: number; bytes: bigint; byState: Record<IntakeState, number> }>()
  for (const each of counted) {
    const words = kindWords(each)
    const kind = kinds.get(words) ?? {
      count: 0,
      bytes: 0n,
      byState: Object.fromEntries(intakeStates.map(state => [state, 0])) as Record<IntakeState, number>,
    }
    kind.count += each.count
    kind.bytes += each.capacityBytes * BigInt(each.count)
    kind.byState[each.intake] += each.count
    kinds.set(words, kind)
  }
  return [...kinds].map(([words, kind]) => ({ words, ...kind })).sort((a, b) => (a.bytes > b.bytes ? -1 : 1))
}
