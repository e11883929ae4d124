import { NotOffered, type Made, type Volumes } from '@/ports'
import type { Connection } from '../Connection'
import { OtherObject } from '../errors'
import { keyMark } from '../keyMark'
import { ofMaker } from '../makers'
import { reference, type Offer } from '../Reach'
import { madeBy, taskIn, taskMaking } from '../tasks/requests'
import { unlessGone } from '../unlessGone'
import { naaOf, nameOf, poolOf } from './read'
import { isVolume } from './schema'

/** Volumes of a system. Source: Swordfish, Volume. */
export const volumes: Offer<'volumes'> = ({ connection, map }): Volumes => ({
  async byKey(key) {
    const all = await connection.members(map.volumes, isVolume)
    const found = all.find(volume => volume.Description?.includes(keyMark(key)))
    if (found === undefined) return undefined
    return { locator: found['@odata.id'], task: await taskMaking(connection, map.tasks, found['@odata.id']) }
  },
  async byKeys(keys) {
    const found = new Map<string, Made>()
    const byMark = new Map(keys.map(key => [keyMark(key), key]))
    for (const volume of await connection.members(map.volumes, isVolume)) {
      const key = byMark.get(volume.Description ?? '')
      if (key === undefined) continue
      const isReady = (volume.Status?.State ?? 'Enabled') === 'Enabled'
      const task = isReady ? null : await taskMaking(connection, map.tasks, volume['@odata.id'])
      found.set(key, { locator: volume['@odata.id'], task })
    }
    return found
  },
  async create(wanted, key) {
    const answer = await connection.change('POST', map.volumes, {
      Name: wanted.name,
      Description: keyMark(key),
      CapacityBytes: Number(wanted.sizeBytes), // plans refuse sizes that a JSON number cannot state
      ProvisioningPolicy: policyOf(wanted.isThin),
      CapacitySources: [{ ProvidingPools: { Members: [reference(wanted.poolLocator)] } }],
    })
    return madeBy(connection, answer)
  },
  async at(locator) {
    const volume = await connection.readIfThere(locator, isVolume)
    if (volume === undefined) return undefined
    return {
      locator,
      name: nameOf(volume),
      naa: naaOf(volume),
      sizeBytes: BigInt(volume.CapacityBytes),
      isThin: volume.ProvisioningPolicy === 'Thin',
      isReady: (volume.Status?.State ?? 'Enabled') === 'Enabled',
      poolLocator: poolOf(volume),
      limits: ofMaker.volumeLimits(volume),
      task: await taskMaking(connection, map.tasks, locator),
    }
  },
  async enlarge(locator, expectedNaa, sizeBytes) {
    const etag = await expected(connection, locator, expectedNaa)
    const answer = await connection.change('PATCH', locator, { CapacityBytes: Number(sizeBytes) }, etag)
    return { locator, task: answer.status === 202 ? taskIn(answer) : null }
  },
  async convert(locator, expectedNaa, isThin) {
    const etag = await expected(connection, locator, expectedNaa)
    const answer = await connection.change('PATCH', locator, { ProvisioningPolicy: policyOf(isThin) }, etag)
    return { locator, task: answer.status === 202 ? taskIn(answer) : null }
  },
  async move(locator, expectedNaa, poolLocator, ratePercent) {
    const etag = await expected(connection, locator, expectedNaa)
    const body = {
      CapacitySources: [{ ProvidingPools: { Members: [reference(poolLocator)] } }],
      ...ofMaker.moveRate(map.identity.maker, ratePercent),
    }
    const answer = await connection.change('PATCH', locator, body, etag)
    return { locator, task: answer.status === 202 ? taskIn(answer) : null }
  },
  async limit(locator, expectedNaa, limits) {
    const body = ofMaker.volumeLimitsBody(map.identity.maker, limits)
    if (body === undefined)
      throw new NotOffered(connection.endpoint.address, 'volumes', 'Its maker has no words for limits on volumes.')
    const etag = await expected(connection, locator, expectedNaa)
    await connection.change('PATCH', locator, body, etag)
  },
  async rename(locator, expectedNaa, name) {
    const etag = await expected(connection, locator, expectedNaa)
    await connection.change('PATCH', locator, { DisplayName: name }, etag)
  },
  // A volume that is gone already is removed.
  remove: (locator, expectedNaa) =>
    unlessGone(async () => {
      const etag = await expected(connection, locator, expectedNaa)
      await connection.change('DELETE', locator, undefined, etag)
    }),
})

/** Source: Swordfish, Volume, ProvisioningPolicy. */
const policyOf = (isThin: boolean) => (isThin ? 'Thin' : 'Fixed')

/** The tag of the volume that is expected at a place. @throws {OtherObject} where it is another */
async function expected(connection: Connection, locator: string, expectedNaa: string): Promise<string | null> {
  const { found, etag } = await connection.readTagged(locator, isVolume)
  if (naaOf(found) !== expectedNaa) throw new OtherObject(locator, expectedNaa, naaOf(found))
  return etag
}
