import { Link } from '../../parts/Link'
import { connected, stops, type Part, type Stop, type Thread } from '@/core/threads'
import type { ThreadPage } from '@/core/views'
import { Mark } from '../../parts/State'

const rowPixels = 31
const headPixels = 26
const width = 780
/** Where each stop begins and ends. */
const columns: Readonly<Record<Stop, readonly [number, number]>> = {
  application: [0, 150],
  hosts: [156, 262],
  volume: [268, 442],
  pool: [472, 632],
  drives: [662, 780],
}
const heads: Readonly<Record<Stop, string>> = {
  application: 'application',
  hosts: 'hosts, shares',
  volume: 'volume',
  pool: 'pool',
  drives: 'drives',
}

interface Placed {
  readonly part: Part
  /** The middle of its line. */
  readonly y: number
}

/** Every part once at its stop, in the middle of the threads that it is part of; parts that would lie over each other are moved apart. */
function placed(threads: readonly Thread[]): Readonly<Record<Stop, readonly Placed[]>> {
  const rowOf = (index: number) => headPixels + index * rowPixels + rowPixels / 2
  return Object.fromEntries(
    stops.map(stop => {
      const rowsOf = new Map<string, { readonly part: Part; readonly rows: number[] }>()
      threads.forEach((thread, index) => {
        thread[stop].forEach((part, at) => {
          const known = rowsOf.get(part.key) ?? { part, rows: [] }
          // Several of one stop stand beneath each other about their thread.
          known.rows.push(rowOf(index) + (at - (thread[stop].length - 1) / 2) * rowPixels)
          rowsOf.set(part.key, known)
        })
      })
      const found = [...rowsOf.values()]
        .map(({ part, rows }) => ({ part, y: rows.reduce((sum, y) => sum + y, 0) / rows.length }))
        .sort((a, b) => a.y - b.y)
      let last = Number.NEGATIVE_INFINITY
      const apart = found.map(each => {
        last = Math.max(each.y, last + rowPixels)
        return { part: each.part, y: last }
      })
      return [stop, apart]
    }),
  ) as unknown as Readonly<Record<Stop, readonly Placed[]>>
}

interface ThreadDrawingProps {
  readonly page: Pick<ThreadPage, 'threads' | 'states'>
  readonly sel: string | undefined
}

/** What stands on what, from applications to drives; the threads of what is chosen are drawn, the others are faint. */
export function ThreadDrawing({ page: { threads, states }, sel }: ThreadDrawingProps) {
  const places = placed(threads)
  const { keys } = sel === undefined ? { keys: undefined } : connected(threads, sel)
  const isOn = (part: Part) => keys === undefined || keys.has(part.key)
  const height = Math.max(...stops.flatMap(stop => places[stop].map(({ y }) => y)), headPixels) + rowPixels
  return (
    <div className="relative" style={{ height }}>
      <svg
        viewBox={`0 0 ${width} ${height}`}
        className="absolute inset-0 h-full w-full"
        preserveAspectRatio="none"
        aria-hidden
      >
        {ways(threads, places).map(({ key, d, parts }) => (
          <Way key={key} d={d} isDrawn={keys !== undefined && parts.every(isOn)} />
        ))}
      </svg>
      {stops.map(stop => (
        <div key={stop}>
          <div className="absolute top-0 text-xs text-second" style={boxOf(stop, 0, 18)}>
            {heads[stop]}
          </div>
          {places[stop].map(({ part, y }) => (
            <Stand
              key={part.key}
              part={part}
              y={y}
              state={states[part.key]}
              isOn={isOn(part)}
              isChosen={part.key === sel}
            />
          ))}
        </div>
      ))}
    </div>
  )
}

const Way = ({ d, isDrawn }: { readonly d: string; readonly isDrawn: boolean }) => (
  <path
    d={d}
    fill="none"
    stroke={isDrawn ? 'var(--action)' : 'var(--rule)'}
    strokeWidth={isDrawn ? 2 : 1}
    vectorEffect="non-scaling-stroke"
  />
)

const boxOf = (stop: Stop, top: number, height: number) => ({
  left: `${(columns[stop][0] / width) * 100}%`,
  width: `${((columns[stop][1] - columns[stop][0]) / width) * 100}%`,
  top,
  height,
})

interface StandProps {
  readonly part: Part
  readonly y: number
  readonly state: ThreadPage['states'][string] | undefined
  readonly isOn: boolean
  readonly isChosen: boolean
}

const Stand = ({ part, y, state, isOn, isChosen }: StandProps) => (
  <Link
    className={`absolute flex items-baseline justify-between gap-2 overflow-hidden px-[2px] no-underline ${isOn ? '' : 'text-second'} ${isChosen ? 'selected font-semibold' : ''}`}
    style={boxOf(part.stop, y - 19, 20)}
    href={isChosen ? '?' : `?sel=${encodeURIComponent(part.key)}`}
    scroll={false}
    title={`${part.name}${state === undefined ? '' : `: ${state.words}`}`}
    {...(isChosen ? { 'aria-current': 'true' as const } : {})}
  >
    <span className="truncate">{part.name}</span>
    {state !== undefined && !part.key.startsWith('hosts/') && (
      <span className="flex shrink-0 items-baseline gap-1 text-xs">
        {state.gravity !== 'fine' && <Mark gravity={state.gravity} size={8} />}
        <span className="mono text-[11px]">{isSaid(part, state) ? state.words : ''}</span>
      </span>
    )}
  </Link>
)

/** What is whole, or not measured, is said by its mark alone: the room is for names. */
const isSaid = ({ stop }: Part, { gravity }: NonNullable<StandProps['state']>) =>
  gravity !== 'unknown' && !((stop === 'drives' || stop === 'hosts') && gravity === 'fine')

/** A line beneath each part, and curves from one stop to the next. */
function ways(threads: readonly Thread[], places: Readonly<Record<Stop, readonly Placed[]>>) {
  const yOf = new Map(stops.flatMap(stop => places[stop].map(({ part, y }) => [part.key, y] as const)))
  const found = new Map<string, { readonly key: string; readonly d: string; readonly parts: readonly Part[] }>()
  for (const stop of stops)
    for (const { part, y } of places[stop])
      found.set(part.key, { key: part.key, parts: [part], d: `M${columns[stop][0]},${y + 3}H${columns[stop][1]}` })
  for (const thread of threads) {
    const filled = stops.filter(stop => thread[stop].length > 0)
    filled.slice(1).forEach((stop, index) => {
      const before = filled[index]
      if (before === undefined) return
      for (const from of thread[before])
        for (const to of thread[stop]) {
          const key = `${from.key} ${to.key}`
          const [x0, x1] = [columns[before][1], columns[stop][0]]
          const [y0, y1] = [(yOf.get(from.key) ?? 0) + 3, (yOf.get(to.key) ?? 0) + 3]
          const middle = (x0 + x1) / 2
          found.set(key, { key, parts: [from, to], d: `M${x0},${y0}C${middle},${y0} ${middle},${y1} ${x1},${y1}` })
        }
    })
  }
  return [...found.values()]
}
