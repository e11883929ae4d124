'use client'
import { useVirtualizer } from '@tanstack/react-virtual'
import Link from 'next/link'
import { useRouter } from 'next/navigation'
import { useEffect, useRef, useState, type ReactNode } from 'react'
import { ColumnChoice } from './ColumnChoice'
import { csvText } from './csvText'
import { FilterField } from './FilterField'
import { save } from './save'
import { SavedViews } from './SavedViews'
import { readAll, useServerPages, type ServerPage } from './useServerPages'
import { useAddress } from './useAddress'
import { SortMark } from './SortMark'

type NameOf = (id: string) => string | undefined

/** A column of a table whose rows stand at the server. */
export interface ServerColumn<Row> {
  readonly id: string
  readonly head: string
  /** Its width, as a track of a CSS grid. */
  readonly track: string
  /** By what the server sorts for it; it cannot be sorted by where left out. */
  readonly sort?: string
  /** What it says: shown where `cell` is left out, and written as CSV. */
  readonly text: (row: Row, nameOf: NameOf) => string
  readonly cell?: (row: Row, nameOf: NameOf) => ReactNode
  readonly isNumber?: boolean
  readonly isAtFirstHidden?: boolean
}

interface ServerTableProps<Row> {
  readonly label: string
  /** Where the API lists them. */
  readonly path: string
  /** What the list was asked for, as a query without offset and limit. */
  readonly question: string
  readonly first: ServerPage<Row>
  /** The first column opens its row; it cannot be hidden. */
  readonly columns: readonly ServerColumn<Row>[]
  readonly idOf: (row: Row) => string
  readonly sortAtFirst: string
  readonly selected: string | undefined
  /** What the filter looks in; no filter where left out. */
  readonly filterWords?: string
  /** Further filters, beside the text. */
  readonly filters?: ReactNode
}

const rowPixels = 29

/** A table of any length: its rows stay at the server and are read around what is in sight; its address says how it stands. */
export function ServerTable<Row>(props: ServerTableProps<Row>) {
  const { label, path, question, first, columns, idOf, selected } = props
  const { query, withChanges } = useAddress()
  const router = useRouter()
  const frame = useRef<HTMLDivElement>(null)
  const pages = useServerPages(path, question, first)
  const virtual = useVirtualizer({
    count: pages.total,
    getScrollElement: () => frame.current,
    estimateSize: () => rowPixels,
    overscan: 30,
  })
  const items = virtual.getVirtualItems()
  const [from, to] = [items[0]?.index ?? 0, items.at(-1)?.index ?? 0]
  useEffect(() => {
    pages.look(from, to)
  })
  useEffect(() => {
    // What it answers is no business of the effect: some browsers promise something.
    void frame.current?.scrollTo({ top: 0 })
  }, [question])
  const shownIds = shownColumns(columns, query.get('columns'))
  const [opener, ...others] = columns.filter((column, index) => index === 0 || shownIds.includes(column.id))
  if (opener === undefined) return null
  const shown = [opener, ...others]
  const tracks = { gridTemplateColumns: shown.map(each => each.track).join(' ') }
  const sort = query.get('sort') ?? props.sortAtFirst
  const isDescending = query.get('descending') === 'true'
  return (
    <>
      <div className="no-print mb-2 flex min-h-7 flex-wrap items-center gap-2">
        {props.filterWords !== undefined && <FilterField words={props.filterWords} />}
        {props.filters}
        <ColumnChoice
          columns={columns}
          shown={shownIds}
          onChange={now => router.replace(withChanges({ columns: columnsWord(columns, now) }), { scroll: false })}
        />
        <SavedViews />
        <SaveAll {...props} />
        <span className="hint">{pages.total === 1 ? '1 in all' : `${pages.total.toLocaleString('en')} in all`}</span>
      </div>
      <div className="overflow-x-auto">
        <div role="table" aria-label={label} aria-rowcount={pages.total + 1} className="min-w-[640px]">
          <div role="row" className="grid gap-x-[10px] border-b border-rule text-sm text-faint" style={tracks}>
            {shown.map((column, index) => (
              <Head
                key={column.id}
                column={column}
                isFirst={index === 0}
                sorted={column.sort === sort ? (isDescending ? 'descending' : 'ascending') : 'none'}
                onSort={() =>
                  router.push(
                    withChanges({
                      sort: column.sort === props.sortAtFirst ? null : (column.sort ?? null),
                      descending: column.sort === sort && !isDescending ? 'true' : null,
                    }),
                    { scroll: false },
                  )
                }
              />
            ))}
          </div>
          <div
            ref={frame}
            role="rowgroup"
            className="overflow-auto"
            style={{ height: `min(${Math.max(1, pages.total) * rowPixels + 2}px, calc(100vh - 270px))` }}
          >
            <div role="presentation" style={{ height: virtual.getTotalSize(), position: 'relative' }}>
              {items.map(item => {
                const row = pages.rowAt(item.index)
                const isSelected = row !== undefined && idOf(row) === selected
                return (
                  <div
                    key={item.key}
                    role="row"
                    aria-rowindex={item.index + 2}
                    data-selected={isSelected}
                    className={`absolute inset-x-0 grid items-center gap-x-[10px] border-b border-rule-fine ${isSelected ? 'bg-action-wash shadow-[inset_2px_0_0_var(--action)]' : ''}`}
                    style={{ ...tracks, height: rowPixels, transform: `translateY(${item.start}px)` }}
                  >
                    {row === undefined ? (
                      <span role="cell" className="col-span-full h-3 rounded-sm bg-rule-fine" aria-label="Loading" />
                    ) : (
                      shown.map((column, index) => (
                        <Cell
                          key={column.id}
                          column={column}
                          row={row}
                          nameOf={pages.nameOf}
                          href={index === 0 ? withChanges({ sel: idOf(row), draft: null, change: null }) : undefined}
                        />
                      ))
                    )}
                  </div>
                )
              })}
            </div>
          </div>
        </div>
      </div>
    </>
  )
}

