import { useRef, type KeyboardEvent } from 'react'
import type { Judged } from '@/core/snapshots'
import { formatBytes } from '@/core/units'
import { keptInWords, snapshotColumns, type Columns } from './snapshotColumns'

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
  const drawn = snapshotColumns(all, widthPixels, timeZone)
  const { list, move } = useKeys({ all, choose, focus })
  const atHand = focused ?? all.at(-1)?.snapshot.id
  return (
    <div className="overflow-x-auto pb-1">
      <svg
        ref={list}
        viewBox={`0 0 ${drawn.widthPixels} ${drawn.heightPixels}`}
        width={drawn.widthPixels}
        height={drawn.heightPixels}
        className="block max-w-none select-none"
        role="listbox"
        aria-multiselectable
        aria-label="Snapshots, oldest first"
      >
        <Lanes drawn={drawn} />
        {all.map((judged, index) => (
          <g
            key={judged.snapshot.id}
            {...optionOf(judged, chosen.has(judged.snapshot.id))}
            tabIndex={judged.snapshot.id === atHand ? 0 : -1}
            onClick={event => {
              choose(judged.snapshot.id, event.shiftKey)
              focus(judged.snapshot.id)
            }}
            onKeyDown={event => move(event, index)}
            onFocus={() => focus(judged.snapshot.id)}
          >
            <title>{inWords(judged)}</title>
            <Column
              drawn={drawn}
              index={index}
              judged={judged}
              isChosen={chosen.has(judged.snapshot.id)}
              isFocused={judged.snapshot.id === focused}
            />
          </g>
        ))}
      </svg>
    </div>
  )
}

const optionOf = (judged: Judged, isChosen: boolean) => ({
  role: 'option',
  'aria-selected': isChosen,
  'aria-label': inWords(judged),
  'data-snapshot': judged.snapshot.id,
  className: 'cursor-pointer',
})

/** Goes from snapshot to snapshot by arrows, and chooses by Space; with Shift all on the way. */
function useKeys({ all, choose, focus }: Pick<SnapshotRulesProps, 'all' | 'choose' | 'focus'>) {
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
  return { list, move }
}

const Lanes = ({ drawn: { lanes, labelPixels, widthPixels: width, baseY } }: { readonly drawn: Columns }) => (
  <>
    {lanes.map(({ lane, y }) => (
      <g key={lane}>
        <text x={0} y={y + 4} className="fill-ink">
          {laneWords[lane]}
        </text>
        <line x1={labelPixels} x2={width} y1={y} y2={y} stroke="var(--rule)" />
      </g>
    ))}
    <text x={0} y={baseY + 16} style={{ fill: 'var(--second)' }}>
      own space
    </text>
    <line x1={labelPixels} x2={width} y1={baseY} y2={baseY} stroke="var(--ink)" />
  </>
)

interface ColumnProps {
  readonly drawn: Columns
  readonly index: number
  readonly judged: Judged
  readonly isChosen: boolean
  readonly isFocused: boolean
}

/** One snapshot: a stem with its notes, what keeps it besides, and its own space below. */
function Column({ drawn, index, judged: { snapshot }, isChosen, isFocused }: ColumnProps) {
  const { baseY, heightPixels, stepPixels } = drawn
  const column = drawn.columns[index]
  if (column === undefined) return null
  const { x } = column
  const colour = isChosen ? 'var(--action)' : snapshot.goesAt === null ? 'var(--ink)' : 'var(--faint)'
  return (
    <>
      <rect
        x={x - stepPixels / 2}
        y={22}
        width={stepPixels}
        height={heightPixels - 24}
        fill={isChosen ? 'var(--action-wash)' : 'transparent'}
        stroke={isFocused ? 'var(--action)' : 'none'}
      />
      <Notes column={column} baseY={baseY} colour={colour} isPending={snapshot.state === 'pending'} />
      <rect
        x={x - Math.min(6, stepPixels / 2 - 2)}
        y={baseY + 1}
        width={Math.min(12, stepPixels - 4)}
        height={column.barPixels}
        fill={isChosen ? 'var(--action)' : 'var(--d7)'}
      />
      {column.day !== null && (
        <text x={x} y={15} textAnchor="middle" style={{ fill: 'var(--second)' }}>
          {column.day}
        </text>
      )}
    </>
  )
}

interface NotesProps {
  readonly column: Columns['columns'][number]
  readonly baseY: number
  readonly colour: string
  readonly isPending: boolean
}

const Notes = ({ column: { x, notes, besidesY }, baseY, colour, isPending }: NotesProps) => (
  <>
    <line
      x1={x}
      x2={x}
      y1={Math.min(baseY, ...notes.map(note => note.y), besidesY ?? baseY)}
      y2={baseY}
      stroke={colour}
      strokeDasharray={isPending ? '2 3' : undefined}
    />
    {notes.map(({ lane, y }) => (
      <ellipse key={lane} cx={x} cy={y} rx={5.5} ry={4} fill={colour} transform={`rotate(-18 ${x} ${y})`} />
    ))}
    {besidesY !== null && (
      <path d={`M${x} ${besidesY - 6}l6 6-6 6-6-6z`} fill="var(--sheet)" stroke="var(--note)" strokeWidth={1.5} />
    )}
    {isPending && <circle cx={x} cy={baseY - 8} r={4.5} fill="var(--sheet)" stroke="var(--note)" strokeWidth={1.5} />}
  </>
)

const inWords = (judged: Judged) => {
  const { snapshot } = judged
  const moment = snapshot.takenAt === null ? 'pending' : `${snapshot.takenAt.slice(0, 19).replace('T', ' ')} UTC`
  return `${snapshot.name}, ${moment}, own space ${formatBytes(snapshot.ownBytes)}, kept by ${keptInWords(judged)}`
}
