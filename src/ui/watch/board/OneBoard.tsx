'use client'
import {
  DndContext,
  DragOverlay,
  KeyboardSensor,
  PointerSensor,
  useSensor,
  useSensors,
  type Active,
  type DragEndEvent,
} from '@dnd-kit/core'
import { sortableKeyboardCoordinates } from '@dnd-kit/sortable'
import { createContext, use, useId, useState, type ReactNode } from 'react'
import { boardQuery, laneIndex, moveLane, putOn, type Board, type SeriesAsked } from '@/core/board'
import { useChoice } from '../../frame'

interface Chosen {
  /** As it was chosen last, which the server may not have answered yet. */
  readonly board: Board
  readonly choose: (next: (now: Board) => Board) => void
}

/** What is dragged: a series that stands on the board, or one that may be put on it; and what it is called. */
export interface Dragged {
  readonly series: SeriesAsked
  readonly words: string
}

/** Where a series is put that is dropped behind all lanes. */
export const boardEnd = 'end'
const leastDragPixels = 6

const Choice = createContext<Chosen | undefined>(undefined)

export function useBoard(): Chosen {
  const chosen = use(Choice)
  if (chosen === undefined) throw new Error('There is no board around this part.')
  return chosen
}

const draggedOf = (active: Active): Dragged | undefined => active.data.current as Dragged | undefined

/** One board: all its parts alter the same one, at a click, by keys, or by dragging series onto it and lanes to another place. */
export function OneBoard({ board: inAddress, children }: { readonly board: Board; readonly children: ReactNode }) {
  const { choice: board, choose } = useChoice(inAddress, boardQuery, 'push')
  const [dragged, drag] = useState<Dragged>()
  const id = useId()
  const sensors = useSensors(
    useSensor(PointerSensor, { activationConstraint: { distance: leastDragPixels } }),
    useSensor(KeyboardSensor, { coordinateGetter: sortableKeyboardCoordinates }),
  )
  const drop = ({ active, over }: DragEndEvent) => {
    drag(undefined)
    const dropped = draggedOf(active)
    if (dropped === undefined || over === null) return
    const on = over.id === boardEnd ? undefined : (over.data.current as Dragged | undefined)?.series
    choose(now => dropOn(now, dropped.series, on))
  }
  return (
    <Choice value={{ board, choose }}>
      <DndContext
        id={id}
        sensors={sensors}
        onDragStart={({ active }) => drag(draggedOf(active))}
        onDragCancel={() => drag(undefined)}
        onDragEnd={drop}
        accessibility={{ announcements, screenReaderInstructions }}
      >
        {children}
        <DragOverlay dropAnimation={null}>
          {dragged !== undefined && (
            <span className="inline-block border border-ink bg-paper px-2 py-1 font-semibold whitespace-nowrap">
              {dragged.words}
            </span>
          )}
        </DragOverlay>
      </DndContext>
    </Choice>
  )
}

/** A lane takes the place of the one on which it is dropped; a new series stands before it. */
function dropOn(board: Board, series: SeriesAsked, on: SeriesAsked | undefined): Board {
  const to = on === undefined ? board.lanes.length : laneIndex(board, on)
  const from = laneIndex(board, series)
  return from === -1 ? putOn(board, series, to) : moveLane(board, from, to)
}

const wordsOf = (active: Active) => draggedOf(active)?.words ?? 'The series'
const overWords = (data: unknown) => (data as Dragged | undefined)?.words

const announcements = {
  onDragStart: ({ active }: { active: Active }) => `${wordsOf(active)} is taken up.`,
  onDragOver: ({ active, over }: Pick<DragEndEvent, 'active' | 'over'>) =>
    over === null
      ? `${wordsOf(active)} is over no lane.`
      : `${wordsOf(active)} is at ${overWords(over.data.current) ?? 'the end of the board'}.`,
  onDragEnd: ({ active, over }: Pick<DragEndEvent, 'active' | 'over'>) =>
    over === null ? `${wordsOf(active)} stays where it was.` : `${wordsOf(active)} is put there.`,
  onDragCancel: ({ active }: { active: Active }) => `${wordsOf(active)} stays where it was.`,
}

const screenReaderInstructions = {
  draggable:
    'Space or Enter takes it up; arrow keys move it; Space or Enter puts it down, Escape leaves it where it was.',
}