const atFirst = <Row,>(columns: readonly ServerColumn<Row>[]) =>
  columns.filter(each => each.isAtFirstHidden !== true).map(each => each.id)

function shownColumns<Row>(columns: readonly ServerColumn<Row>[], named: string | null): readonly string[] {
  const known = (named ?? '').split(',').filter(id => columns.some(each => each.id === id))
  return known.length === 0 ? atFirst(columns) : known
}

/** The columns as the address names them; nothing where they are as at first. */
function columnsWord<Row>(columns: readonly ServerColumn<Row>[], shown: readonly string[]): string | null {
  const word = columns.map(each => each.id).filter(id => shown.includes(id))
  return word.join(',') === atFirst(columns).join(',') ? null : word.join(',')
}

function Cell<Row>({
  column,
  row,
  nameOf,
  href,
}: {
  readonly column: ServerColumn<Row>
  readonly row: Row
  readonly nameOf: NameOf
  readonly href: string | undefined
}) {
  const text = column.text(row, nameOf)
  const said = column.cell?.(row, nameOf) ?? text
  return (
    <span
      role="cell"
      title={href === undefined ? text : undefined}
      className={`min-w-0 truncate ${column.isNumber === true ? 'text-right' : ''} ${href === undefined ? '' : 'pl-2'}`}
    >
      {href === undefined ? (
        said
      ) : (
        <Link
          data-row
          href={href}
          scroll={false}
          prefetch={false}
          title={text}
          className="block truncate font-semibold no-underline"
        >
          {said}
        </Link>
      )}
    </span>
  )
}

function Head<Row>({
  column,
  isFirst,
  sorted,
  onSort,
}: {
  readonly column: ServerColumn<Row>
  readonly isFirst: boolean
  readonly sorted: 'ascending' | 'descending' | 'none'
  readonly onSort: () => void
}) {
  const place = column.isNumber === true ? 'text-right' : isFirst ? 'pl-2' : ''
  if (column.sort === undefined)
    return (
      <span role="columnheader" className={`truncate ${place}`}>
        {column.head}
      </span>
    )
  return (
    <span role="columnheader" aria-sort={sorted} className={place}>
      <button type="button" className="border-0 bg-transparent p-0 whitespace-nowrap hover:text-ink" onClick={onSort}>
        {column.head}
        <SortMark sorted={sorted} />
      </button>
    </span>
  )
}

/** Saves all rows, not only those in sight, as CSV. */
function SaveAll<Row>({ label, path, question, columns }: ServerTableProps<Row>) {
  const [isBusy, setBusy] = useState(false)
  const saveAll = async () => {
    setBusy(true)
    const all = await readAll<Row>(path, question)
    setBusy(false)
    if (all === undefined) return
    const nameOf = (id: string) => all.names?.[id]
    const lines = all.items.map(row => columns.map(each => each.text(row, nameOf)))
    save(`${label.toLowerCase().replaceAll(' ', '-')}.csv`, csvText([columns.map(each => each.head), ...lines]))
  }
  return (
    <button
      type="button"
      className="button quiet h-7 px-[9px] font-normal"
      disabled={isBusy}
      onClick={() => void saveAll()}
    >
      {isBusy ? 'Reading' : 'CSV'}
    </button>
  )
}
