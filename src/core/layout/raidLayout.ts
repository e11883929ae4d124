/** How a RAID group is protected. */
export type RaidScheme =
  | { readonly kind: 'parity'; readonly parityDrives: number }
  | { readonly kind: 'mirror'; readonly copies: number }

export interface RaidGroupLayout {
  /** Positions in the list that was given. */
  readonly driveIndexes: readonly number[]
  readonly smallestBytes: bigint
  readonly usableBytes: bigint
  readonly strandedBytes: bigint
}

export interface RaidLayout {
  readonly feasible: true
  readonly groupCount: number
  readonly groupSizes: readonly number[]
  readonly spareIndexes: readonly number[]
  readonly groups: readonly RaidGroupLayout[]
  readonly rawBytes: bigint
  readonly usableBytes: bigint
  readonly redundancyBytes: bigint
  readonly strandedBytes: bigint
  readonly spareBytes: bigint
}

export interface NoRaidLayout {
  readonly feasible: false
  readonly reason: 'no-drives' | 'not-a-multiple-of-copies' | 'group-too-small'
}

/** The fewest drives that a group may have (count). */
export const leastGroupDrives = (scheme: RaidScheme) =>
  scheme.kind === 'parity' ? scheme.parityDrives + 2 : scheme.copies

/**
 * Cuts drives into spares and RAID groups and accounts for every byte: raw = usable + redundancy + stranded + spare.
 * @param driveBytes the drives' sizes, in any order; results refer to positions in this list
 * @param maxGroupDrives the most drives a group may have (count)
 * @param spareCount drives kept back; they are the largest, so that any drive can be replaced by them
 */
export function raidLayout(
  driveBytes: readonly bigint[],
  scheme: RaidScheme,
  maxGroupDrives: number,
  spareCount: number,
): RaidLayout | NoRaidLayout {
  const order = driveBytes
    .map((bytes, index) => ({ bytes, index }))
    .sort((a, b) => (a.bytes === b.bytes ? a.index - b.index : a.bytes > b.bytes ? -1 : 1))
  const spares = order.slice(0, spareCount)
  const rest = order.slice(spareCount)
  const sizes = groupSizes(rest.length, scheme, maxGroupDrives)
  if (typeof sizes === 'string') return { feasible: false, reason: sizes }
  let from = 0
  const groups = sizes.map(size => groupOf(rest.slice(from, (from += size)), scheme))
  const sum = (values: readonly bigint[]) => values.reduce((total, value) => total + value, 0n)
  const rawBytes = sum(driveBytes)
  const usableBytes = sum(groups.map(group => group.usableBytes))
  const strandedBytes = sum(groups.map(group => group.strandedBytes))
  const spareBytes = sum(spares.map(drive => drive.bytes))
  return {
    feasible: true,
    groupCount: groups.length,
    groupSizes: sizes,
    spareIndexes: spares.map(drive => drive.index),
    groups,
    rawBytes,
    usableBytes,
    redundancyBytes: rawBytes - usableBytes - strandedBytes - spareBytes,
    strandedBytes,
    spareBytes,
  }
}

function groupSizes(drives: number, scheme: RaidScheme, maxGroupDrives: number): number[] | NoRaidLayout['reason'] {
  if (drives <= 0) return 'no-drives'
  const unit = scheme.kind === 'mirror' ? scheme.copies : 1
  if (drives % unit !== 0) return 'not-a-multiple-of-copies'
  const units = drives / unit
  const mostUnits = Math.floor(maxGroupDrives / unit)
  if (mostUnits < 1) return 'group-too-small'
  const groups = Math.ceil(units / mostUnits)
  const sizes = Array.from(
    { length: groups },
    (_, index) => (Math.floor(units / groups) + (index < units % groups ? 1 : 0)) * unit,
  )
  return sizes.some(size => size < leastGroupDrives(scheme)) ? 'group-too-small' : sizes
}

function groupOf(
  drives: readonly { readonly bytes: bigint; readonly index: number }[],
  scheme: RaidScheme,
): RaidGroupLayout {
  const smallestBytes = drives.reduce(
    (least, drive) => (drive.bytes < least ? drive.bytes : least),
    drives[0]?.bytes ?? 0n,
  )
  const dataDrives = scheme.kind === 'parity' ? drives.length - scheme.parityDrives : drives.length / scheme.copies
  return {
    driveIndexes: drives.map(drive => drive.index),
    smallestBytes,
    usableBytes: BigInt(dataDrives) * smallestBytes,
    strandedBytes: drives.reduce((sum, drive) => sum + drive.bytes - smallestBytes, 0n),
  }
}
