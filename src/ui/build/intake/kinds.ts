import { intakeState, intakeStates, type Drive, type IntakeState } from '@/core/estate'
import { formatBytes } from '@/core/units'

/** Drives alike in media, protocol and size, counted by state. */
export interface DriveKind {
  readonly words: string
  readonly count: number
  readonly bytes: bigint
  readonly byState: Readonly<Record<IntakeState, number>>
}

export const kindWords = (drive: Pick<Drive, 'capacityBytes' | 'media' | 'protocol'>) =>
  `${formatBytes(drive.capacityBytes, 'decimal')} ${drive.protocol === 'NVMe' ? 'NVMe' : `${drive.media === 'SSD' ? `${drive.protocol} SSD` : 'HDD'}`}`

/** All kinds of drives, most bytes first; the counts add up to all drives. */
export function driveKinds(drives: readonly Drive[]): DriveKind[] {
  const kinds = new Map<string, { count: number; bytes: bigint; byState: Record<IntakeState, number> }>()
  for (const drive of drives) {
    const words = kindWords(drive)
    const kind = kinds.get(words) ?? {
      count: 0,
      bytes: 0n,
      byState: Object.fromEntries(intakeStates.map(state => [state, 0])) as Record<IntakeState, number>,
    }
    kind.count += 1
    kind.bytes += drive.capacityBytes
    kind.byState[intakeState(drive)] += 1
    kinds.set(words, kind)
  }
  return [...kinds].map(([words, kind]) => ({ words, ...kind })).sort((a, b) => (a.bytes > b.bytes ? -1 : 1))
}
