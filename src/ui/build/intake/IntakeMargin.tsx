import { Link } from '../../parts/Link'
import type { IntakeState } from '@/core/estate'
import type { DriveCount } from '@/core/views'
import { formatBytes } from '@/core/units'
import { Margin } from '../../frame'
import { State } from '../../parts/State'

const order = ['failed', 'failing', 'foreign', 'unassigned', 'spare', 'in use', 'boot'] as const
const words: Readonly<Record<IntakeState, string>> = {
  failed: 'exchange them',
  failing: 'exchange them soon',
  foreign: 'erase them before they are used',
  unassigned: 'free for a pool or a cluster',
  spare: 'stand in for those that fail',
  'in use': 'hold data',
  boot: 'start their nodes',
}

/** What matters of all drives while none is selected: what asks for work first, and what each can be used for. */
export function IntakeMargin({ counts: counted }: { readonly counts: readonly DriveCount[] }) {
  const counts = order.flatMap(state => {
    const own = counted.filter(each => each.intake === state)
    const count = own.reduce((sum, each) => sum + each.count, 0)
    const bytes = own.reduce((sum, each) => sum + each.capacityBytes * BigInt(each.count), 0n)
    return count === 0 ? [] : [{ state, count, bytes }]
  })
  return (
    <Margin>
      <h2>By state</h2>
      <table className="plain">
        <tbody>
          {counts.map(({ state, count, bytes }) => (
            <tr key={state}>
              <td>
                <Link className="no-underline" href={`/build/drives?state=${encodeURIComponent(state)}`} scroll={false}>
                  <State
                    gravity={state === 'failed' ? 'now' : state === 'failing' || state === 'foreign' ? 'soon' : 'fine'}
                  >
                    {state}
                  </State>
                </Link>
              </td>
              <td className="text-second">{words[state]}</td>
              <td className="number">{count}</td>
              <td className="number">{formatBytes(bytes)}</td>
            </tr>
          ))}
        </tbody>
      </table>
      <p className="text-second">
        A drive that carries something from an earlier use cannot be taken into a pool or cluster before it has been
        erased. One that is chosen shows what it is, what was left on it, and what it is best for.
      </p>
    </Margin>
  )
}
