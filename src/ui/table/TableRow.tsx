import { Link } from '../parts/Link'
import { Checkbox } from '../parts/Checkbox'
import type { NameOf, ServerColumn } from './ServerColumn'
import { useAddress } from './useAddress'
import type { RowShape } from './useRowShape'

interface TableRowProps<Row> {
  /** Undefined while it is read. */
  readonly row: Row | undefined
  readonly id: string | undefined
  readonly place: { readonly index: number; readonly start: number }
  readonly columns: readonly ServerColumn<Row>[]
  readonly shape: RowShape
  readonly nameOf: NameOf
  readonly isSelected: boolean
  readonly selectedBy: string
  readonly isChosen?: boolean
  readonly choose?: (isRange: boolean) => void
}

export function TableRow<Row>(props: TableRowProps<Row>) {
  const { row, id, place, columns, shape, nameOf, isSelected, isChosen = false, choose } = props
  const { withChanges } = useAddress()
  const [opener] = columns
  const href = withChanges({ [props.selectedBy]: id ?? null, draft: null, change: null })
  return (
    <div
      role="row"
      aria-rowindex={place.index + 2}
      data-selected={isSelected}
      className={`absolute inset-x-0 grid items-center gap-x-[10px] border-b border-rule-fine ${isSelected || isChosen ? 'bg-action-wash' : ''} ${isSelected ? 'shadow-[inset_2px_0_0_var(--action)]' : ''}`}
      style={{ ...shape.tracks, height: shape.pixels, transform: `translateY(${place.start}px)` }}
    >
      {row === undefined || opener === undefined ? (
        <Loading />
      ) : (
        <>
          {choose !== undefined && (
            <ChoiceCell
              words={opener.text(row, nameOf)}
              isNarrow={shape.isNarrow}
              isChosen={isChosen}
              choose={choose}
            />
          )}
          {columns.map((column, index) => (
            <Cell
              key={column.id}
              column={column}
              row={row}
              nameOf={nameOf}
              isNarrow={shape.isNarrow}
              href={index === 0 ? href : undefined}
            />
          ))}
        </>
      )}
    </div>
  )
}

const Loading = () => <span role="cell" className="col-span-full h-3 rounded-sm bg-rule-fine" aria-label="Loading" />

interface CellProps<Row> {
  readonly column: ServerColumn<Row>
  readonly row: Row
  readonly nameOf: NameOf
  readonly isNarrow: boolean
  /** Opens the row. */
  readonly href: string | undefined
}

function Cell<Row>({ column, row, nameOf, isNarrow, href }: CellProps<Row>) {
  const text = column.text(row, nameOf)
  const said = column.cell?.(row, nameOf) ?? text
  if (href === undefined)
    return (
      <span
        role="cell"
        data-hint={text}
        className={`min-w-0 truncate ${column.isNumber === true && !isNarrow ? 'text-right' : ''}`}
      >
        {isNarrow && text !== '' && <span className="mr-1 text-faint">{column.head}</span>}
        {said}
      </span>
    )
  return (
    <span role="cell" className={`min-w-0 truncate ${isNarrow ? 'col-span-full' : 'pl-2'}`}>
      <Link data-row href={href} scroll={false} data-hint={text} className="block truncate font-semibold no-underline">
        {said}
      </Link>
    </span>
  )
}

interface ChoiceCellProps {
  /** What the row is known by. */
  readonly words: string
  readonly isNarrow: boolean
  readonly isChosen: boolean
  readonly choose: (isRange: boolean) => void
}

const ChoiceCell = ({ words, isNarrow, isChosen, choose }: ChoiceCellProps) => (
  <span role="cell" className={isNarrow ? 'absolute top-[7px] right-1' : 'pl-[5px]'}>
    <Checkbox aria-label={`Choose ${words}`} isOn={isChosen} onChange={(_, isRange) => choose(isRange)} />
  </span>
)
