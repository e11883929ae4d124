'use client'
import { ChevronLeft, ChevronRight } from 'lucide-react'
import { useRouter } from 'next/navigation'
import { csvFormatRows } from 'd3-dsv'
import { boardQuery, type Board } from '@/core/board'
import type { BoardPage } from '@/core/views'
import { Select } from '../../parts/Select'
import { save, SavedViews } from '../../table'
import { seriesWords } from './seriesWords'

const spans = [
  [6, '6 hours'],
  [24, 'a day'],
  [72, '3 days'],
  [168, 'a week'],
  [672, '4 weeks'],
  [1680, '10 weeks'],
] as const
const hour = 3_600_000

/** The table of a board: an instant a line, a lane a column. */
export const boardCsv = ({ times, lanes }: Pick<BoardPage, 'times' | 'lanes'>): string =>
  csvFormatRows([
    ['instant', ...lanes.map(({ of }) => seriesWords(of))],
    ...times.map((at, step) => [new Date(at).toISOString(), ...lanes.map(({ values }) => String(values[step] ?? ''))]),
  ])

/** How long the board looks at, where, and what is taken away from it. */
export function BoardTools({ board, page }: { readonly board: Board; readonly page: BoardPage }) {
  const router = useRouter()
  const go = (changes: Partial<Board>) => router.push(`?${boardQuery({ ...board, ...changes })}`, { scroll: false })
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
      <button
        type="button"
        className="button quiet h-7 px-[7px]"
        aria-label="Earlier"
        onClick={() => go({ until: Math.round(page.until - (board.hours * hour) / 2) })}
      >
        <ChevronLeft aria-hidden size={14} />
      </button>
      <button
        type="button"
        className="button quiet h-7 px-[7px]"
        aria-label="Later"
        onClick={() => go({ until: Math.round(page.until + (board.hours * hour) / 2) })}
      >
        <ChevronRight aria-hidden size={14} />
      </button>
      {board.until !== null && (
        <button type="button" className="button quiet h-7 px-[9px] font-normal" onClick={() => go({ until: null })}>
          Now
        </button>
      )}
      <span className="grow" />
      <SavedViews />
      <button
        type="button"
        className="button quiet h-7 px-[9px] font-normal"
        onClick={() => save('board.csv', boardCsv(page))}
      >
        CSV
      </button>
      <button type="button" className="button quiet h-7 px-[9px] font-normal" onClick={() => window.print()}>
        Print
      </button>
    </div>
  )
}
