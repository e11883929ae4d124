import { rows, type Scope } from '../database'

/** An initiator of a host that a system has in its groups otherwise than the host's group says. */
interface Apart {
  readonly groupId: string
  readonly groupName: string
  readonly hostName: string
  readonly initiator: string
}

/**
 * Where the groups of a system differ from those that hosts are in, of groups to which it shows something: hosts that it does not let in,
 * and hosts of other groups that it does. By two hash joins, however many hosts there are.
 */
export async function accessApart(
  scope: Scope,
  systemId: string,
): Promise<{ readonly lacking: readonly Apart[]; readonly others: readonly Apart[] }> {
  const found = await rows<Apart & { readonly isLacking: boolean }>(
    scope,
    `with known as (
       select host_group_id, hosts.name, initiator from hosts cross join jsonb_array_elements_text(initiators) as initiator),
     stated as (
       select host_groups.id, host_groups.name, access.initiators from systems
         cross join jsonb_to_recordset(access_groups) as access (name text, initiators jsonb) join host_groups on host_groups.name = access.name
       where systems.id = $1 and host_groups.id in (
         select host_group_id from mappings where system_id = $1 and missing_since is null)),
     let_in as (select id, name, initiator from stated cross join jsonb_array_elements_text(initiators) as initiator)
     select stated.id as "groupId", stated.name as "groupName", known.name as "hostName", known.initiator, true as "isLacking"
     from stated join known on known.host_group_id = stated.id
       left join let_in on let_in.id = stated.id and let_in.initiator = known.initiator
     where let_in.id is null
     union all
     select let_in.id, let_in.name, known.name, known.initiator, false
     from let_in join known on known.initiator = let_in.initiator and known.host_group_id <> let_in.id
     order by 2, 3, 4`,
    [systemId],
  )
  const plain = (isLacking: boolean) =>
    found.filter(each => each.isLacking === isLacking).map(({ isLacking: _, ...apart }) => apart)
  return { lacking: plain(true), others: plain(false) }
}
