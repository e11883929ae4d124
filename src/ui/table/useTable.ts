'use client'
import {
  getCoreRowModel,
  getFilteredRowModel,
  getSortedRowModel,
  useReactTable,
  type ColumnDef,
} from '@tanstack/react-table'
import { useSearchParams } from 'next/navigation'
import { useMemo, useRef, useState } from 'react'
import { between } from './between'
import { tableState, withTableState, type TableState } from './tableState'
import type { TableColumn } from './TableColumn'

/** The rows of a table as they are sorted and filtered now, and which of them are chosen. */
export function useTable<Row>(
  rows: readonly Row[],
  columns: readonly TableColumn<Row>[],
  idOf: (row: Row) => string,
  sortAtFirst: string,
) {
  const query = useSearchParams()
  const state = tableState(query, columns, sortAtFirst)
  const [chosen, setChosen] = useState<ReadonlySet<string>>(new Set())
  const last = useRef<string>(undefined)
  const defined = useMemo(
    (): ColumnDef<Row>[] =>
      columns.map(({ id, text, order }) => ({
        id,
        accessorFn: text,
        sortingFn: (a, b) => compared((order ?? text)(a.original), (order ?? text)(b.original)),
      })),
    [columns],
  )
  const { sort, isDescending, find } = state
  // The same objects while nothing has changed, else every drawing would sort and filter anew.
  const shownAs = useMemo(
    () => ({ sorting: [{ id: sort, desc: isDescending }], globalFilter: find.trim() }),
    [sort, isDescending, find],
  )
  const data = useMemo(() => [...rows], [rows])
  const table = useReactTable({
    data,
    columns: defined,
    getRowId: idOf,
    // There are no pages; their reset would draw the table again after every drawing.
    autoResetPageIndex: false,
    state: shownAs,
    globalFilterFn: 'includesString',
    getColumnCanGlobalFilter: () => true,
    getCoreRowModel: getCoreRowModel(),
    getFilteredRowModel: getFilteredRowModel(),
    getSortedRowModel: getSortedRowModel(),
  })
  const inSight = table.getRowModel().rows.map(row => row.original)
  const ids = inSight.map(idOf)
  const stand = (patch: Partial<TableState>) => {
    const next = withTableState(
      new URLSearchParams(window.location.search),
      { ...state, ...patch },
      columns,
      sortAtFirst,
    )
    // The rows are all here: the address changes without asking the server again.
    window.history.replaceState(null, '', `${window.location.pathname}${next.size === 0 ? '' : `?${next}`}`)
  }
  /** Chooses a row or takes it out of the choice; with `isRange`, all rows from the last one touched as well. */
  const choose = (id: string, isRange: boolean) => {
    const touched = isRange ? between(ids, last.current, id) : [id]
    const isOn = !chosen.has(id)
    const next = new Set(chosen)
    for (const each of touched) if (isOn) next.add(each)
    if (!isOn) for (const each of touched) next.delete(each)
    last.current = id
    setChosen(next)
  }
  const chooseAll = (isOn: boolean) => setChosen(isOn ? new Set(ids) : new Set())
  return {
    state,
    stand,
    inSight,
    chosen: rows.filter(row => chosen.has(idOf(row))),
    isChosen: (id: string) => chosen.has(id),
    choose,
    chooseAll,
  }
}

function compared(a: number | bigint | string, b: number | bigint | string): number {
  if (typeof a === 'string' && typeof b === 'string') return a.localeCompare(b, 'en', { numeric: true })
  return a < b ? -1 : a > b ? 1 : 0
}
