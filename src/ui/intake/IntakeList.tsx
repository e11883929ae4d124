'use client'
import { useVirtualizer } from '@tanstack/react-virtual'
import { useRouter } from 'next/navigation'
import { useRef } from 'react'
import { intakeState, suffixOf, type IntakeState } from '@/core/estate'
import { State, type Gravity } from '../parts/State'
import { csvOf } from './csvOf'
import type { IntakeRow } from './IntakeRow'
import { kindWords } from './kinds'

const gravity: Readonly<Record<IntakeState, Gravity>> = {
  unassigned: 'fine',
  foreign: 'soon',
  spare: 'note',
  'in use': 'note',
  boot: 'note',
  failing: 'soon',
  failed: 'now',
}
const rowPixels = 31
const columns = 'grid-cols-[70px_minmax(0,1.5fr)_minmax(0,1fr)_minmax(0,1fr)_90px_minmax(0,1.3fr)]'

/** Every drive of the estate as it stands in the intake; rows past the window are not drawn. */
export function IntakeList({
  rows,
  selected,
  href,
}: {
  readonly rows: readonly IntakeRow[]
  readonly selected: string | undefined
  readonly href: string
}) {
  const router = useRouter()
  const frame = useRef<HTMLDivElement>(null)
  const virtual = useVirtualizer({
    count: rows.length,
    getScrollElement: () => frame.current,
    estimateSize: () => rowPixels,
    overscan: 12,
  })
  const saveCsv = () => {
    const link = document.createElement('a')
    link.href = URL.createObjectURL(new Blob([csvOf(rows)], { type: 'text/csv' }))
    link.download = 'drives.csv'
    link.click()
    URL.revokeObjectURL(link.href)
  }
  return (
    <section>
      <h3>
        Intake
        <span>
          {rows.length} drives ·{' '}
          <button type="button" className="textlink border-0 bg-transparent p-0" onClick={saveCsv}>
            as CSV
          </button>
        </span>
      </h3>
      <div role="table" aria-label="Drives" aria-rowcount={rows.length}>
        <div role="row" className={`grid ${columns} gap-2 border-b border-rule pb-[3px] text-xs text-faint`}>
          {['Label', 'Where', 'Kind', 'Best for', 'State', 'Left over'].map(words => (
            <span role="columnheader" key={words}>
              {words}
            </span>
          ))}
        </div>
        <div
          ref={frame}
          role="rowgroup"
          className="overflow-auto"
          style={{ height: Math.min(rows.length * rowPixels + 2, 340) }}
        >
          <div role="presentation" style={{ height: virtual.getTotalSize(), position: 'relative' }}>
            {virtual.getVirtualItems().map(item => {
              const row = rows[item.index]
              if (row === undefined) return null
              const { drive, suggestion } = row
              const state = intakeState(drive)
              return (
                <div
                  role="row"
                  key={drive.id}
                  aria-rowindex={item.index + 1}
                  data-selected={drive.id === selected}
                  className={`absolute top-0 left-0 grid w-full ${columns} items-center gap-2 border-b border-rule-fine ${drive.id === selected ? 'bg-action-wash' : ''}`}
                  style={{ height: rowPixels, transform: `translateY(${item.start}px)` }}
                >
                  <span role="cell">
                    <button
                      data-row
                      type="button"
                      className="mono border-0 bg-transparent p-0 font-semibold hover:text-action"
                      title={drive.serial}
                      onClick={() => router.push(`${href}drive=${drive.id}`, { scroll: false })}
                    >
                      {suffixOf(drive.serial)}
                      {drive.isLit ? ' ✦' : ''}
                    </button>
                  </span>
                  <span role="cell" className="truncate">
                    {row.systemName}, {row.place}
                  </span>
                  <span role="cell" className="truncate">
                    {kindWords(drive)}
                  </span>
                  <span role="cell" className="truncate text-second" title={suggestion?.why}>
                    {suggestion === null ? '' : suggestion.role}
                  </span>
                  <span role="cell">
                    <State gravity={gravity[state]}>{state}</State>
                  </span>
                  <span role="cell" className="truncate text-second" title={drive.leftOver?.partitions.join(', ')}>
                    {drive.leftOver === null
                      ? ''
                      : `${drive.leftOver.system ?? 'unknown system'}${drive.leftOver.lastUsedAt === null ? '' : `, ${drive.leftOver.lastUsedAt.slice(0, 10)}`}`}
                  </span>
                </div>
              )
            })}
          </div>
        </div>
      </div>
    </section>
  )
}
