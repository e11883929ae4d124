import { NotOffered, type ResourceName } from '@/ports'
import type { Connection } from '../Connection'
import { OtherObject } from '../errors'
import { naaOf } from './read'
import { isVolume, type RedfishVolume } from './schema'

/** The volume that is expected at a place, with its tag. @throws {OtherObject} where something else stands there */
export async function expectedVolume(connection: Connection, locator: string, expectedNaa: string) {
  const tagged = await connection.readTagged(locator, isVolume)
  const naa = naaOf(tagged.found)
  if (naa !== expectedNaa) throw new OtherObject(locator, expectedNaa, naa)
  return tagged
}

type Action =
  `#Volume.${'CreateReplicaTarget' | 'SplitReplication' | 'ReverseReplicationRelationship' | 'RemoveReplicaRelationship'}`

/** Where an action on a volume is asked for. @throws {NotOffered} where the system does not offer it */
export function actionOf(
  connection: Connection,
  { Actions }: RedfishVolume,
  action: Action,
  resource: ResourceName,
): string {
  const { target } = (Actions as Partial<Record<Action, { readonly target?: string }>> | undefined)?.[action] ?? {}
  if (target !== undefined) return target
  const name = action.slice('#Volume.'.length)
  throw new NotOffered(connection.endpoint.address, resource, `Its volumes offer no ${name}.`)
}
