'use client'
import { useSortable } from '@dnd-kit/sortable'
import { GripVertical } from 'lucide-react'
import { Link } from '../../parts/Link'
import { boardQuery, type LaneAsked } from '@/core/board'
import type { Lane } from '@/core/views'
import { LaneDrawing } from './LaneDrawing'
import { useBoard, type Dragged } from './OneBoard'
import { laneKey, metricWords, seriesWords, shiftWords } from './seriesWords'

export const labelPixels = 158

interface LaneRowProps {
  readonly asked: LaneAsked
  /** Undefined while it is read. */
  readonly lane: Lane | undefined
  readonly index: number
  readonly cursor: number | undefined
}

/** One lane with its words; its handle takes it to another place. */
export function LaneRow({ asked, lane, index, cursor }: LaneRowProps) {
  const { board, choose } = useBoard()
  const words = lane === undefined ? metricWords(asked.metric) : seriesWords(lane.of)
  const sorting = useSortable({ id: laneKey(asked), data: { series: asked, words } satisfies Dragged })
  const { transform, isDragging, setNodeRef, setActivatorNodeRef, listeners, attributes } = sorting
  const isChosen = board.chosen === index
  return (
    <div
      ref={setNodeRef}
      className={`grid border-b border-l-2 border-b-rule-fine ${isChosen ? 'border-l-action bg-action-wash' : 'border-l-transparent'} ${isDragging ? 'opacity-50' : ''}`}
      style={{
        gridTemplateColumns: `${labelPixels}px 1fr`,
        transform: transform === null ? undefined : `translateY(${transform.y}px)`,
      }}
    >
      <div className="flex min-w-0 items-start gap-[2px] py-2 pr-2">
        <button
          ref={setActivatorNodeRef}
          type="button"
          className="mt-[2px] shrink-0 cursor-grab touch-none border-0 bg-transparent p-0 text-second print:hidden"
          {...attributes}
          {...listeners}
          aria-label={`Move ${words}`}
        >
          <GripVertical aria-hidden size={14} />
        </button>
        {lane === undefined ? (
          <span className="text-second">{words}: being read</span>
        ) : (
          <LaneWords
            lane={lane}
            href={`?${boardQuery({ ...board, chosen: index })}`}
            onChoose={() => choose(now => ({ ...now, chosen: index }))}
          />
        )}
      </div>
      {lane !== undefined && <LaneDrawing lane={lane} cursor={cursor} />}
    </div>
  )
}

interface LaneWordsProps {
  readonly lane: Lane
  readonly href: string
  readonly onChoose: () => void
}

/** What a lane is of, and what else is drawn in it. */
const LaneWords = ({ lane, href, onChoose }: LaneWordsProps) => (
  <div className="min-w-0">
    <Link
      className="block truncate font-semibold no-underline"
      href={href}
      scroll={false}
      title={seriesWords(lane.of)}
      onClick={event => {
        if (event.metaKey || event.ctrlKey || event.shiftKey) return
        event.preventDefault()
        onChoose()
      }}
    >
      {lane.of?.name ?? 'gone'}
    </Link>
    <div className="text-xs text-second">{metricWords(lane.asked.metric)}</div>
    <OverWords lane={lane} />
    {lane.asked.shiftDays !== 0 && <div className="text-xs text-second">thin: {shiftWords(lane.asked.shiftDays)}</div>}
    {[lane, lane.over, lane.shifted].some(each => each?.extremes != null) && (
      <div className="text-xs text-second">shade: least to most</div>
    )}
    {lane.usual !== null && <div className="text-xs text-second">band: usual at that hour</div>}
  </div>
)

function OverWords({ lane: { over, asked } }: { readonly lane: Lane }) {
  if (over === null) return null
  const metric = over.of !== undefined && over.of.metric !== asked.metric ? `${metricWords(over.of.metric)}, ` : ''
  return (
    <div className="truncate text-xs" style={{ color: 'var(--d3)' }} title={seriesWords(over.of)}>
      {asked.over?.isOwnScale === true ? 'own scale' : 'over it'}: {metric}
      {over.of?.name ?? 'gone'}
    </div>
  )
}
