import type { Principal } from '@/core/estate'
import type { PersonPage, Somebody, Supposed } from '@/core/views'
import { literal } from 'sequelize'
import { rows, type Scope } from '../database'
import { object, objectCount, objects } from '../objects'
import { hostsOnNetwork } from './sharePage'

const mostMembers = 60
const mostShares = 200

/** Somebody with every group above them; undefined where they are not known. A ring of groups ends by itself: each comes once. */
export async function somebody(scope: Scope, id: string): Promise<Somebody | undefined> {
  const person = await object(scope, 'principals', id)
  if (person === undefined) return undefined
  const above = await rows<{ readonly id: string }>(
    scope,
    `with recursive above as (
       select id, directory_id, member_of from principals where id = $1
       union
       select g.id, g.directory_id, g.member_of from above
         join principals g on g.directory_id = above.directory_id
           and g.durable_id = any(array(select jsonb_array_elements_text(above.member_of))) and g.sort = 'group')
     select id from above where id <> $1`,
    [id],
  )
  const groups =
    above.length === 0 ? [] : await objects(scope, 'principals', { where: { id: above.map(each => each.id) } })
  return { person, groups }
}

/** A group with those above it, for who would be in it; undefined where it is of another directory, or none. */
async function supposedOf(
  scope: Scope,
  person: Principal,
  what: Supposed['what'],
  groupId: string,
): Promise<{ readonly supposed: Supposed; readonly groups: readonly Principal[] } | undefined> {
  const found = await somebody(scope, groupId)
  if (found === undefined || person.sort !== 'person') return undefined
  const { person: group, groups } = found
  const isOne = group.sort === 'group' && group.directoryId === person.directoryId
  return isOne ? { supposed: { what, group }, groups: [group, ...groups] } : undefined
}

/** Who is in a group, and how many; nobody is in a person. */
async function membersOf(
  scope: Scope,
  { sort: own, directoryId, durableId }: Principal,
): Promise<Pick<PersonPage, 'members' | 'memberCount'>> {
  if (own !== 'group') return { members: [], memberCount: 0 }
  const and = literal(
    `directory_id = '${directoryId}' and gone_since is null and member_of @> ${scope.database.escape(JSON.stringify([durableId]))}::jsonb`,
  )
  const members = await objects(scope, 'principals', { and, order: [['name', 'ASC']], limit: mostMembers })
  return {
    members: members.map(({ id, name, account, sort, isDisabled }) => ({ id, name, account, sort, isDisabled })),
    memberCount: await objectCount(scope, 'principals', { and }),
  }
}

/** All that says what somebody may do. @param suppose a group that they would be in, or not */
export async function personPage(
  scope: Scope,
  id: string,
  suppose?: { readonly what: Supposed['what']; readonly groupId: string },
): Promise<PersonPage | undefined> {
  const found = await somebody(scope, id)
  if (found === undefined) return undefined
  const { person } = found
  const otherwise = suppose === undefined ? undefined : await supposedOf(scope, person, suppose.what, suppose.groupId)
  const directory = await object(scope, 'directories', person.directoryId)
  const services = await objects(scope, 'fileServices')
  const { hosts } = await hostsOnNetwork(scope)
  return {
    person,
    groups: [...new Map([...found.groups, ...(otherwise?.groups ?? [])].map(each => [each.id, each])).values()],
    supposed: otherwise?.supposed ?? null,
    directoryName: directory?.name ?? '',
    ...(await membersOf(scope, person)),
    shares: await objects(scope, 'shares', { order: [['name', 'ASC']], limit: mostShares }),
    shareCount: await objectCount(scope, 'shares', {}),
    services: services.map(({ id: own, name, joinedTo, instances }) => ({
      ...{ id: own, name, joinedTo },
      addresses: instances.flatMap(({ address, standsOn }) => (standsOn === null ? [] : [address])),
    })),
    hosts: hosts.map(({ name, addresses, clientName = null }) => ({ name, addresses, clientName })),
  }
}
