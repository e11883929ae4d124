import Link from 'next/link'
import { intakeStates, type IntakeState } from '@/core/estate'
import { Bytes } from '../../parts/Bytes'
import type { DriveKind } from './kinds'

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
      <svg width={0} height={0} className="absolute" aria-hidden>
        <defs>
          <pattern id="kind-foreign" width={5} height={5} patternUnits="userSpaceOnUse" patternTransform="rotate(45)">
            <rect width={5} height={5} fill="var(--sheet)" />
            <rect width={2} height={5} fill="var(--soon)" />
          </pattern>
        </defs>
      </svg>
      <div className="overflow-x-auto">
        <table className="plain">
          <thead>
            <tr>
              <th>Kind</th>
              <th style={{ width: width + 10 }}>States</th>
              <th className="number">Drives</th>
              <th className="number">In all</th>
              {present.map(state => (
                <th key={state} className="number">
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
              ))}
            </tr>
          </thead>
          <tbody>
            {kinds.map(kind => {
              let x = 0
              return (
                <tr key={kind.words}>
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
                    <svg
                      viewBox={`0 0 ${width} 14`}
                      width={width}
                      height={14}
                      role="img"
                      aria-label={present.map(state => `${kind.byState[state]} ${state}`).join(', ')}
                    >
                      {present.map(state => {
                        const length = (kind.byState[state] / most) * (width - 2)
                        const bar = (
                          <rect
                            key={state}
                            x={x}
                            y={1}
                            width={Math.max(0, length - 1)}
                            height={12}
                            fill={fills[state]}
                          />
                        )
                        x += length
                        return bar
                      })}
                    </svg>
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
            })}
          </tbody>
        </table>
      </div>
    </figure>
  )
}
