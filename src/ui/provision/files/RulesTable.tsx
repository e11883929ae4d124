import { exportTable, decidingRule, ruleReach, ruleTroubles, type ExportRule } from '@/core/access'
import type { SharePage } from '@/core/views'
import { ReachBars, reachAxis } from '../../drawings/reach'
import { State } from '../../parts/State'

interface RulesTableProps {
  readonly rules: readonly ExportRule[]
  readonly hosts: SharePage['hosts']
}

/** Export rules as they are listed, with what each decides and which hosts it is for. */
export function RulesTable({ rules, hosts }: RulesTableProps) {
  const reach = ruleReach(rules)
  const axis = reachAxis(rules)
  const troubles = ruleTroubles(rules, reach)
  const table = exportTable(rules)
  const hostsOf = (index: number) =>
    hosts.filter(
      ({ addresses }) => decidingRule(table, { clientAddress: addresses[0] ?? '', clientName: null }) === index,
    )
  return (
    <>
      <h3>
        Export rules, as listed{' '}
        <span>host before longest prefix, then first listed · hatched: another rule decides</span>
      </h3>
      <table className="plain rows">
        <thead>
          <tr>
            <th className="w-[26px]"> </th>
            <th>Host or subnet</th>
            <th>Access</th>
            <th>Squash</th>
            <th>Sign-in</th>
            <th className="number">Decides</th>
            <th className="w-[26%]">{axis.blocks.length > 0 && 'Addresses, in their order'}</th>
          </tr>
        </thead>
        <tbody>
          {rules.map((rule, index) => {
            const own = troubles.filter(each => each.index === index)
            const named = hostsOf(index)
            const isNever = reach[index]?.isNeverReached === true
            return (
              <tr key={index} className={isNever ? 'text-second' : undefined}>
                <td className="mono text-second">{index + 1}</td>
                <td>
                  <span className="mono">{rule.client}</span>
                  {named.length > 0 && <span className="ml-2 text-second">{hostWords(named)}</span>}
                  {own.map(({ why, level }) => (
                    <div key={why} className="text-sm">
                      <State gravity={level === 'must' ? 'now' : 'soon'}>{why}</State>
                    </div>
                  ))}
                </td>
                <td data-head="Access" className={rule.access === 'rw' ? 'mono font-semibold' : 'mono'}>
                  {rule.access}
                </td>
                <td data-head="Squash" className="mono">
                  {rule.squash}
                </td>
                <td data-head="Sign-in" className="mono">
                  {rule.flavours.join(' ')}
                </td>
                <td data-head="Decides" className="number mono">
                  {reachWords(reach[index]?.addresses)}
                </td>
                <td>
                  <ReachBars axis={axis} index={index} access={rule.access} />
                </td>
              </tr>
            )
          })}
          {!rules.some(({ client }) => client.trim() === '*') && (
            <tr className="text-second">
              <td> </td>
              <td>any other</td>
              <td>refused</td>
              <td colSpan={4}>no rule</td>
            </tr>
          )}
        </tbody>
      </table>
    </>
  )
}

const shownHosts = 2
const hostWords = (hosts: SharePage['hosts']) =>
  `${hosts
    .slice(0, shownHosts)
    .map(({ name }) => name)
    .join(', ')}${hosts.length > shownHosts ? ` and ${hosts.length - shownHosts} more` : ''}`

const reachWords = (addresses: bigint | null | undefined) =>
  addresses == null
    ? 'the rest'
    : addresses > 99_999n
      ? `${Number(addresses).toExponential(1)}`
      : addresses.toLocaleString('en')
