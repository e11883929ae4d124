'use client'
import { extent, max } from 'd3-array'
import { scaleLinear, scaleUtc, type ScaleTime } from 'd3-scale'
import { line } from 'd3-shape'
import { hourWords } from '../../parts/hourWords'
import { roundLevels } from '../roundLevels'
import { useState, type KeyboardEvent, type PointerEvent } from 'react'

/** One quantity over the same instants as the others. */
export interface CourseRow {
  readonly name: string
  /** Null where nothing was measured: the line has a gap there. */
  readonly values: readonly (number | null)[]
  /** Another course to compare with, drawn fainter. */
  readonly beside?: { readonly name: string; readonly values: readonly (number | null)[] }
  /** What should not be exceeded. */
  readonly limit?: { readonly words: string; readonly value: number }
  readonly unit: 'latency' | 'requests' | 'throughput' | 'size' | 'depth' | 'part'
}

interface CourseChartsProps {
  readonly title: string
  readonly about: string
  /** Where each span begins (milliseconds since 1970). */
  readonly times: readonly number[]
  readonly rows: readonly CourseRow[]
  readonly words: (unit: CourseRow['unit'], value: number) => string
}

const width = 760
const left = 62
const right = width - 6
const rowPixels = 66

/** Several courses above one another, read at one instant by one cursor. */
export function CourseCharts({ title, about, times, rows, words }: CourseChartsProps) {
  const { cursor, follow, leave, step } = useCursor(times.length)
  const [first = 0, last = 1] = extent(times)
  const x = scaleUtc([first, last], [left, right])
  const height = rows.length * rowPixels + 18
  const read = cursor === undefined ? undefined : readingAt(cursor, times, rows, words)
  const at = cursor === undefined ? undefined : x(times[cursor] ?? 0)
  return (
    <figure className="m-0">
      <h3>
        {title} <span>{about}</span>
      </h3>
      <svg
        viewBox={`0 0 ${width} ${height}`}
        className="block w-full touch-pan-y"
        role="slider"
        tabIndex={0}
        aria-label={`${title}: ${rows.map(({ name }) => name).join(', ')}`}
        aria-valuemin={0}
        aria-valuemax={Math.max(0, times.length - 1)}
        aria-valuenow={cursor ?? Math.max(0, times.length - 1)}
        aria-valuetext={read ?? 'Arrow keys read an hour'}
        onPointerMove={follow}
        onPointerLeave={leave}
        onKeyDown={step}
      >
        {rows.map((row, index) => (
          <Row key={row.name} row={row} times={times} x={x} top={index * rowPixels} words={words} />
        ))}
        <Days x={x} y={height - 3} />
        {at !== undefined && (
          <line x1={at} x2={at} y1={4} y2={height - 16} stroke="var(--action)" strokeDasharray="2 2" />
        )}
      </svg>
      <div className="min-h-[18px] text-xs text-second" aria-live="polite">
        {read}
      </div>
    </figure>
  )
}

/** At which of so many steps the cursor stands, by pointer or by keys. */
function useCursor(steps: number) {
  const [cursor, put] = useState<number>()
  const leave = () => put(undefined)
  const move = (to: number) => put(Math.min(steps - 1, Math.max(0, to)))
  const follow = (event: PointerEvent<SVGSVGElement>) => {
    const box = event.currentTarget.getBoundingClientRect()
    const share = (((event.clientX - box.left) / box.width) * width - left) / (right - left)
    move(Math.round(share * (steps - 1)))
  }
  const step = (event: KeyboardEvent) => {
    const by = { ArrowLeft: -1, ArrowRight: 1, PageUp: -24, PageDown: 24 }[event.key]
    if (event.key === 'Escape') return leave()
    if (by === undefined) return
    event.preventDefault()
    move((cursor ?? steps - 1) + by)
  }
  return { cursor, follow, leave, step }
}

const Days = ({ x, y }: { readonly x: ScaleTime<number, number>; readonly y: number }) =>
  x.ticks(7).map(tick => (
    <text key={tick.getTime()} x={x(tick)} y={y} textAnchor="middle" style={{ fill: 'var(--second)', fontSize: 10.5 }}>
      {tick.toLocaleDateString('en', { weekday: 'short', day: 'numeric', timeZone: 'UTC' })}
    </text>
  ))

interface RowProps {
  readonly row: CourseRow
  readonly times: readonly number[]
  readonly x: (at: number) => number
  readonly top: number
  readonly words: CourseChartsProps['words']
}

function Row({ row, times, x, top, words }: RowProps) {
  const { name, values, beside, limit, unit } = row
  const most = max([...values, ...(beside?.values ?? []), limit?.value ?? 0], each => each ?? 0) ?? 0
  const y = scaleLinear([0, most === 0 ? 1 : most * 1.06], [top + rowPixels - 12, top + 18])
  const drawn = line<number | null>()
    .defined(each => each !== null)
    .x((_, index) => x(times[index] ?? 0))
    .y(each => y(each ?? 0))
  return (
    <g>
      {(unit === 'throughput' || unit === 'size' ? roundLevels(y.domain(), 2) : y.ticks(2)).map(tick => (
        <g key={tick}>
          <line x1={left} x2={right} y1={y(tick)} y2={y(tick)} stroke="var(--rule-fine)" />
          <text x={left - 6} y={y(tick) + 3.5} textAnchor="end" style={{ fill: 'var(--second)', fontSize: 10 }}>
            {words(unit, tick)}
          </text>
        </g>
      ))}
      <text x={left} y={top + 11} fontWeight={600} style={{ fontSize: 11.5 }}>
        {name}
      </text>
      {beside !== undefined && (
        <>
          <path d={drawn(beside.values) ?? ''} fill="none" stroke="var(--d7)" strokeWidth={1.2} />
          <text x={right} y={top + 11} textAnchor="end" style={{ fill: 'var(--second)', fontSize: 10.5 }}>
            {beside.name} in the lighter line
          </text>
        </>
      )}
      {limit !== undefined && (
        <line x1={left} x2={right} y1={y(limit.value)} y2={y(limit.value)} stroke="var(--now)" strokeDasharray="5 3">
          <title>{limit.words}</title>
        </line>
      )}
      <path d={drawn(values) ?? ''} fill="none" stroke="var(--ink)" strokeWidth={1.5} strokeLinejoin="round" />
    </g>
  )
}

function readingAt(
  index: number,
  times: readonly number[],
  rows: readonly CourseRow[],
  words: CourseChartsProps['words'],
): string {
  const said = (unit: CourseRow['unit'], value: number | null | undefined) =>
    value === null || value === undefined ? 'not measured' : words(unit, value)
  const parts = rows.flatMap(({ name, values, beside, unit }) => [
    `${name} ${said(unit, values[index])}`,
    ...(beside === undefined ? [] : [`${beside.name} ${said(unit, beside.values[index])}`]),
  ])
  return `${hourWords(times[index] ?? 0)}: ${parts.join(', ')}`
}
