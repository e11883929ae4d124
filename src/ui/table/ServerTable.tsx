'use client'
import { useVirtualizer, type VirtualItem } from '@tanstack/react-virtual'
import { useRouter } from 'next/navigation'
import { useEffect, useRef, useState, type ReactNode } from 'react'
import { Checkbox } from '../parts/Checkbox'
import { ColumnChoice } from './ColumnChoice'
import { csvText } from './csvText'
import type { ServerColumn } from './ServerColumn'
import { FilterField } from './FilterField'
import { save } from './save'
import { ServerLists } from './ServerLists'
import { SavedViews } from './SavedViews'
import { readAll, useServerPages, type ServerPage, type ServerPages } from './useServerPages'
import { useAddress } from './useAddress'
import { TableHead } from './TableHead'
import { TableRow } from './TableRow'
import { useChosen, type Choice } from './useChosen'
import { useRowShape, type RowShape } from './useRowShape'

export interface ServerTableProps<Row> {
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
  /** What the address calls the row that is selected. */
  readonly selectedBy?: string
  /** What the filter looks in; no filter where left out. */
  readonly filterWords?: string
  /** Further filters, beside the text. */
  readonly filters?: ReactNode
  /** What can be done with several rows at once; rows can be chosen only where it is given. */
  readonly bulk?: (chosen: readonly Row[]) => ReactNode
  /** How high it may grow (pixels); as the window allows where left out. */
  readonly mostPixels?: number
}

/** A table of any length: its rows stay at the server and are read around what is in sight; its address says how it stands. */
export const ServerTable = <Row,>(props: ServerTableProps<Row>) => (
  <ServerLists>
    <TableOf {...props} />
  </ServerLists>
)

function TableOf<Row>(props: ServerTableProps<Row>) {
  const { label, path, question, first, columns, idOf, bulk } = props
  const { query } = useAddress()
  const pages = useServerPages(path, question, first)
  const choice = useChosen({ path, question, total: pages.total, rowAt: pages.rowAt, idOf })
  const shown = columnsShown(columns, query.get('columns'))
  const shape = useRowShape(shown, bulk !== undefined)
  const { frame, virtual } = useInSight(pages, shape.pixels, question)
  const choose = bulk === undefined ? undefined : <ChooseAll label={label} choice={choice} total={pages.total} />
  const most = props.mostPixels === undefined ? 'calc(100vh - 270px)' : `${props.mostPixels}px`
  return (
    <>
      <Tools {...props} total={pages.total} chosen={choice.chosen} />
      <div className="overflow-x-auto">
        <div
          role="table"
          aria-label={label}
          aria-rowcount={pages.total + 1}
          className={shape.isNarrow ? '' : 'min-w-[640px]'}
        >
          <TableHead {...{ columns: shown, shape, sortAtFirst: props.sortAtFirst, choose }} />
          <div
            ref={frame}
            role="rowgroup"
            className="overflow-auto"
            style={{ height: `min(${Math.max(1, pages.total) * shape.pixels + 2}px, ${most})` }}
          >
            <div role="presentation" style={{ height: virtual.getTotalSize(), position: 'relative' }}>
              {virtual.getVirtualItems().map(item => (
                <RowInSight key={item.key} {...{ props, pages, choice, shown, shape, item }} />
              ))}
            </div>
          </div>
        </div>
      </div>
    </>
  )
}

/** Which rows are in sight, and where they stand; they are read as they come into sight. */
function useInSight<Row>(pages: ServerPages<Row>, pixels: number, question: string) {
  const frame = useRef<HTMLDivElement>(null)
  const virtual = useVirtualizer({
    count: pages.total,
    getScrollElement: () => frame.current,
    estimateSize: () => pixels,
    overscan: 30,
  })
  useEffect(() => virtual.measure(), [virtual, pixels])
  const items = virtual.getVirtualItems()
  const [from, to] = [items[0]?.index ?? 0, items.at(-1)?.index ?? 0]
  useEffect(() => {
    pages.look(from, to)
  })
  useEffect(() => {
    // What it answers is no business of the effect: some browsers promise something.
    void frame.current?.scrollTo({ top: 0 })
  }, [question])
  return { frame, virtual }
}

interface RowInSightProps<Row> {
  readonly props: ServerTableProps<Row>
  readonly pages: ServerPages<Row>
  readonly choice: Choice<Row>
  readonly shown: readonly ServerColumn<Row>[]
  readonly shape: RowShape
  readonly item: VirtualItem
}

function RowInSight<Row>({ props, pages, choice, shown, shape, item }: RowInSightProps<Row>) {
  const row = pages.rowAt(item.index)
  const id = row === undefined ? undefined : props.idOf(row)
  return (
    <TableRow
      row={row}
      id={id}
      place={item}
      columns={shown}
      shape={shape}
      nameOf={pages.nameOf}
      isSelected={id !== undefined && id === props.selected}
      selectedBy={props.selectedBy ?? 'sel'}
      {...(props.bulk === undefined
        ? {}
        : {
            isChosen: id !== undefined && choice.isChosen(id),
            choose: (isRange: boolean) => void choice.choose(item.index, isRange),
          })}
    />
  )
}

interface ToolsProps<Row> extends ServerTableProps<Row> {
  readonly total: number
  readonly chosen: readonly Row[]
}

/** What stands above the rows: filters, columns, views, saving, how many there are, and what can be done with those that are chosen. */
function Tools<Row>(props: ToolsProps<Row>) {
  const { columns, total, chosen, bulk } = props
  const { query, withChanges } = useAddress()
  const router = useRouter()
  return (
    <div className="no-print mb-2 flex min-h-7 flex-wrap items-center gap-2">
      {props.filterWords !== undefined && <FilterField words={props.filterWords} />}
      {props.filters}
      <ColumnChoice
        columns={columns}
        shown={columnsShown(columns, query.get('columns')).map(each => each.id)}
        onChange={now => router.replace(withChanges({ columns: columnsWord(columns, now) }), { scroll: false })}
      />
      <SavedViews />
      <SaveAll {...props} />
      {chosen.length === 0 ? (
        <span className="hint">{total === 1 ? '1 in all' : `${total.toLocaleString('en')} in all`}</span>
      ) : (
        bulk?.(chosen)
      )}
    </div>
  )
}

interface ChooseAllProps<Row> {
  readonly label: string
  readonly choice: Choice<Row>
  readonly total: number
}

const ChooseAll = <Row,>({ label, choice, total }: ChooseAllProps<Row>) => (
  <Checkbox
    aria-label={`Choose all ${label.toLowerCase()} of the list`}
    isOn={choice.chosen.length > 0 && (choice.chosen.length >= total || 'some')}
    onChange={isOn => void choice.chooseAll(isOn)}
  />
)

const atFirst = <Row,>(columns: readonly ServerColumn<Row>[]) =>
  columns.filter(each => each.isAtFirstHidden !== true).map(each => each.id)

/** The columns that the address names, or those that are shown at first; the first column always. */
function columnsShown<Row>(columns: readonly ServerColumn<Row>[], named: string | null): readonly ServerColumn<Row>[] {
  const known = (named ?? '').split(',').filter(id => columns.some(each => each.id === id))
  const ids = known.length === 0 ? atFirst(columns) : known
  return columns.filter((column, index) => index === 0 || ids.includes(column.id))
}

/** The columns as the address names them; nothing where they are as at first. */
function columnsWord<Row>(columns: readonly ServerColumn<Row>[], shown: readonly string[]): string | null {
  const word = columns.map(each => each.id).filter(id => shown.includes(id))
  return word.join(',') === atFirst(columns).join(',') ? null : word.join(',')
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
