import { scaleLinear } from 'd3-scale'
import type { PlacementSketch } from '@/core/plan'

const lanePixels = 44
const topPixels = 22

/** Where each pool's thread passes the measures: across in hundredths, worse at the left; down in pixels. */
export function placementLines({ measures, pools }: Pick<PlacementSketch, 'measures' | 'pools'>) {
  const x = scaleLinear([0, 1], [1, 99])
  const yOf = new Map(measures.map(({ measure }, index) => [measure, topPixels + index * lanePixels]))
  return {
    heightPixels: topPixels + measures.length * lanePixels - 12,
    lanes: measures.map(({ measure }) => ({
      measure,
      y: yOf.get(measure) ?? 0,
      least: leastOf(pools, measure, x),
    })),
    threads: pools.map(pool => ({
      id: pool.id,
      points: pool.parts.map(part => ({ measure: part.measure, x: x(part.place), y: yOf.get(part.measure) ?? 0 })),
    })),
  }
}

function leastOf(pools: PlacementSketch['pools'], measure: string, x: (place: number) => number): number | null {
  const least = pools[0]?.parts.find(part => part.measure === measure)?.least
  return least == null ? null : x(least)
}
