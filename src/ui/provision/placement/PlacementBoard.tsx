'use client'
import type { ReactNode } from 'react'
import type { PlacementSketch } from '@/core/plan'
import { countWords } from '@/core/units'
import { useSheetSketch } from '../../drafts/SheetSketch'
import { State } from '../../parts/State'
import { placementLines } from './placementLines'

const mostOut = 8

/** Which pool is the place for the volume that is drafted, and why: the score of each opened, and what bars the others. */
export function PlacementBoard() {
  const { sketch } = useSheetSketch()
  return sketch?.of === 'placement' ? <Placement sketch={sketch} /> : null
}

function Placement({ sketch }: { readonly sketch: PlacementSketch }) {
  const fit = sketch.pools.filter(({ out }) => out.length === 0)
  const out = sketch.pools.filter(each => each.out.length > 0)
  const chosen = sketch.pools.find(({ id }) => id === sketch.chosenId) ?? fit[0]
  const other = fit.find(({ id }) => id !== chosen?.id)
  return (
    <figure className="m-0 mb-4">
      <h3>
        Which pool, and why <span>points of 100 · a thread a pool · | the least that is promised</span>
      </h3>
      {chosen !== undefined && <Threads sketch={sketch} chosen={chosen} other={other} />}
      {chosen === undefined && <p className="mt-0">No pool can be the place.</p>}
      {out.length > 0 && (
        <table className="plain mt-2">
          <tbody>
            {out.slice(0, mostOut).map(({ id, name, out: reasons }) => (
              <tr key={id}>
                <td className="w-[220px]">
                  <State gravity="now">{name}</State>
                </td>
                <td className="text-second">{reasons.join('; ')}</td>
              </tr>
            ))}
          </tbody>
        </table>
      )}
      {out.length > mostOut && (
        <p className="hint mt-1">
          And {countWords(out.length - mostOut, 'other pool', 'other pools')} that cannot be it.
        </p>
      )}
    </figure>
  )
}

type Ranked = PlacementSketch['pools'][number]
interface ThreadsProps {
  readonly sketch: PlacementSketch
  readonly chosen: Ranked
  readonly other: Ranked | undefined
}

function Threads({ sketch, chosen, other }: ThreadsProps) {
  const drawn = placementLines(sketch)
  return (
    <div className="grid grid-cols-[150px_minmax(160px,1fr)_224px] gap-x-3">
      <Heads chosen={chosen} other={other} />
      <AtLanes drawn={drawn} shiftPixels={16}>
        {sketch.measures.map(({ measure, words }) => (
          <div key={measure} className="whitespace-nowrap">
            <div className="leading-4 font-semibold">{words}</div>
            <div className="text-xs leading-4 text-second">{partOf(chosen, measure)?.words}</div>
          </div>
        ))}
      </AtLanes>
      <Drawing drawn={drawn} chosen={chosen} other={other} />
      <AtLanes drawn={drawn} shiftPixels={9}>
        {sketch.measures.map(({ measure, of }) => (
          <Figures
            key={measure}
            first={pointsOf(chosen, measure)}
            second={other === undefined ? undefined : pointsOf(other, measure)}
            of={of}
          />
        ))}
      </AtLanes>
      <div className="border-t border-rule py-1 font-semibold">Together</div>
      <div className="border-t border-rule py-1 text-second">{decisive(chosen, other, sketch)}</div>
      <div className="border-t border-rule py-1 [&_b]:text-action">
        <Figures first={chosen.score} second={other?.score} of={100} />
      </div>
    </div>
  )
}

const Heads = ({ chosen, other }: Omit<ThreadsProps, 'sketch'>) => (
  <>
    <div />
    <div className="flex justify-between text-sm text-second">
      <span>worse</span>
      <span>better</span>
    </div>
    <div className={`${figureColumns} text-sm text-second`}>
      <span className="truncate text-action" title={chosen.name}>
        {chosen.name}
      </span>
      <span className="truncate" title={other?.name}>
        {other?.name}
      </span>
      <span>of</span>
    </div>
  </>
)

type Drawn = ReturnType<typeof placementLines>
const figureColumns = 'grid grid-cols-[92px_92px_32px] gap-x-1 text-right'
const partOf = (pool: Ranked, measure: string) => pool.parts.find(each => each.measure === measure)
const pointsOf = (pool: Ranked, measure: string) => partOf(pool, measure)?.points ?? 0

