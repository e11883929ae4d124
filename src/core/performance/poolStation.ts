import type { Pool } from '../estate'
import type { Station } from './station'
import { writeCost } from './writes'

/** What a drive takes for a small request that it has to go and get (seconds): what is usual of its kind, where nothing was measured. */
const usualSeconds = { HDD: 0.0062, SSD: 0.000_18 } as const

/** One of a pool's drives: stripes lie on all of them alike, and each has a queue of its own. */
export const driveStation = (pool: Pool): Station => ({
  model: 'mmc',
  serviceSeconds: usualSeconds[pool.driveKind.media],
  servers: 1,
})

/** The drives that hold a pool's data. */
export const dataDrives = ({ groupSizes }: Pick<Pool, 'groupSizes'>): number =>
  Math.max(
    1,
    groupSizes.reduce((sum, size) => sum + size, 0),
  )

/** Requests of drives that a small write of a host makes. */
export function writeCostOf({ scheme }: Pick<Pool, 'scheme'>): number {
  switch (scheme.kind) {
    case 'mirror':
    case 'copies':
      return writeCost({ layout: 'mirror', copies: scheme.copies })
    case 'parity':
      return writeCost({ layout: 'paritySmallWrite', parityDrives: scheme.parityDrives })
    case 'unknown':
      return 1
    case 'erasure':
      return writeCost({ layout: 'fullStripe', dataPieces: scheme.dataPieces, parityPieces: scheme.parityPieces })
  }
}
