import { scaleBand, scaleLinear } from 'd3-scale'
import type { RungText } from '@/core/plan'

export interface RungBar {
  readonly rung: RungText
  readonly y: number
  readonly height: number
  readonly width: number
  /** Where what this rung took begins, and how wide it is. */
  readonly takenX: number
  readonly takenWidth: number
}

/** Where each rung of the capacity ladder stands, in pixels. Nothing is drawn here. */
export function ladderBars(rungs: readonly RungText[], widthPixels: number, heightPixels: number): RungBar[] {
  const drawn = (text: string) => Math.max(0, Number(text)) // a pixel needs no exact byte; accounts stay bigint
  const x = scaleLinear([0, Math.max(1, ...rungs.map(rung => drawn(rung.bytes)))], [0, widthPixels])
  const y = scaleBand(
    rungs.map(rung => rung.name),
    [0, heightPixels],
  ).padding(0.28)
  return rungs.map(rung => ({
    rung,
    y: y(rung.name) ?? 0,
    height: y.bandwidth(),
    width: x(drawn(rung.bytes)),
    takenX: x(drawn(rung.bytes)),
    takenWidth: x(drawn(rung.takenBytes)),
  }))
}
