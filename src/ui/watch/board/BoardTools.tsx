'use client'
import { ChevronLeft, ChevronRight } from 'lucide-react'
import type { ReactNode } from 'react'
import type { Board } from '@/core/board'
import type { BoardPage, Course, Lane } from '@/core/views'
import { Select } from '../../parts/Select'
import { csvText, save, SavedViews } from '../../table'
import { boardPicture } from './boardPicture'
import { useBoard } from './OneBoard'
import { seriesWords, shiftWords } from './seriesWords'

const spans = [
  [6, '6 hours'],
  [24, 'a day'],
  [72, '3 days'],
  [168, 'a week'],
  [672, '4 weeks'],
  [1680, '10 weeks'],
] as const
const hour = 3_600_000

type Column = readonly [string, Lane['values']]

/** Means, and where a step has several values the least and the most of them. */
const columnsOf = (words: string, { values, extremes }: Course): readonly Column[] => [
  [words, values],
  ...(extremes === null
    ? []
    : ([
        [`${words}, least`, extremes.low],
        [`${words}, most`, extremes.high],
      ] as const)),
]

/** Those of a lane, of what is laid over it, and of what it was some days before. */
const allColumns = (lane: Lane): readonly Column[] => [
  ...columnsOf(seriesWords(lane.of), lane),
  ...(lane.over === null ? [] : columnsOf(seriesWords(lane.over.of), lane.over)),
  ...(lane.shifted === null
    ? []
    : columnsOf(`${seriesWords(lane.of)}, ${shiftWords(lane.asked.shiftDays)}`, lane.shifted)),
]

/** The table of a board: an instant a line, a lane a column. */
export function boardCsv({ times, lanes }: Pick<BoardPage, 'times' | 'lanes'>): string {
  const columns = lanes.flatMap(allColumns)
  return csvText([
    ['instant', ...columns.map(([words]) => words)],
    ...times.map((at, step) => [
      new Date(at).toISOString(),
      ...columns.map(([, values]) => String(values[step] ?? '')),
    ]),
  ])
}

/** The same length of time, earlier or later by a share of it. @param until that of which the server has answered last */
const shifted =
  (until: number, by: number) =>
  (board: Board): Board => ({ ...board, until: Math.round((board.until ?? until) + by * board.hours * hour) })

/** How long the board looks at, where, and what is taken away from it. */
export function BoardTools({ page }: { readonly page: BoardPage }) {
  const { board, choose } = useBoard()
  const go = (changes: Partial<Board>) => choose(now => ({ ...now, ...changes }))
  const known = spans.some(([hours]) => hours === board.hours)
  return (
    <div className="mb-2 flex flex-wrap items-center gap-2">
      <Select
        aria-label="How long"
        className="w-[112px]"
        value={`${board.hours}`}
        options={[
          ...(known ? [] : [{ value: `${board.hours}`, words: `${board.hours} hours` }]),
          ...spans.map(([hours, words]) => ({ value: `${hours}`, words })),
        ]}
        onChange={value => go({ hours: Number(value) })}
      />
      <Tool words="Earlier" icon={<ChevronLeft aria-hidden size={14} />} go={() => choose(shifted(page.until, -0.5))} />
      <Tool words="Later" icon={<ChevronRight aria-hidden size={14} />} go={() => choose(shifted(page.until, 0.5))} />
      {board.until !== null && <Tool words="Now" go={() => go({ until: null })} />}
      <span className="grow" />
      <SavedViews />
      <Tool words="CSV" go={() => save('board.csv', boardCsv(page))} />
      <Tool words="Picture" go={() => save('board.svg', boardPicture(drawnLanes(), page), 'image/svg+xml')} />
      <Tool words="Print" go={() => window.print()} />
    </div>
  )
}

const drawnLanes = () => [...document.querySelectorAll<SVGSVGElement>('svg[data-lane]')]

interface ToolProps {
  readonly words: string
  /** In place of the words. */
  readonly icon?: ReactNode
  readonly go: () => void
}

const Tool = ({ words, icon, go }: ToolProps) => (
  <button
    type="button"
    className={`button quiet h-7 font-normal ${icon === undefined ? 'px-[9px]' : 'px-[7px]'}`}
    aria-label={icon === undefined ? undefined : words}
    onClick={go}
  >
    {icon ?? words}
  </button>
)
