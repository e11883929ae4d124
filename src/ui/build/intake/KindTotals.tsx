import { sum } from 'd3-array'
import { Link } from '../../parts/Link'
import { intakeStates, type DriveKind, type IntakeState } from '@/core/estate'
import { Bytes } from '../../parts/Bytes'
import { RowLink, Table, type Column } from '../../parts/Table'

const fills: Readonly<Record<IntakeState, string>> = {
  unassigned: 'var(--d7)',
  foreign: 'url(#kind-foreign)',
  spare: 'var(--d6)',
  'in use': 'var(--d1)',
  boot: 'var(--faint)',
  failing: 'var(--soon)',
  failed: 'var(--now)',
}
const width = 120

/** Every kind of drive as a bar of its states, beside the same figures as a table. */
export function KindTotals({ kinds }: { readonly kinds: readonly DriveKind[] }) {
  const most = Math.max(1, ...kinds.map(kind => kind.count))
  const present = intakeStates.filter(state => kinds.some(kind => kind.byState[state] > 0))
  return (
    <figure className="m-0">
      <h3>
        By kind and state <span>a bar is as long as its drives are many</span>
      </h3>
      <ForeignPattern />
      <Table rows={kinds} columns={columnsFor(present, most)} keyOf={kind => kind.words} />
    </figure>
  )
}

const columnsFor = (present: readonly IntakeState[], most: number): readonly Column<DriveKind>[] => [
  {
    head: 'Kind',
    cell: ({ words }) => <RowLink href={`/build/drives?kind=${encodeURIComponent(words)}`}>{words}</RowLink>,
    className: 'whitespace-nowrap',
  },
  { head: 'States', cell: kind => <StateBar kind={kind} present={present} most={most} /> },
  { head: 'Drives', cell: ({ count }) => count, isNumber: true },
  { head: 'In all', cell: ({ bytes }) => <Bytes bytes={bytes} />, isNumber: true },
  ...present.map(
    (state): Column<DriveKind> => ({
      head: <StateHead state={state} />,
      words: state,
      cell: ({ byState }) => (byState[state] === 0 ? <span className="text-faint">·</span> : byState[state]),
      isNumber: true,
    }),
  ),
]

interface StateBarProps {
  readonly kind: DriveKind
  readonly present: readonly IntakeState[]
  /** How many drives the longest bar stands for. */
  readonly most: number
}

function StateBar({ kind, present, most }: StateBarProps) {
  const lengths = present.map(state => (kind.byState[state] / most) * (width - 2))
  return (
    <svg
      viewBox={`0 0 ${width} 14`}
      width={width}
      height={14}
      role="img"
      aria-label={present.map(state => `${kind.byState[state]} ${state}`).join(', ')}
    >
      {present.map((state, index) => (
        <rect
          key={state}
          x={sum(lengths.slice(0, index))}
          y={1}
          width={Math.max(0, (lengths[index] ?? 0) - 1)}
          height={12}
          fill={fills[state]}
        />
      ))}
    </svg>
  )
}

const ForeignPattern = () => (
  <svg width={0} height={0} className="absolute" aria-hidden>
    <defs>
      <pattern id="kind-foreign" width={5} height={5} patternUnits="userSpaceOnUse" patternTransform="rotate(45)">
        <rect width={5} height={5} fill="var(--sheet)" />
        <rect width={2} height={5} fill="var(--soon)" />
      </pattern>
    </defs>
  </svg>
)

const StateHead = ({ state }: { readonly state: IntakeState }) => (
  <Link
    href={`/build/drives?state=${encodeURIComponent(state)}`}
    className="inline-flex items-center gap-1 no-underline hover:text-ink"
  >
    <svg width={9} height={9} aria-hidden>
      <rect width={9} height={9} fill={fills[state]} />
    </svg>
    {state}
  </Link>
)
