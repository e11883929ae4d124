import { useRef, type KeyboardEvent, type MouseEvent } from 'react'
import type { Judged } from '@/core/snapshots'
import { formatBytes } from '@/core/units'
import { keptInWords, snapshotColumns } from './snapshotColumns'

interface SnapshotRulesProps {
  readonly all: readonly Judged[]
  readonly timeZone: string
  readonly chosen: ReadonlySet<string>
  readonly focused: string | undefined
  /** Chooses one, or all from the one in focus up to it. */
  readonly choose: (id: string, isRun: boolean) => void
  readonly focus: (id: string) => void
}

const widthPixels = 764
const laneWords = {
  keepLast: 'last',
  hourly: 'hourly',
  daily: 'daily',
  weekly: 'weekly',
  monthly: 'monthly',
  yearly: 'yearly',
  besides: 'held or in use',
} as const

/** Which rule keeps which snapshot: a column each, a note on every rule that needs it, its own space below. */
export function SnapshotRules({ all, timeZone, chosen, focused, choose, focus }: SnapshotRulesProps) {
  const { columns, lanes, baseY, stepPixels, labelPixels, ...size } = snapshotColumns(all, widthPixels, timeZone)
  const list = useRef<SVGSVGElement>(null)
  const move = (event: KeyboardEvent, index: number) => {
    const next = { ArrowLeft: index - 1, ArrowRight: index + 1, Home: 0, End: all.length - 1 }[event.key]
    const target = next === undefined ? undefined : all[next]?.snapshot.id
    if (event.key === ' ' || event.key === 'Enter') choose(all[index]?.snapshot.id ?? '', false)
    else if (target === undefined) return
    else if (event.shiftKey) choose(target, true)
    if (target !== undefined) {
      focus(target)
      list.current?.querySelector<SVGGElement>(`[data-snapshot="${target}"]`)?.focus()
    }
    event.preventDefault()
  }
  const press = (event: MouseEvent, id: string) => {
    choose(id, event.shiftKey)
    focus(id)
  }
  const atHand = focused ?? all.at(-1)?.snapshot.id
  return (
    <div className="overflow-x-auto pb-1">
      <svg
        ref={list}
        viewBox={`0 0 ${size.widthPixels} ${size.heightPixels}`}
        width={size.widthPixels}
        height={size.heightPixels}
        className="block max-w-none select-none"
        role="listbox"
        aria-multiselectable
        aria-label="Snapshots, oldest first"
      >
        {lanes.map(({ lane, y }) => (
          <g key={lane}>
            <text x={0} y={y + 4} className="fill-ink">
              {laneWords[lane]}
            </text>
            <line x1={labelPixels} x2={size.widthPixels} y1={y} y2={y} stroke="var(--rule)" />
          </g>
        ))}
        <text x={0} y={baseY + 16} style={{ fill: 'var(--second)' }}>
          own space
        </text>
        <line x1={labelPixels} x2={size.widthPixels} y1={baseY} y2={baseY} stroke="var(--ink)" />
        {columns.map((column, index) => {
          const judged = all[index]
          if (judged === undefined) return null
          const isChosen = chosen.has(column.id)
          const colour = isChosen ? 'var(--action)' : judged.snapshot.goesAt === null ? 'var(--ink)' : 'var(--faint)'
          return (
            <g
              key={column.id}
              role="option"
              aria-selected={isChosen}
              aria-label={inWords(judged)}
              tabIndex={column.id === atHand ? 0 : -1}
              data-snapshot={column.id}
              className="cursor-pointer"
              onClick={event => press(event, column.id)}
              onKeyDown={event => move(event, index)}
              onFocus={() => focus(column.id)}
            >
              <title>{inWords(judged)}</title>
              <rect
                x={column.x - stepPixels / 2}
                y={22}
                width={stepPixels}
                height={size.heightPixels - 24}
                fill={isChosen ? 'var(--action-wash)' : 'transparent'}
                stroke={column.id === focused ? 'var(--action)' : 'none'}
              />
              <line
                x1={column.x}
                x2={column.x}
                y1={Math.min(baseY, ...column.notes.map(note => note.y), column.besidesY ?? baseY)}
                y2={baseY}
                stroke={colour}
                strokeDasharray={judged.snapshot.state === 'pending' ? '2 3' : undefined}
              />
              {column.notes.map(note => (
                <ellipse
                  key={note.lane}
                  cx={column.x}
                  cy={note.y}
                  rx={5.5}
                  ry={4}
                  fill={colour}
                  transform={`rotate(-18 ${column.x} ${note.y})`}
                />
              ))}
              {column.besidesY !== null && (
                <path
                  d={`M${column.x} ${column.besidesY - 6}l6 6-6 6-6-6z`}
                  fill="var(--sheet)"
                  stroke="var(--note)"
                  strokeWidth={1.5}
                />
              )}
              {judged.snapshot.state === 'pending' && (
                <circle
                  cx={column.x}
                  cy={baseY - 8}
                  r={4.5}
                  fill="var(--sheet)"
                  stroke="var(--note)"
                  strokeWidth={1.5}
                />
              )}
              <rect
                x={column.x - Math.min(6, stepPixels / 2 - 2)}
                y={baseY + 1}
                width={Math.min(12, stepPixels - 4)}
                height={column.barPixels}
                fill={isChosen ? 'var(--action)' : 'var(--d7)'}
              />
              {column.day !== null && (
                <text x={column.x} y={15} textAnchor="middle" style={{ fill: 'var(--second)' }}>
                  {column.day}
                </text>
              )}
            </g>
          )
        })}
      </svg>
    </div>
  )
}

const inWords = (judged: Judged) => {
  const { snapshot } = judged
  const moment = snapshot.takenAt === null ? 'pending' : `${snapshot.takenAt.slice(0, 19).replace('T', ' ')} UTC`
  return `${snapshot.name}, ${moment}, own space ${formatBytes(snapshot.ownBytes)}, kept by ${keptInWords(judged)}`
}
