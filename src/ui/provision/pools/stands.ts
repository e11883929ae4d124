import { scaleLinear } from 'd3-scale'
import { provisionableBytes, type Pool } from '@/core/estate'

/** Promised beyond what a pool can give is drawn up to this much of it; the rest is said in words. */
const mostRatio = 1.25
const widthPixels = 240

/** Where a pool's bars end, in pixels; each pool's capacity for volumes is drawn to the same length. */
export function stand(pool: Pool) {
  const capacity = Math.max(1, Number(provisionableBytes(pool))) // a pixel needs no exact byte
  const x = scaleLinear([0, mostRatio], [0, widthPixels]).clamp(true)
  return {
    capacity: x(1),
    written: x(Number(pool.writtenBytes) / capacity),
    promised: x(Number(pool.provisionedBytes) / capacity),
    isCut: Number(pool.provisionedBytes) / capacity > mostRatio,
  }
}
