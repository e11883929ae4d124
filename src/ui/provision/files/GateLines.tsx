import type { Gate } from '@/core/access'

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

/** Its line goes through whatever height its words take; its mark stays as it is. */
function Station({ isFirst, isLast, state, cameBy }: StationProps) {
  const isHollow = state !== 'passes'
  const line = (isWalked: boolean) =>
    isWalked ? 'border-l-[3px] border-fine -ml-[1.5px]' : 'border-l border-dotted border-faint'
  return (
    <span className="relative block w-[18px]" aria-hidden>
      {!isFirst && <span className={`absolute top-0 left-[9px] h-1/2 ${line(cameBy === 'passes')}`} />}
      {!isLast && <span className={`absolute top-1/2 left-[9px] h-1/2 ${line(state === 'passes')}`} />}
      {state === 'stops' ? (
        <span className="absolute top-1/2 left-[1px] h-1 w-4 -translate-y-1/2 bg-now" />
      ) : (
        <span
          className={`absolute top-1/2 left-[5px] size-2 -translate-y-1/2 rounded-full border ${isHollow ? 'border-faint bg-sheet' : 'border-fine bg-fine'}`}
        />
      )}
    </span>
  )
}
