import type { ConnectionEntity, EndpointEntity, GroupEntity, VolumeEntity } from './entities'
import { badValue, conflict } from './Refused'
import type { SimulatedArray } from './SimulatedArray'

export function addEndpoint(array: SimulatedArray, initiator: string): EndpointEntity {
  const known = array.all('endpoints').find(endpoint => endpoint.initiator === initiator)
  if (known !== undefined) return known
  const endpoint = { id: array.nextId('endpoints', initiator), initiator }
  array.store.commit([array.entry('endpoints', endpoint)])
  return endpoint
}

/** Remembers who has logged in, also whom it shows nothing. */
export function noteLogin(array: SimulatedArray, initiators: readonly string[]): void {
  for (const each of initiators) addEndpoint(array, each)
}

/** Asks an initiator to prove itself from its next login on; null asks for nothing. */
export function setSignIn(
  array: SimulatedArray,
  id: string,
  signIn: NonNullable<EndpointEntity['signIn']> | null,
): void {
  const { initiator } = array.one('endpoints', id)
  for (const secret of [signIn?.secret, signIn?.ownSecret])
    if (typeof secret === 'string' && (secret.length < 12 || secret.length > 16))
      throw badValue('The sign-in was not set.', 'A secret has 12 to 16 characters.', 'Choose another one.')
  array.store.commit([array.entry('endpoints', { id, initiator, ...(signIn === null ? {} : { signIn }) })])
}

/**
 * Judges a login by what an initiator shows.
 * @param shown by what it proves itself, and by what it wants the array to; null where it shows nothing
 * @returns why it comes to nothing; undefined where it is let in
 */
export function loginTrouble(
  array: SimulatedArray,
  initiator: string,
  shown: { readonly secret: string; readonly systemSecret: string | null } | null,
): string | undefined {
  const asked = array.all('endpoints').find(each => each.initiator === initiator)?.signIn
  if (asked === undefined) return undefined
  if (shown === null) return 'The target asks for a sign-in by CHAP.'
  if (array.faults.strikes(array.model.name, 'secret-ignored') === undefined && shown.secret !== asked.secret)
    return 'The target refused the secret.'
  return shown.systemSecret !== null && shown.systemSecret !== asked.ownSecret
    ? 'The target could not prove itself.'
    : undefined
}

export function addGroup(
  array: SimulatedArray,
  name: string,
  description: string,
  endpointIds: readonly string[],
): GroupEntity {
  if (array.all('groups').some(group => group.name === name))
    throw conflict(`Group ${name} was not made.`, 'It exists.', 'Use it.')
  endpointIds.forEach(id => array.one('endpoints', id))
  const group = { id: array.nextId('groups', name), name, description, endpointIds }
  array.store.commit([array.entry('groups', group)])
  return group
}

export function setGroupMembers(array: SimulatedArray, id: string, endpointIds: readonly string[]): void {
  endpointIds.forEach(each => array.one('endpoints', each))
  array.store.commit([array.entry('groups', { ...array.one('groups', id), endpointIds })])
}

export function connect(
  array: SimulatedArray,
  groupId: string,
  volumeId: string,
  description: string,
): ConnectionEntity {
  const group = array.one('groups', groupId)
  const volume = array.maybe('volumes', volumeId) ?? array.one('snapshots', volumeId)
  if (array.all('fileSystems').some(each => each.volumeId === volumeId))
    throw conflict(`${volume.name} was not mapped.`, 'It carries a file system of the array.', 'Share that instead.')
  const ofGroup = array.all('connections').filter(connection => connection.groupId === groupId)
  if (ofGroup.some(connection => connection.volumeId === volumeId)) {
    throw conflict(`${volume.name} was not mapped.`, `It is mapped to ${group.name} already.`, 'Use that mapping.')
  }
  let lun = 0
  while (ofGroup.some(connection => connection.lun === lun)) lun += 1
  const connection = {
    id: array.nextId('connections', `${groupId}/${volumeId}`),
    description,
    groupId,
    volumeId,
    lun,
  }
  array.store.commit([array.entry('connections', connection)])
  return connection
}

export function disconnect(array: SimulatedArray, id: string): void {
  array.one('connections', id)
  array.store.commit([array.gone('connections', id)])
}

/** What an initiator that has logged in is shown: the volumes mapped to a group that holds it, and nothing else. */
export function visibleTo(
  array: SimulatedArray,
  initiator: string,
): { readonly volume: VolumeEntity; readonly lun: number; readonly isReadOnly: boolean }[] {
  const endpoint = array.all('endpoints').find(each => each.initiator === initiator)
  if (endpoint === undefined) return []
  const groups = new Set(
    array
      .all('groups')
      .filter(group => group.endpointIds.includes(endpoint.id))
      .map(group => group.id),
  )
  return array
    .all('connections')
    .filter(connection => groups.has(connection.groupId))
    .flatMap(({ volumeId, lun }) => {
      const volume = array.maybe('volumes', volumeId) ?? shownSnapshot(array, volumeId)
      return volume?.isReady === true
        ? [{ volume, lun, isReadOnly: volume.id !== array.maybe('volumes', volumeId)?.id }]
        : []
    })
}

/** A snapshot as hosts are shown it: a disk of its own, to be read. */
function shownSnapshot(array: SimulatedArray, id: string): VolumeEntity | undefined {
  const snapshot = array.maybe('snapshots', id)
  if (snapshot === undefined) return undefined
  const source = array.one('volumes', snapshot.volumeId)
  return {
    ...source,
    id,
    name: snapshot.name,
    naa: snapshot.naa,
    sizeBytes: snapshot.sizeBytes,
    isReady: snapshot.isConsistent,
    mirror: undefined,
  }
}
