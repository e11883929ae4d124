'use client'
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
  const { lanes, threads, heightPixels } = placementLines(sketch)
  const part = (pool: Ranked | undefined, measure: string) => pool?.parts.find(each => each.measure === measure)
  const points = (pool: Ranked | undefined, measure: string) => Math.round(part(pool, measure)?.points ?? 0)
  const figures = (words: readonly (string | number)[], isLast = false) => (
    <div className="grid grid-cols-[92px_92px_32px] gap-x-1 text-right">
      <span className={`mono font-semibold ${isLast ? 'text-action' : ''}`}>{words[0]}</span>
      <span className="mono">{words[1]}</span>
      <span className="mono text-second">{words[2]}</span>
    </div>
  )
  return (
    <div className="grid grid-cols-[150px_minmax(160px,1fr)_224px] gap-x-3">
      <div />
      <div className="flex justify-between text-sm text-second">
        <span>worse</span>
        <span>better</span>
      </div>
      <div className="grid grid-cols-[92px_92px_32px] gap-x-1 text-right text-sm text-second">
        <span className="truncate text-action" title={chosen.name}>
          {chosen.name}
        </span>
        <span className="truncate" title={other?.name}>
          {other?.name}
        </span>
        <span>of</span>
      </div>
      <div className="relative" style={{ height: heightPixels }}>
        {sketch.measures.map(({ measure, words }, index) => (
          <div key={measure} className="absolute whitespace-nowrap" style={{ top: (lanes[index]?.y ?? 0) - 16 }}>
            <div className="leading-4 font-semibold">{words}</div>
            <div className="text-xs leading-4 text-second">{part(chosen, measure)?.words}</div>
          </div>
        ))}
      </div>
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
          {lanes.map(({ measure, y, least }) => (
            <g key={measure} vectorEffect="non-scaling-stroke">
              <line x1={0} x2={100} y1={y} y2={y} stroke="var(--rule)" vectorEffect="non-scaling-stroke" />
              {least !== null && (
                <>
                  <rect x={0} y={y - 5} width={least} height={10} fill="var(--rule)" opacity={0.6} />
                  <line
                    x1={least}
                    x2={least}
                    y1={y - 9}
                    y2={y + 9}
                    stroke="var(--ink)"
                    vectorEffect="non-scaling-stroke"
                  />
                </>
              )}
            </g>
          ))}
          {threads.map(({ id, points: at }) => (
            <polyline
              key={id}
              points={at.map(({ x, y }) => `${x},${y}`).join(' ')}
              fill="none"
              {...strokeOf(id, chosen, other)}
              vectorEffect="non-scaling-stroke"
            />
          ))}
        </svg>
        {threads.flatMap(({ id, points: at }) =>
          at.map(({ measure, x, y }) => (
            <i
              key={`${id}/${measure}`}
              className={`absolute -translate-x-1/2 -translate-y-1/2 rounded-full ${dotOf(id, chosen, other)}`}
              style={{ left: `${x}%`, top: y }}
            />
          )),
        )}
      </div>
      <div className="relative" style={{ height: heightPixels }}>
        {sketch.measures.map(({ measure, of }, index) => (
          <div key={measure} className="absolute" style={{ top: (lanes[index]?.y ?? 0) - 9 }}>
            {figures([points(chosen, measure), other === undefined ? '' : points(other, measure), of])}
          </div>
        ))}
      </div>
      <div className="border-t border-rule py-1 font-semibold">Together</div>
      <div className="border-t border-rule py-1 text-second">{decisive(chosen, other, sketch)}</div>
      <div className="border-t border-rule py-1">
        {figures([Math.round(chosen.score), other === undefined ? '' : Math.round(other.score), 100], true)}
      </div>
    </div>
  )
}

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
