import { useRouter } from 'next/navigation'
import type { ReactNode } from 'react'
import type { ServerColumn } from './ServerColumn'
import { SortMark } from './SortMark'
import { useAddress } from './useAddress'
import type { RowShape } from './useRowShape'

interface TableHeadProps<Row> {
  readonly columns: readonly ServerColumn<Row>[]
  readonly shape: RowShape
  readonly sortAtFirst: string
  /** Chooses all rows. */
  readonly choose?: ReactNode
}

/** The heads of the columns; where rows are narrow, only what they are sorted by. */
export function TableHead<Row>({ columns, shape, sortAtFirst, choose }: TableHeadProps<Row>) {
  const { query, withChanges } = useAddress()
  const router = useRouter()
  const sort = query.get('sort') ?? sortAtFirst
  const isDescending = query.get('descending') === 'true'
  const sortBy = (by: string) =>
    router.push(
      withChanges({
        sort: by === sortAtFirst ? null : by,
        descending: by === sort && !isDescending ? 'true' : null,
      }),
      { scroll: false },
    )
  return (
    <div
      role="row"
      className={`gap-x-[10px] border-b border-rule text-sm text-faint ${shape.isNarrow ? 'flex flex-wrap' : 'grid'}`}
      style={shape.isNarrow ? {} : shape.tracks}
    >
      {choose !== undefined && (
        <span role="columnheader" className="pl-[5px]">
          {choose}
        </span>
      )}
      {columns.map((column, index) => (
        <Head
          key={column.id}
          column={column}
          isFirst={index === 0}
          sorted={column.sort === sort ? (isDescending ? 'descending' : 'ascending') : 'none'}
          sortBy={sortBy}
        />
      ))}
    </div>
  )
}

interface HeadProps<Row> {
  readonly column: ServerColumn<Row>
  readonly isFirst: boolean
  readonly sorted: 'ascending' | 'descending' | 'none'
  readonly sortBy: (by: string) => void
}

function Head<Row>({ column: { head, sort, isNumber }, isFirst, sorted, sortBy }: HeadProps<Row>) {
  const place = isNumber === true ? 'text-right' : isFirst ? 'pl-2' : ''
  if (sort === undefined)
    return (
      <span role="columnheader" className={`truncate ${place}`}>
        {head}
      </span>
    )
  return (
    <span role="columnheader" aria-sort={sorted} className={place}>
      <button
        type="button"
        className="border-0 bg-transparent p-0 whitespace-nowrap hover:text-ink"
        onClick={() => sortBy(sort)}
      >
        {head}
        <SortMark sorted={sorted} />
      </button>
    </span>
  )
}
