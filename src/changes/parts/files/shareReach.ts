import { askingFrom, exportTable, mayFile, type ShareRights } from '@/core/access'
import type { Estate } from '@/core/estate'
import { namesOfAddresses } from '@/core/network'
import type { Effect } from '@/core/plan'

/** How many of the hosts that are known may mount and write, before and after. */
export function reachEffects(estate: Estate, before: ShareRights | undefined, after: ShareRights): Effect[] {
  const nameOf = namesOfAddresses(estate.nameAnswers)
  const hosts = estate.hosts.filter(({ addresses }) => addresses.length > 0)
  const count = (rights: ShareRights, accesses: readonly string[]) => {
    const table = exportTable(rights.rules)
    return hosts.filter(({ addresses }) => {
      const request = {
        ...askingFrom({ addresses, clientName: nameOf(addresses[0]) }),
        uid: 0,
        gid: 0,
        groups: [],
        flavour: 'sys' as const,
        operation: 'read' as const,
      }
      const { ruleIndex } = mayFile(table, request, rights.root)
      const access = ruleIndex === null ? 'none' : (rights.rules[ruleIndex]?.access ?? 'none')
      return accesses.includes(access)
    }).length
  }
  const effect = (figure: string, label: string, accesses: readonly string[]): Effect => ({
    figure,
    label,
    unit: 'count',
    before: before === undefined ? null : count(before, accesses),
    after: count(after, accesses),
  })
  return [
    effect('hostsThatMount', `Of ${hosts.length} hosts with a known address may mount it`, ['rw', 'ro']),
    effect('hostsThatWrite', 'Of them may write to it', ['rw']),
  ]
}
