'use client'
import { useState } from 'react'
import type { RungText } from '@/core/plan'
import { formatBytes } from '@/core/units'
import { Bytes } from '../../parts/Bytes'
import { Hatch } from '../../parts/Hatch'
import { ladderBars, type RungBar } from './ladderBars'

interface LadderProps {
  readonly title: string
  readonly rungs: readonly RungText[]
  readonly width?: number
}

const rowPixels = 23
const namePixels = 136
const figurePixels = 82
/** The same rung has the same colour in every ladder: raw as it is bought, then what a layout leaves, then what is for volumes. */
const colours: Readonly<Record<string, string>> = {
  raw: 'var(--d7)',
  'in pools': 'var(--d7)',
  'after spares': 'var(--d4)',
  'after cache': 'var(--d4)',
  'after layout': 'var(--d4)',
  'after metadata': 'var(--d3)',
  'after rebuild reserve': 'var(--d3)',
}

/** From raw to free as a stepped bar; each rung opens to the sum that it came from. */
export function Ladder({ title, rungs, width = 460 }: LadderProps) {
  const [opened, open] = useState<string>()
  const [isTable, showTable] = useState(false)
  const rung = rungs.find(each => each.name === opened)
  return (
    <figure className="m-0">
      <h3>
        {title}
        <button
          type="button"
          className="border-0 bg-transparent p-0 text-xs font-normal text-faint hover:text-ink"
          aria-pressed={isTable}
          onClick={() => showTable(was => !was)}
        >
          {isTable ? 'as a drawing' : 'as a table'}
        </button>
      </h3>
      {isTable ? <RungTable rungs={rungs} /> : <Bars {...{ title, rungs, width, opened, open }} />}
      {rung !== undefined && !isTable && <Sum rung={rung} />}
    </figure>
  )
}

interface BarsProps extends Required<LadderProps> {
  readonly opened: string | undefined
  readonly open: (name: string | undefined) => void
}

function Bars({ title, rungs, width, opened, open }: BarsProps) {
  const height = rungs.length * rowPixels
  return (
    <svg
      viewBox={`0 0 ${width} ${height}`}
      className="block w-full"
      style={{ maxWidth: width * 1.35 }}
      role="group"
      aria-label={`${title}: ${rungs.map(inWords).join('; ')}`}
    >
      <Hatch id="ladder-taken" />
      {ladderBars(rungs, width - namePixels - figurePixels, height).map((bar, index) => (
        <Bar
          key={bar.rung.name}
          bar={bar}
          width={width}
          colour={colours[bar.rung.name] ?? 'var(--d1)'}
          isLast={index === rungs.length - 1}
          isOpened={opened === bar.rung.name}
          toggle={() => open(opened === bar.rung.name ? undefined : bar.rung.name)}
        />
      ))}
    </svg>
  )
}

interface BarProps {
  readonly bar: RungBar
  readonly width: number
  readonly colour: string
  readonly isLast: boolean
  readonly isOpened: boolean
  readonly toggle: () => void
}

/** A rung: its name, what is left, what was taken on it, and the figure. */
function Bar({ bar, width, colour, isLast, isOpened, toggle }: BarProps) {
  const middle = bar.y + bar.height / 2 + 4
  return (
    <g
      role="button"
      tabIndex={0}
      aria-label={`${inWords(bar.rung)}. Open to its sum`}
      aria-expanded={isOpened}
      className="cursor-pointer outline-offset-0"
      onClick={toggle}
      onKeyDown={event => {
        if (event.key !== 'Enter' && event.key !== ' ') return
        event.preventDefault()
        toggle()
      }}
    >
      <rect
        x={0}
        y={bar.y - 3}
        width={width}
        height={bar.height + 6}
        fill={isOpened ? 'var(--action-wash)' : 'transparent'}
      />
      <RungName words={bar.rung.name} y={middle} isLast={isLast} />
      <rect
        x={namePixels}
        y={bar.y}
        width={Math.max(bar.width, 0.5)}
        height={bar.height}
        fill={colour}
        opacity={isLast ? 1 : 0.6}
      />
      {bar.takenWidth > 0.5 && <Taken bar={bar} />}
      <Figure width={width} middle={middle} isLast={isLast} bar={bar} />
    </g>
  )
}

const RungName = ({ words, y, isLast }: { readonly words: string; readonly y: number; readonly isLast: boolean }) => (
  <text
    x={namePixels - 8}
    y={y}
    textAnchor="end"
    fontWeight={isLast ? 600 : 400}
    style={{ fill: isLast ? 'var(--ink)' : 'var(--second)' }}
  >
    {words}
  </text>
)

/** What a rung is the sum of. */
const Sum = ({ rung }: { readonly rung: RungText }) => (
  <div className="mt-1 border-l-2 border-action pl-3">
    <div className="text-second">
      {rung.name}: {rung.takenBytes === '0' ? 'the sum of' : `less ${formatBytes(BigInt(rung.takenBytes))}, the sum of`}
    </div>
    {rung.sum.map(item => (
      <div key={item.name} className="flex justify-between gap-3">
        <span className="min-w-0 truncate">{item.name}</span>
        <Bytes bytes={item.bytes} />
      </div>
    ))}
  </div>
)

const inWords = (rung: RungText) => `${rung.name} ${formatBytes(BigInt(rung.bytes))}`

function RungTable({ rungs }: { readonly rungs: readonly RungText[] }) {
  return (
    <table className="plain">
      <thead>
        <tr>
          <th>Rung</th>
          <th className="number">Taken</th>
          <th className="number">Left</th>
        </tr>
      </thead>
      <tbody>
        {rungs.map(rung => (
          <tr key={rung.name}>
            <td>{rung.name}</td>
            <td className="number">
              <Bytes bytes={rung.takenBytes} />
            </td>
            <td className="number">
              <Bytes bytes={rung.bytes} />
            </td>
          </tr>
        ))}
      </tbody>
    </table>
  )
}

interface TakenProps {
  readonly bar: RungBar
}

const Taken = ({ bar }: TakenProps) => (
  <rect
    x={namePixels + bar.takenX}
    y={bar.y}
    width={bar.takenWidth}
    height={bar.height}
    fill="url(#ladder-taken)"
    stroke="var(--faint)"
    strokeWidth={0.5}
  />
)

interface FigureProps {
  readonly width: number
  readonly middle: number
  readonly isLast: boolean
  readonly bar: RungBar
}

const Figure = ({ width, middle, isLast, bar }: FigureProps) => (
  <text
    x={width - 2}
    y={middle}
    textAnchor="end"
    style={{ fontFamily: 'var(--font-mono)', fontWeight: isLast ? 600 : 400 }}
  >
    {formatBytes(BigInt(bar.rung.bytes))}
  </text>
)
