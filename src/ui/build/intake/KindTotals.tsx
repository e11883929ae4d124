import { sum } from 'd3-array'
import Link from 'next/link'
import { intakeStates, type DriveKind, type IntakeState } from '@/core/estate'
import { Bytes } from '../../parts/Bytes'

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
      <div className="overflow-x-auto">
        <table className="plain">
          <thead>
            <tr>
              <th>Kind</th>
              <th style={{ width: width + 10 }}>States</th>
              <th className="number">Drives</th>
              <th className="number">In all</th>
              {present.map(state => (
                <StateHead key={state} state={state} />
              ))}
            </tr>
          </thead>
          <tbody>
            {kinds.map(kind => (
              <KindRow key={kind.words} kind={kind} present={present} most={most} />
            ))}
          </tbody>
        </table>
      </div>
    </figure>
  )
}

interface KindRowProps {
  readonly kind: DriveKind
  readonly present: readonly IntakeState[]
  /** How many drives the longest bar stands for. */
  readonly most: number
}

const KindRow = ({ kind, present, most }: KindRowProps) => (
  <tr>
    <td className="whitespace-nowrap">
      <Link
        data-row
        href={`/build/drives?kind=${encodeURIComponent(kind.words)}`}
        className="font-semibold no-underline"
      >
        {kind.words}
      </Link>
    </td>
    <td>
      <StateBar kind={kind} present={present} most={most} />
    </td>
    <td className="number">{kind.count}</td>
    <td className="number">
      <Bytes bytes={kind.bytes} />
    </td>
    {present.map(state => (
      <td key={state} className="number">
        {kind.byState[state] === 0 ? <span className="text-faint">·</span> : kind.byState[state]}
      </td>
    ))}
  </tr>
)

function StateBar({ kind, present, most }: KindRowProps) {
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

interface StateHeadProps {
  readonly state: 'unassigned' | 'foreign' | 'spare' | 'in use' | 'boot' | 'failing' | 'failed'
}

const StateHead = ({ state }: StateHeadProps) => (
  <th className="number">
    <Link
      href={`/build/drives?state=${encodeURIComponent(state)}`}
      className="inline-flex items-center gap-1 no-underline hover:text-ink"
    >
      <svg width={9} height={9} aria-hidden>
        <rect width={9} height={9} fill={fills[state]} />
      </svg>
      {state}
    </Link>
  </th>
)
