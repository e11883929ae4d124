import { extent } from 'd3-array'
import { scaleLinear } from 'd3-scale'
import { area, line } from 'd3-shape'
import { metrics } from '@/core/metrics'
import type { Lane } from '@/core/views'
import { roundLevels } from '../../drawings/roundLevels'
import { valueWords } from './seriesWords'

type Values = readonly (number | null)[]
const width = 620
const height = 86
const top = 8
const bottom = height - 8

/** One series of a board, with what is usual, what is laid over it, and what it was some days before. */
export function LaneDrawing({ lane, cursor }: { readonly lane: Lane; readonly cursor: number | undefined }) {
  const { asked, values, over, shifted, usual, left } = lane
  const steps = values.length
  const x = (step: number) => ((step + 0.5) / Math.max(1, steps)) * width
  const [least = 0, most = 1] = extent(
    [...values, ...(over?.values ?? []), ...(shifted ?? []), ...(usual?.high ?? []), ...(usual?.low ?? [])].filter(
      each => each !== null,
    ),
  )
  // Levels are read by how they change; what is counted or timed begins at nothing.
  const isLevel = metrics[asked.metric].unit === 'bytes'
  const low = isLevel ? least - (most - least) * 0.08 : 0
  const y = scaleLinear([low, most === low ? low + 1 : most + (most - low) * 0.05], [bottom, top])
  const drawn = line<number | null>()
    .defined(each => each !== null)
    .x((_, step) => x(step))
    .y(each => y(each ?? 0))
  const band = area<number | null>()
    .defined((each, step) => each !== null && usual?.high[step] != null)
    .x((_, step) => x(step))
    .y0(each => y(each ?? 0))
    .y1((_, step) => y(usual?.high[step] ?? 0))
  const path = (of: Values) => drawn(of) ?? ''
  const ticks = isLevel || metrics[asked.metric].unit === 'bytes a second' ? roundLevels(y.domain(), 3) : y.ticks(3)
  return (
    <svg viewBox={`0 0 ${width} ${height}`} preserveAspectRatio="none" className="block h-[86px] w-full" aria-hidden>
      {ticks.map(tick => (
        <line key={tick} x1={0} x2={width} y1={y(tick)} y2={y(tick)} stroke="var(--rule-fine)" />
      ))}
      {usual !== null && <path d={band(usual.low) ?? ''} fill="var(--d7)" opacity={0.28} />}
      {left.map(({ from, to, side }) => (
        <path
          key={from}
          d={outside(values, usual, from, to, side, x, y)}
          fill={side === 'above' ? 'var(--soon)' : 'var(--note)'}
          opacity={0.55}
        />
      ))}
      {shifted !== null && (
        <path
          d={path(shifted)}
          fill="none"
          stroke="var(--second)"
          strokeDasharray="3 2"
          vectorEffect="non-scaling-stroke"
        />
      )}
      {over !== null && (
        <path
          d={path(over.values)}
          fill="none"
          stroke="var(--d3)"
          strokeWidth={1.4}
          vectorEffect="non-scaling-stroke"
        />
      )}
      <path
        d={path(values)}
        fill="none"
        stroke="var(--ink)"
        strokeWidth={1.5}
        strokeLinejoin="round"
        vectorEffect="non-scaling-stroke"
      />
      {cursor !== undefined && (
        <line
          x1={x(cursor)}
          x2={x(cursor)}
          y1={0}
          y2={height}
          stroke="var(--action)"
          vectorEffect="non-scaling-stroke"
        />
      )}
      {ticks.map(tick => (
        <text
          key={tick}
          x={3}
          y={y(tick) - 2}
          style={{ fill: 'var(--second)', fontSize: 9.5, stroke: 'var(--paper)', strokeWidth: 3, paintOrder: 'stroke' }}
        >
          {valueWords(asked.metric, tick)}
        </text>
      ))}
    </svg>
  )
}

/** Between the series and the edge of its band that it has left. */
function outside(
  values: Values,
  usual: Lane['usual'],
  from: number,
  to: number,
  side: 'above' | 'below',
  x: (step: number) => number,
  y: (value: number) => number,
): string {
  const edge = side === 'above' ? usual?.high : usual?.low
  const between = area<number | null>()
    .defined((each, index) => each !== null && edge?.[from + index] != null)
    .x((_, index) => x(from + index))
    .y0((_, index) => y(edge?.[from + index] ?? 0))
    .y1(each => y(each ?? 0))
  return between(values.slice(from, to + 1)) ?? ''
}
