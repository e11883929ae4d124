import type { ConnectionHop } from '@/core/network'

const width = 820
const height = 74
const edge = 44

interface ConnectionLineProps {
  readonly hops: readonly ConnectionHop[]
  readonly from: string
  readonly to: string
}

/** The way as a line with its stations: drawn through as far as it was gone, barred where it ends, dotted behind. */
export function ConnectionLine({ hops, from, to }: ConnectionLineProps) {
  const step = (width - 2 * edge) / Math.max(1, hops.length - 1)
  const at = (index: number) => edge + index * step
  const stop = hops.find(({ state }) => state === 'stops')
  const title = `The way from ${from} to ${to}: ${stop === undefined ? 'gone to its end' : `ends at the ${stop.label.toLowerCase()}`}`
  return (
    <svg viewBox={`0 0 ${width} ${height}`} className="my-2 block w-full max-w-[900px]" role="img" aria-label={title}>
      {hops.slice(1).map(({ hop, state }, index) => {
        const isGone = state !== 'not tried'
        return (
          <line
            key={hop}
            x1={at(index)}
            x2={at(index + 1)}
            y1={40}
            y2={40}
            stroke={isGone ? 'var(--fine)' : 'var(--faint)'}
            strokeWidth={isGone ? 3 : 1}
            strokeDasharray={isGone ? undefined : '2 4'}
          />
        )
      })}
      {hops.map((hop, index) => (
        <Stop key={hop.hop} hop={hop} x={at(index)} />
      ))}
    </svg>
  )
}

const Stop = ({ hop: { label, state, milliseconds }, x }: { readonly hop: ConnectionHop; readonly x: number }) => (
  <g transform={`translate(${x} 40)`}>
    <Station state={state} />
    <text y={-16} textAnchor="middle" className="text-[12.5px]" fill={state === 'stops' ? 'var(--now)' : 'var(--ink)'}>
      {label}
    </text>
    {milliseconds !== null && state !== 'not tried' && (
      <text y={26} textAnchor="middle" className="mono text-[11.5px]" fill="var(--second)">
        {milliseconds < 10 ? milliseconds.toFixed(2) : milliseconds.toFixed(0)} ms
      </text>
    )}
  </g>
)

/** Filled where the way goes on, a bar across where it ends, hollow where nobody has been. */
function Station({ state }: Pick<ConnectionHop, 'state'>) {
  if (state === 'stops') return <rect x={-2.5} y={-11} width={5} height={22} fill="var(--now)" />
  return state === 'passes' ? (
    <circle r={5.5} fill="var(--fine)" />
  ) : (
    <circle r={4.5} fill="var(--sheet)" stroke="var(--faint)" />
  )
}
