import type { TableColumn } from './TableColumn'

/** How a table stands: what it is sorted and filtered by, and which columns it shows. The page's address keeps it. */
export interface TableState {
  readonly sort: string
  readonly isDescending: boolean
  readonly find: string
  readonly shown: readonly string[]
}

type Columns = readonly Pick<TableColumn<never>, 'id' | 'isAtFirstHidden'>[]

const atFirst = (columns: Columns) => columns.filter(each => each.isAtFirstHidden !== true).map(each => each.id)

/** Reads how the table stands from an address; what it does not name, or names wrongly, is as at first. */
export function tableState(query: URLSearchParams, columns: Columns, sortAtFirst: string): TableState {
  const known = (id: string) => columns.some(each => each.id === id)
  const sort = query.get('sort') ?? ''
  const named = query.get('columns')?.split(',').filter(known) ?? []
  return {
    sort: known(sort) ? sort : sortAtFirst,
    isDescending: query.get('descending') === 'true',
    find: query.get('find') ?? '',
    shown: named.length === 0 ? atFirst(columns) : columns.map(each => each.id).filter(id => named.includes(id)),
  }
}

/** The address in which the table stands otherwise; all else in it stays, and what is as at first is not written. */
export function withTableState(
  query: URLSearchParams,
  state: TableState,
  columns: Columns,
  sortAtFirst: string,
): URLSearchParams {
  const next = new URLSearchParams(query)
  const put = (name: string, value: string) => (value === '' ? next.delete(name) : next.set(name, value))
  put('sort', state.sort === sortAtFirst ? '' : state.sort)
  put('descending', state.isDescending ? 'true' : '')
  put('find', state.find)
  const shown = state.shown.join(',')
  put('columns', shown === atFirst(columns).join(',') ? '' : shown)
  return next
}
