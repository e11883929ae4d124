/** One rung of the way from raw to free. `sum` opens it to the figures that it came from. */
export interface Rung {
  readonly name: string
  /** What is left on this rung. */
  readonly bytes: bigint
  /** What the rung took from the one before it. */
  readonly takenBytes: bigint
  readonly sum: readonly { readonly name: string; readonly bytes: bigint }[]
}

export interface LadderInput {
  readonly rawBytes: bigint
  readonly spareBytes: bigint
  readonly redundancyBytes: bigint
  readonly strandedBytes: bigint
  /** Of what is stranded, what whole pieces of stripe sets do not fill. */
  readonly unevenBytes?: bigint
  /** What the system keeps for its own accounts. */
  readonly metadataBytes: bigint
  readonly snapshotReserveBytes: bigint
  /** Kept free so that all can be made whole again after losing the largest failure domain. */
  readonly rebuildReserveBytes?: bigint
  /** Drives that only speed up others. */
  readonly cacheBytes?: bigint
  readonly writtenBytes: bigint
}

const million = 1_000_000n

/** A share of bytes in whole numbers, rounded down: ratios are taken to a millionth, without a detour through doubles. */
export const shareOf = (bytes: bigint, ratio: number) => (bytes * BigInt(Math.round(ratio * Number(million)))) / million

/**
 * The ladder of a pool, in the order in which space is taken: spares, layout, metadata, rebuild reserve, snapshot reserve, written.
 * Every rung keeps its own figure, so that each can be opened to its sum; the rungs' `takenBytes` and the last `bytes` add up to raw.
 */
export function capacityLadder(input: LadderInput): Rung[] {
  const rungs: Rung[] = []
  let left = input.rawBytes
  const step = (name: string, takenBytes: bigint, sum: Rung['sum']) => {
    left -= takenBytes
    rungs.push({ name, bytes: left, takenBytes, sum })
  }
  step('raw', 0n, [{ name: 'all chosen drives', bytes: input.rawBytes }])
  const cacheBytes = input.cacheBytes ?? 0n
  step(cacheBytes > 0n ? 'after cache' : 'after spares', input.spareBytes + cacheBytes, [
    { name: 'drives kept as spares', bytes: input.spareBytes },
    ...(cacheBytes > 0n ? [{ name: 'cache drives', bytes: cacheBytes }] : []),
  ])
  const unevenBytes = input.unevenBytes ?? 0n
  step('after layout', input.redundancyBytes + input.strandedBytes, [
    { name: 'parity or copies', bytes: input.redundancyBytes },
    { name: 'stranded on larger drives', bytes: input.strandedBytes - unevenBytes },
    ...(unevenBytes > 0n ? [{ name: 'not filled by whole pieces', bytes: unevenBytes }] : []),
  ])
  step('after metadata', input.metadataBytes, [{ name: "the system's own accounts", bytes: input.metadataBytes }])
  const rebuildReserveBytes = input.rebuildReserveBytes ?? 0n
  // Only layouts over failure domains know this reserve; elsewhere it would be a step of nothing.
  if (rebuildReserveBytes > 0n)
    step('after rebuild reserve', rebuildReserveBytes, [
      { name: 'to heal after losing the largest failure domain', bytes: rebuildReserveBytes },
    ])
  step('after snapshot reserve', input.snapshotReserveBytes, [
    { name: 'kept for snapshots', bytes: input.snapshotReserveBytes },
  ])
  step('free', input.writtenBytes, [{ name: 'written by hosts', bytes: input.writtenBytes }])
  return rungs
}
