import type { Made, VolumeSeen, VolumeWanted } from '@/ports'
import type { Connection } from './Connection'
import { keyMark } from './keyMark'
import { naaOf, nameOf } from './readPools'
import { OtherObject } from './errors'
import { isVolume } from './schemas'
import { unlessGone } from './unlessGone'
import { madeBy, taskMaking } from './tasks'

export async function volumeByKey(connection: Connection, volumes: string, key: string): Promise<Made | undefined> {
  const found = (await connection.members(volumes, isVolume)).find(volume => volume.Description?.includes(keyMark(key)))
  return found === undefined
    ? undefined
    : { locator: found['@odata.id'], task: await taskMaking(connection, found['@odata.id']) }
}

/** Source: Swordfish, Volume. */
export async function createVolume(
  connection: Connection,
  volumes: string,
  wanted: VolumeWanted,
  key: string,
): Promise<Made> {
  const answer = await connection.change('POST', volumes, {
    Name: wanted.name,
    Description: keyMark(key),
    CapacityBytes: Number(wanted.sizeBytes), // plans refuse sizes that a JSON number cannot state
    ProvisioningPolicy: wanted.isThin ? 'Thin' : 'Fixed',
    CapacitySources: [{ ProvidingPools: { Members: [{ '@odata.id': wanted.poolLocator }] } }],
  })
  return madeBy(connection, answer)
}

export async function volumeAt(connection: Connection, locator: string): Promise<VolumeSeen | undefined> {
  const volume = await connection.readIfThere(locator, isVolume)
  return volume === undefined
    ? undefined
    : {
        locator,
        name: nameOf(volume),
        naa: naaOf(volume),
        sizeBytes: BigInt(volume.CapacityBytes),
        isReady: (volume.Status?.State ?? 'Enabled') === 'Enabled',
        task: await taskMaking(connection, locator),
      }
}

/** The tag of the volume that is expected at a place. @throws {OtherObject} where it is another */
async function expectedVolume(connection: Connection, locator: string, expectedNaa: string): Promise<string | null> {
  const { found, etag } = await connection.readTagged(locator, isVolume)
  if (naaOf(found) !== expectedNaa) throw new OtherObject(locator, expectedNaa, naaOf(found))
  return etag
}

/** A volume that is gone already is removed. @throws {OtherObject} */
export async function removeVolume(connection: Connection, locator: string, expectedNaa: string): Promise<void> {
  await unlessGone(async () => {
    const etag = await expectedVolume(connection, locator, expectedNaa)
    await connection.change('DELETE', locator, undefined, etag)
  })
}

/** @throws {OtherObject} */
export async function enlargeVolume(
  connection: Connection,
  locator: string,
  expectedNaa: string,
  sizeBytes: bigint,
): Promise<Made> {
  const etag = await expectedVolume(connection, locator, expectedNaa)
  const answer = await connection.change('PATCH', locator, { CapacityBytes: Number(sizeBytes) }, etag)
  return { locator, task: answer.status === 202 ? answer.location : null }
}

/** Gives a volume another name, if it has not got it already. @throws {OtherObject} */
export async function renameVolume(
  connection: Connection,
  locator: string,
  expectedNaa: string,
  name: string,
): Promise<void> {
  const etag = await expectedVolume(connection, locator, expectedNaa)
  await connection.change('PATCH', locator, { DisplayName: name }, etag)
}