interface FiguresProps {
  readonly first: number
  readonly second: number | undefined
  readonly of: number
}

const Figures = ({ first, second, of }: FiguresProps) => (
  <div className={figureColumns}>
    <b className="mono font-semibold">{Math.round(first)}</b>
    <span className="mono">{second === undefined ? '' : Math.round(second)}</span>
    <span className="mono text-second">{of}</span>
  </div>
)

interface AtLanesProps {
  readonly drawn: Drawn
  /** How far above its lane each begins. */
  readonly shiftPixels: number
  readonly children: readonly ReactNode[]
}

/** Puts each of some things beside the lane of its measure. */
const AtLanes = ({ drawn: { heightPixels, lanes }, shiftPixels, children }: AtLanesProps) => (
  <div className="relative" style={{ height: heightPixels }}>
    {lanes.map(({ measure, y }, index) => (
      <div key={measure} className="absolute" style={{ top: y - shiftPixels }}>
        {children[index]}
      </div>
    ))}
  </div>
)

interface DrawingProps {
  readonly drawn: Drawn
  readonly chosen: Ranked
  readonly other: Ranked | undefined
}

const Drawing = ({ drawn: { heightPixels, lanes, threads }, chosen, other }: DrawingProps) => (
  <div
    className="relative"
    style={{ height: heightPixels }}
    role="img"
    aria-label={`${chosen.name} scores ${Math.round(chosen.score)} of 100`}
  >
    <svg
      viewBox={`0 0 100 ${heightPixels}`}
      className="absolute inset-0 block size-full overflow-visible"
      preserveAspectRatio="none"
      aria-hidden
    >
      {lanes.map(lane => (
        <Lane key={lane.measure} {...lane} />
      ))}
      {threads.map(({ id, points }) => (
        <polyline
          key={id}
          points={points.map(({ x, y }) => `${x},${y}`).join(' ')}
          fill="none"
          {...strokeOf(id, chosen, other)}
          vectorEffect="non-scaling-stroke"
        />
      ))}
    </svg>
    {threads.flatMap(({ id, points }) =>
      points.map(({ measure, x, y }) => (
        <i
          key={`${id}/${measure}`}
          className={`absolute -translate-x-1/2 -translate-y-1/2 rounded-full ${dotOf(id, chosen, other)}`}
          style={{ left: `${x}%`, top: y }}
        />
      )),
    )}
  </div>
)

/** A measure's line; what is less than promised is shaded up to a mark. */
const Lane = ({ y, least }: Drawn['lanes'][number]) => (
  <>
    <line x1={0} x2={100} y1={y} y2={y} stroke="var(--rule)" vectorEffect="non-scaling-stroke" />
    {least !== null && (
      <>
        <rect x={0} y={y - 5} width={least} height={10} fill="var(--rule)" opacity={0.6} />
        <line x1={least} x2={least} y1={y - 9} y2={y + 9} stroke="var(--ink)" vectorEffect="non-scaling-stroke" />
      </>
    )}
  </>
)

const strokeOf = (id: string, chosen: Ranked, other: Ranked | undefined) =>
  id === chosen.id
    ? { stroke: 'var(--action)', strokeWidth: 2.5 }
    : id === other?.id
      ? { stroke: 'var(--ink)', strokeWidth: 1.3, strokeDasharray: '6 4' }
      : { stroke: 'var(--faint)', strokeWidth: 1, strokeDasharray: '2 3' }

const dotOf = (id: string, chosen: Ranked, other: Ranked | undefined) =>
  id === chosen.id
    ? 'z-10 size-[10px] bg-action'
    : id === other?.id
      ? 'size-[9px] border-[1.5px] border-ink bg-paper'
      : 'size-[7px] bg-faint'

/** What decides between the first two, in a sentence. */
function decisive(chosen: Ranked, other: Ranked | undefined, { measures }: PlacementSketch): string {
  if (other === undefined) return 'No other pool can be the place.'
  const gain = measures
    .map(({ measure, words }) => {
      const of = (pool: Ranked) => pool.parts.find(part => part.measure === measure)?.points ?? 0
      return { words, by: of(chosen) - of(other) }
    })
    .sort((a, b) => Math.abs(b.by) - Math.abs(a.by))[0]
  if (gain === undefined || Math.abs(gain.by) < 0.5) return `${other.name} is as good a place.`
  return `${gain.words} decides ${gain.by > 0 ? 'for' : 'against'} it most.`
}
