import type { ChangePorts } from '@/ports'
import type { Evidence } from '../ChangeKind'

/**
 * That a system states a mapping and all who log in by it, where no host of the group has an agent that could be asked: the system's own
 * word is all there is, and the claim says so.
 */
export async function statedMapping(
  ports: ChangePorts,
  systemId: string,
  locator: string,
  group: { readonly name: string; readonly initiators: readonly string[] },
): Promise<Evidence> {
  const mappings = await ports.of(systemId, 'mappings')
  const mapped = await mappings.of(locator)
  const known = new Set(await mappings.initiatorsOf(group.name))
  const lacking = group.initiators.filter(each => !known.has(each))
  return {
    claim: `The system states that ${group.name} sees it; no host of it has an agent that could be asked`,
    holds: group.initiators.length > 0 && lacking.length === 0 && mapped.some(each => each.groupName === group.name),
    measured: {
      mappedTo: mapped.map(each => each.groupName).join(', ') || 'nobody',
      initiators: `${group.initiators.length - lacking.length} of ${group.initiators.length}`,
    },
  }
}
