import { Link } from '../../parts/Link'
import { suggestedLine } from '@/core/hosts'
import { draftAddress, registerHostsIntent } from '@/core/intents'
import type { UnknownHosts } from '@/core/views'

/** Names that log in and belong to no registered host, each with the way to register it. */
export function Unknown({ unknown: { items, total } }: { readonly unknown: UnknownHosts }) {
  if (total === 0) return null
  return (
    <>
      <h3>
        Log in and are not registered <span>{total > items.length ? `${items.length} of ${total}` : total}</span>
      </h3>
      {items.map(({ initiator, systems, groups }) => (
        <div key={initiator} className="border-b border-rule-fine py-[5px]">
          <div className="mono text-[12px] break-all">{initiator}</div>
          <div className="flex items-baseline justify-between gap-3 text-second">
            <span className="min-w-0 break-words">
              {groups.length === 0
                ? `is shown nothing by ${systems.join(', ')}`
                : `sees what ${groups.join(', ')} is shown by ${systems.join(', ')}`}
            </span>
            <Link className="textlink shrink-0" href={registering(initiator, groups[0])} scroll={false}>
              Register
            </Link>
          </div>
        </div>
      ))}
    </>
  )
}

const registering = (initiator: string, group: string | undefined) =>
  `${draftAddress(registerHostsIntent, {}) ?? ''}&${new URLSearchParams({ list: suggestedLine(initiator, group) })}`
