import { NotOffered, type ResourceName } from '@/ports'
import type { Connection } from '../Connection'
import { OtherObject } from '../errors'
import { naaOf } from './read'
import { isVolume, type RedfishVolume } from './schema'

/**
 * Changes the volume that is expected at a place.
 * @param look says what is to be done with it
 * @throws {OtherObject} where something else stands there
 */
export const changeExpected = (
  connection: Connection,
  locator: string,
  expectedNaa: string,
  look: Parameters<typeof connection.changeAsRead<RedfishVolume>>[2],
) =>
  connection.changeAsRead(locator, isVolume, found => {
    const naa = naaOf(found)
    if (naa !== expectedNaa) throw new OtherObject(locator, expectedNaa, naa)
    return look(found)
  })

type Action =
  `#Volume.${'CreateReplicaTarget' | 'SplitReplication' | 'ResumeReplication' | 'ReverseReplicationRelationship' | 'RemoveReplicaRelationship'}`

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
