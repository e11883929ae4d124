import { rows, type Scope } from '../database'

/** Which of our host groups a system's group of initiators is: the one whose hosts own them, or else the one of that name. */
export async function hostGroupOf(
  scope: Scope,
): Promise<(initiators: readonly string[], groupName: string) => string | null> {
  const owners = await rows<{ readonly initiator: string; readonly host_group_id: string }>(
    scope,
    'select jsonb_array_elements_text(initiators) as initiator, host_group_id from hosts',
  )
  const named = await rows<{ readonly id: string; readonly name: string }>(scope, 'select id, name from host_groups')
  const groupByInitiator = new Map(owners.map(owner => [owner.initiator, owner.host_group_id]))
  const groupByName = new Map(named.map(group => [group.name, group.id]))
  return (initiators, groupName) =>
    initiators.map(each => groupByInitiator.get(each)).find(id => id !== undefined) ??
    groupByName.get(groupName) ??
    null
}
