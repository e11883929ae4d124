import type { Gate } from '@/core/access'

const looks = {
  passes: { fill: 'var(--fine)', line: 'solid' },
  stops: { fill: 'var(--now)', line: 'none' },
  'would pass': { fill: 'none', line: 'dotted' },
  'would stop': { fill: 'none', line: 'dotted' },
  'not known': { fill: 'none', line: 'dotted' },
} as const

/** Every gate in order, as stations on a way: filled where the request has passed, barred where it stops. */
export const GateLines = ({ gates }: { readonly gates: readonly Gate[] }) => (
  <ol className="m-0 list-none p-0" aria-label="Gates in their order">
    {gates.map((gate, index) => {
      const isStop = gate.state === 'stops'
      const previous = gates[index - 1]
      return (
        <li
          key={gate.gate}
          className={`grid grid-cols-[18px_88px_minmax(0,1fr)] items-stretch gap-x-2 ${isStop ? 'bg-[color-mix(in_srgb,var(--now)_10%,transparent)]' : ''}`}
        >
          <Station
            isFirst={index === 0}
            isLast={index === gates.length - 1}
            state={gate.state}
            cameBy={previous?.state ?? gate.state}
          />
          <span className={`py-[5px] font-semibold ${isStop ? 'text-now' : ''}`}>{gate.label}</span>
          <span className={`py-[5px] ${isStop ? 'font-semibold' : 'text-second'}`}>
            {gate.state.startsWith('would') ? `${gate.state}: ` : ''}
            {gate.why}
          </span>
        </li>
      )
    })}
  </ol>
)

interface StationProps {
  readonly isFirst: boolean
  readonly isLast: boolean
  readonly state: Gate['state']
  readonly cameBy: Gate['state']
}

function Station({ isFirst, isLast, state, cameBy }: StationProps) {
  const { fill } = looks[state]
  const isReached = cameBy === 'passes'
  const dash = (isWalked: boolean) => (isWalked ? undefined : '1.5 3')
  return (
    <svg viewBox="0 0 18 30" preserveAspectRatio="none" className="h-full w-[18px]" aria-hidden>
      {!isFirst && (
        <line
          x1={9}
          x2={9}
          y1={0}
          y2={15}
          stroke={isReached ? 'var(--fine)' : 'var(--faint)'}
          strokeWidth={isReached ? 3 : 1}
          strokeDasharray={dash(isReached)}
        />
      )}
      {!isLast && (
        <line
          x1={9}
          x2={9}
          y1={15}
          y2={30}
          stroke={state === 'passes' ? 'var(--fine)' : 'var(--faint)'}
          strokeWidth={state === 'passes' ? 3 : 1}
          strokeDasharray={dash(state === 'passes')}
        />
      )}
      {state === 'stops' ? (
        <rect x={1} width={16} y={13} height={4} fill="var(--now)" />
      ) : (
        <circle
          cx={9}
          cy={15}
          r={4}
          fill={fill === 'none' ? 'var(--sheet)' : fill}
          stroke={fill === 'none' ? 'var(--faint)' : fill}
        />
      )}
    </svg>
  )
}
