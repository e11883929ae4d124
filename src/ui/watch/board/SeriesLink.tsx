'use client'
import { useDraggable } from '@dnd-kit/core'
import { Link } from '../../parts/Link'
import { boardQuery, isFull, putOn, type SeriesAsked } from '@/core/board'
import { useBoard, type Dragged } from './OneBoard'

interface SeriesLinkProps {
  readonly series: SeriesAsked
  /** What it is called on the way. */
  readonly called: string
  readonly className?: string
  readonly children: string
  readonly onPut?: () => void
}

/** A series that may be put on the board: by following it, to its end; by dragging it, anywhere. */
export function SeriesLink({ series, called, className = '', children, onPut }: SeriesLinkProps) {
  const { board, choose } = useBoard()
  const { setNodeRef, listeners, isDragging } = useDraggable({
    id: `series ${series.metric}.${series.objectId}`,
    data: { series, words: called } satisfies Dragged,
    disabled: isFull(board),
  })
  return (
    <Link
      ref={setNodeRef}
      className={`textlink ${className} ${isDragging ? 'opacity-50' : ''}`}
      href={`?${boardQuery(putOn(board, series))}`}
      scroll={false}
      draggable={false}
      onPointerDown={listeners?.['onPointerDown'] as never}
      onClick={event => {
        if (event.metaKey || event.ctrlKey || event.shiftKey) return
        event.preventDefault()
        choose(now => putOn(now, series))
        onPut?.()
      }}
    >
      {children}
    </Link>
  )
}
