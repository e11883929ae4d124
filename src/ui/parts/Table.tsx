import { Link } from './Link'
import type { ReactNode } from 'react'

export interface Column<Row> {
  readonly head: ReactNode
  /** The head in words, where it is more than words; stands in front of the value where there is no room for columns. */
  readonly words?: string
  readonly cell: (row: Row) => ReactNode
  readonly isNumber?: boolean
  readonly className?: string
}

interface TableProps<Row> {
  readonly rows: readonly Row[]
  readonly columns: readonly Column<Row>[]
  readonly keyOf: (row: Row) => string | number
  readonly isSelected?: (row: Row) => boolean
}

/** A short table: all its rows are few and here. Where there is no room for columns each row becomes a few lines. */
export const Table = <Row,>({ rows, columns, keyOf, isSelected }: TableProps<Row>) => (
  <div className="overflow-x-auto">
    <table className="plain rows">
      <thead>
        <tr>
          {columns.map((column, index) => (
            <th key={index} className={column.isNumber === true ? 'number' : undefined}>
              {column.head}
            </th>
          ))}
        </tr>
      </thead>
      <tbody>
        {rows.map(row => (
          <tr key={keyOf(row)} data-selected={isSelected?.(row)}>
            {columns.map((column, index) => (
              <td
                key={index}
                data-head={column.words ?? (typeof column.head === 'string' ? column.head : undefined)}
                className={`${column.isNumber === true ? 'number' : ''} ${column.className ?? ''}`}
              >
                {column.cell(row)}
              </td>
            ))}
          </tr>
        ))}
      </tbody>
    </table>
  </div>
)

/** The name of a row, which leads to what it stands for. */
export const RowLink = ({ href, children }: { readonly href: string; readonly children: ReactNode }) => (
  <Link data-row href={href} className="font-semibold no-underline">
    {children}
  </Link>
)
