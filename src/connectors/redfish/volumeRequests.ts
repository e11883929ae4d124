import type { Made, VolumeSeen, VolumeWanted } from '@/ports'
import type { Connection } from './Connection'
import { keyMark } from './keyMark'
import { naaOf } from './readPools'
import { isVolume } from './schemas'
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
        name: volume.Name ?? '',
        naa: naaOf(volume),
        sizeBytes: BigInt(volume.CapacityBytes),
        isReady: (volume.Status?.State ?? 'Enabled') === 'Enabled',
      }
}

export async function enlargeVolume(connection: Connection, locator: string, sizeBytes: bigint): Promise<Made> {
  const answer = await connection.change('PATCH', locator, { CapacityBytes: Number(sizeBytes) })
  return { locator, task: answer.status === 202 ? answer.location : null }
}
