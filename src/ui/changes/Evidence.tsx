import type { EvidenceEntry } from '@/core/views'
import { Copied } from '../parts/Copied'
import { State } from '../parts/State'
import { Fold } from '../parts/Fold'

/** What was tested after a change, each line with what it measured. */
export function Evidence({ entries }: { readonly entries: readonly EvidenceEntry[] }) {
  // A change that was proven again keeps what was found before; what counts is the last try.
  const last = Math.max(0, ...entries.map(entry => entry.attempt))
  return (
    <ul className="m-0 list-none p-0">
      {last > 1 && <li className="text-second">Of the {last === 2 ? 'second' : `${last}th`} try to prove it.</li>}
      {entries
        .filter(entry => entry.attempt === last)
        // What did not hold stands first, with what it measured.
        .sort((a, b) => Number(a.holds) - Number(b.holds))
        .map(entry => (
          <li key={`${entry.claim}/${entry.at}`} className="border-b border-rule-fine py-[5px]">
            <State gravity={entry.holds ? 'fine' : 'now'}>{entry.claim}</State>
            <Fold
              className="pl-[17px] text-second"
              title={<span className="text-xs">measured</span>}
              isOpen={!entry.holds}
            >
              <dl className="m-0 grid grid-cols-[auto_1fr] gap-x-3">
                {Object.entries(entry.measured).map(([name, value]) => (
                  <div key={name} className="contents">
                    <dt className="text-faint">{name}</dt>
                    <dd className="m-0">{value === '' ? '—' : <Copied text={value} />}</dd>
                  </div>
                ))}
              </dl>
            </Fold>
          </li>
        ))}
    </ul>
  )
}
