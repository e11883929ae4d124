'use client'
import { useVirtualizer } from '@tanstack/react-virtual'
import { useRef, type ReactNode } from 'react'
import { ColumnChoice } from './ColumnChoice'
import { csvText } from './csvText'
import { save } from './save'
import type { TableColumn } from './TableColumn'
import { useTable } from './useTable'
import { Checkbox } from '../parts/Checkbox'
import { SavedViews } from './SavedViews'
import { SortMark } from './SortMark'

interface DataTableProps<Row> {
  readonly label: string
  readonly rows: readonly Row[]
  /** The first column opens its row; it cannot be hidden. */
  readonly columns: readonly TableColumn<Row>[]
  readonly idOf: (row: Row) => string
  /** The id of the column that it is sorted by at first. */
  readonly sortAtFirst: string
  readonly selected: string | undefined
  readonly onOpen: (row: Row) => void
  readonly csvName: string
  /** What can be done with several rows at once. */
  readonly bulk?: (chosen: readonly Row[]) => ReactNode
}

const rowPixels = 31
const mostPixels = 350

/** A table whose rows are all at hand: sorted, filtered, its columns chosen, rows chosen for bulk drafts, saved as CSV. */
export function DataTable<Row>(props: DataTableProps<Row>) {
  const { label, rows, columns, idOf, selected, onOpen, bulk } = props
  const table = useTable(rows, columns, idOf, props.sortAtFirst)
  const { state, stand, inSight, chosen } = table
  const frame = useRef<HTMLDivElement>(null)
  const virtual = useVirtualizer({
    count: inSight.length,
    getScrollElement: () => frame.current,
    estimateSize: () => rowPixels,
    overscan: 12,
  })
  const [opener, ...others] = columns.filter((column, index) => index === 0 || state.shown.includes(column.id))
  if (opener === undefined) return null
  const shown = [opener, ...others]
  const tracks = { gridTemplateColumns: [...(bulk ? ['18px'] : []), ...shown.map(each => each.track)].join(' ') }
  const isAllChosen = inSight.length > 0 && inSight.every(row => table.isChosen(idOf(row)))
  return (
    <>
      <div className="no-print mb-2 flex min-h-7 flex-wrap items-center gap-2">
        <input
          aria-label={`Filter ${label.toLowerCase()}`}
          className="field w-[190px]"
          placeholder="Filter"
          value={state.find}
          maxLength={120}
          spellCheck={false}
          onChange={event => stand({ find: event.target.value })}
        />
        <ColumnChoice columns={columns} shown={state.shown} onChange={now => stand({ shown: now })} />
        <SavedViews />
        <button
          type="button"
          className="button quiet h-7 px-[9px] font-normal"
          onClick={() => save(props.csvName, csvOf(inSight, columns))}
        >
          CSV
        </button>
        {chosen.length === 0 ? (
          <span className="hint">
            {inSight.length === rows.length ? `${rows.length} in all` : `${inSight.length} of ${rows.length}`}
          </span>
        ) : (
          bulk?.(chosen)
        )}
      </div>
      <div role="table" aria-label={label} aria-rowcount={inSight.length + 1}>
        <div role="row" className="grid gap-2 border-b border-rule pb-[3px] text-xs text-faint" style={tracks}>
          {bulk && (
            <span role="columnheader">
              <Checkbox
                aria-label={`Choose all ${label.toLowerCase()} shown`}
                isOn={isAllChosen || (chosen.length > 0 && 'some')}
                onChange={() => table.chooseAll(!isAllChosen)}
              />
            </span>
          )}
          {shown.map(column => (
            <Head
              key={column.id}
              column={column}
              sorted={column.id === state.sort ? (state.isDescending ? 'descending' : 'ascending') : 'none'}
              onSort={() => stand({ sort: column.id, isDescending: column.id === state.sort && !state.isDescending })}
            />
          ))}
        </div>
        <div
          ref={frame}
          role="rowgroup"
          className="overflow-auto"
          style={{ height: Math.min(inSight.length * rowPixels + 2, mostPixels) }}
        >
          <div role="presentation" style={{ height: virtual.getTotalSize(), position: 'relative' }}>
            {virtual.getVirtualItems().map(item => {
              const row = inSight[item.index]
              if (row === undefined) return null
              const id = idOf(row)
              const isMarked = id === selected || table.isChosen(id)
              return (
                <div
                  role="row"
                  key={id}
                  aria-rowindex={item.index + 2}
                  data-selected={id === selected}
                  className={`absolute top-0 left-0 grid w-full items-center gap-2 border-b border-rule-fine ${isMarked ? 'bg-action-wash' : ''}`}
                  style={{ ...tracks, height: rowPixels, transform: `translateY(${item.start}px)` }}
                >
                  {bulk && (
                    <span role="cell">
                      <Checkbox
                        aria-label={`Choose ${opener.text(row)}`}
                        isOn={table.isChosen(id)}
                        onChange={(_, isRange) => table.choose(id, isRange)}
                      />
                    </span>
                  )}
                  <span role="cell" className="truncate">
                    <button
                      data-row
                      type="button"
                      className="mono border-0 bg-transparent p-0 font-semibold hover:text-action"
                      onClick={() => onOpen(row)}
                    >
                      {opener.cell?.(row) ?? opener.text(row)}
                    </button>
                  </span>
                  {others.map(column => (
                    <span
                      role="cell"
                      key={column.id}
                      className={`truncate ${column.isNumber === true ? 'mono text-right' : ''}`}
                      title={column.text(row)}
                    >
                      {column.cell?.(row) ?? column.text(row)}
                    </span>
                  ))}
                </div>
              )
            })}
          </div>
        </div>
        {inSight.length === 0 && rows.length > 0 && (
          <p className="text-second">
            None of {rows.length} holds “{state.find}”.{' '}
            <button type="button" className="textlink border-0 bg-transparent p-0" onClick={() => stand({ find: '' })}>
              Show all
            </button>
          </p>
        )}
      </div>
    </>
  )
}

function Head<Row>({
  column,
  sorted,
  onSort,
}: {
  readonly column: TableColumn<Row>
  readonly sorted: 'ascending' | 'descending' | 'none'
  readonly onSort: () => void
}) {
  return (
    <span role="columnheader" aria-sort={sorted} className={column.isNumber === true ? 'text-right' : ''}>
      <button type="button" className="border-0 bg-transparent p-0 whitespace-nowrap hover:text-ink" onClick={onSort}>
        {column.head}
        <SortMark sorted={sorted} />
      </button>
    </span>
  )
}

const csvOf = <Row,>(rows: readonly Row[], columns: readonly TableColumn<Row>[]) =>
  csvText([columns.map(each => each.head), ...rows.map(row => columns.map(each => each.text(row)))])
