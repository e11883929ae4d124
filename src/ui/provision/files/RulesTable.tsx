import { askingFrom, decidingRule, exportTable, ruleReach, ruleTroubles, type ExportRule } from '@/core/access'
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
  const hostsOf = (index: number) => hosts.filter(host => decidingRule(table, askingFrom(host)) === index)
  return (
    <>
      <h3>
        Export rules, as listed{' '}
        <span>host before longest prefix, then first listed · hatched: another rule decides</span>
      </h3>
      <table className="plain rows">
        <Head hasAxis={axis.blocks.length > 0} />
        <tbody>
          {rules.map((rule, index) => (
            <RuleRow
              key={index}
              {...{ rule, index, axis }}
              reach={reach[index]}
              troubles={troubles.filter(each => each.index === index)}
              hosts={hostsOf(index)}
            />
          ))}
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

const Head = ({ hasAxis }: { readonly hasAxis: boolean }) => (
  <thead>
    <tr>
      <th className="w-[26px]"> </th>
      <th>Host or subnet</th>
      <th>Access</th>
      <th>Squash</th>
      <th>Sign-in</th>
      <th className="number">Decides</th>
      <th className="w-[26%]">{hasAxis && 'Addresses, in their order'}</th>
    </tr>
  </thead>
)

interface RuleRowProps {
  readonly rule: ExportRule
  readonly index: number
  readonly axis: ReturnType<typeof reachAxis>
  readonly reach: ReturnType<typeof ruleReach>[number] | undefined
  readonly troubles: ReturnType<typeof ruleTroubles>
  /** Those that the rule decides for. */
  readonly hosts: SharePage['hosts']
}

const RuleRow = ({ rule, index, axis, reach, troubles, hosts }: RuleRowProps) => (
  <tr className={reach?.isNeverReached === true ? 'text-second' : undefined}>
    <td className="mono text-second">{index + 1}</td>
    <td>
      <span className="mono">{rule.client}</span>
      {hosts.length > 0 && <span className="ml-2 text-second">{hostWords(hosts)}</span>}
      {troubles.map(({ why, level }) => (
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
      {reachWords(reach?.addresses)}
    </td>
    <td>
      <ReachBars axis={axis} index={index} access={rule.access} />
    </td>
  </tr>
)

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
