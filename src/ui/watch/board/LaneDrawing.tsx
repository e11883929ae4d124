import { extent } from 'd3-array'
import { scaleLinear } from 'd3-scale'
import { area, line } from 'd3-shape'
import type { SVGAttributes } from 'react'
import { metrics, type MetricName } from '@/core/metrics'
import type { BoardBand, Course, Lane } from '@/core/views'
import { roundLevels } from '../../drawings/roundLevels'
import { laneKey, valueWords } from './seriesWords'

type Values = readonly (number | null)[]
const width = 620
const height = 86
const top = 8
const bottom = height - 8

/** One series of a board, with what is usual, what is laid over it, and what it was some days before. */
export function LaneDrawing({ lane, cursor }: { readonly lane: Lane; readonly cursor: number | undefined }) {
  const { asked, values, over, shifted, usual } = lane
  const scales = scalesOf(lane)
  const { x, y, yOver, ticks } = scales
  return (
    <svg
      data-lane={laneKey(asked)}
      viewBox={`0 0 ${width} ${height}`}
      preserveAspectRatio="none"
      className="block h-[86px] w-full"
      aria-hidden
    >
      {ticks.map(tick => (
        <line key={tick} x1={0} x2={width} y1={y(tick)} y2={y(tick)} stroke="var(--rule-fine)" />
      ))}
      {usual !== null && <path d={between(usual, scales)} fill="var(--d7)" opacity={0.28} />}
      <Shade of={lane.shifted} at={scales} fill="var(--second)" />
      <Shade of={lane.over} at={{ x, y: yOver }} fill="var(--d3)" />
      <Shade of={lane} at={scales} fill="var(--ink)" />
      <LeftUsual lane={lane} x={x} y={y} />
      {shifted !== null && <Line of={shifted.values} x={x} y={y} stroke="var(--second)" strokeDasharray="3 2" />}
      {over !== null && <Line of={over.values} x={x} y={yOver} stroke="var(--d3)" strokeWidth={1.4} />}
      <Line of={values} x={x} y={y} stroke="var(--ink)" strokeWidth={1.5} strokeLinejoin="round" />
      {cursor !== undefined && (
        <path d={`M${x(cursor)} 0V${height}`} stroke="var(--action)" vectorEffect="non-scaling-stroke" />
      )}
      {ticks.map(tick => (
        <text key={tick} x={3} y={y(tick) - 2} style={{ ...halo, fill: 'var(--second)' }}>
          {valueWords(asked.metric, tick)}
        </text>
      ))}
      {asked.over?.isOwnScale === true && <OwnScale metric={asked.over.metric} domain={yOver.domain()} />}
    </svg>
  )
}

type Scale = (value: number) => number
interface Scaled {
  readonly x: Scale
  readonly y: Scale
}

interface ShadeProps {
  readonly of: Course | null
  readonly at: Scaled
  readonly fill: string
}

/** From the least to the most of each step, where a step has several values. */
const Shade = ({ of, at, fill }: ShadeProps) =>
  of === null || of.extremes === null ? null : (
    <path data-extremes d={between(of.extremes, at)} fill={fill} opacity={0.16} />
  )

/** The outline of a band. */
const between = ({ low, high }: BoardBand, { x, y }: Scaled) =>
  area<number | null>()
    .defined((each, step) => each !== null && high[step] != null)
    .x((_, step) => x(step))
    .y0(each => y(each ?? 0))
    .y1((_, step) => y(high[step] ?? 0))(low) ?? ''

function Line({
  of,
  x,
  y,
  ...style
}: Scaled & Omit<SVGAttributes<SVGPathElement>, 'x' | 'y'> & { readonly of: Values }) {
  const drawn = line<number | null>()
    .defined(each => each !== null)
    .x((_, step) => x(step))
    .y(each => y(each ?? 0))
  return <path d={drawn(of) ?? ''} fill="none" vectorEffect="non-scaling-stroke" {...style} />
}

const LeftUsual = ({ lane: { left, values, usual }, x, y }: Scaled & { readonly lane: Lane }) =>
  left.map(({ from, to, side }) => (
    <path
      key={from}
      d={outside(values, usual, from, to, side, x, y)}
      fill={side === 'above' ? 'var(--soon)' : 'var(--note)'}
      opacity={0.55}
    />
  ))

/** The least and the most of what is laid over it, where that is read by a scale of its own. */
const OwnScale = ({ metric, domain }: { readonly metric: MetricName; readonly domain: readonly number[] }) =>
  domain.map((value, end) => (
    <text
      key={end}
      x={width - 3}
      y={end === 0 ? bottom : top + 6}
      textAnchor="end"
      style={{ ...halo, fill: 'var(--d3)' }}
    >
      {valueWords(metric, value)}
    </text>
  ))

/** Words upon lines stay readable; letters moved to whole pixels would lie upon the point of a small figure. */
const halo = {
  fontSize: 10,
  textRendering: 'geometricPrecision',
  stroke: 'var(--paper)',
  strokeWidth: 3,
  paintOrder: 'stroke',
} as const

/** Where a step and a value lie, with round levels to read them by. */
function scalesOf({ asked, values, extremes, over, shifted, usual }: Lane) {
  const x = (step: number) => ((step + 0.5) / Math.max(1, values.length)) * width
  const isOwn = asked.over?.isOwnScale === true
  const numbers = (...all: readonly Values[]) => all.flat().filter(each => each !== null)
  const ends = (band: BoardBand | null | undefined): Values[] => (band == null ? [] : [band.high, band.low])
  const laid = [over?.values ?? [], ...ends(over?.extremes)]
  const [least = 0, most = 1] = extent(
    numbers(
      ...[values, ...ends(extremes), ...ends(usual), ...(isOwn ? [] : laid)],
      ...[shifted?.values ?? [], ...ends(shifted?.extremes)],
    ),
  )
  // Levels are read by how they change; what is counted or timed begins at nothing.
  const { unit } = metrics[asked.metric]
  const low = unit === 'bytes' || unit === 'count' || unit === 'degrees' ? least - (most - least) * 0.08 : 0
  const y = scaleLinear([low, most === low ? low + 1 : most + (most - low) * 0.05], [bottom, top])
  const [leastOver = 0, mostOver = 1] = extent(numbers(...laid))
  const own = scaleLinear([leastOver, mostOver === leastOver ? leastOver + 1 : mostOver], [bottom, top])
  const isOfBytes = unit === 'bytes' || unit === 'bytes a second'
  return { x, y, yOver: isOwn ? own : y, ticks: isOfBytes ? roundLevels(y.domain(), 3) : y.ticks(3) }
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
