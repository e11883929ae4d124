import { NotOffered, type Made, type Volumes } from '@/ports'
import { keyMark } from '../keyMark'
import { ofMaker } from '../makers'
import { reference, type Offer, type Reach } from '../Reach'
import { madeBy, taskIn, taskMaking } from '../tasks/requests'
import { unlessGone } from '../unlessGone'
import { changeExpected } from './expected'
import { naaOf, nameOf, poolOf } from './read'
import { isVolume, type RedfishVolume } from './schema'

/** Volumes of a system. Source: Swordfish, Volume. */
export const volumes: Offer<'volumes'> = (reach): Volumes => ({ ...looks(reach), ...makes(reach), ...alters(reach) })

const isReady = ({ Status }: RedfishVolume) => (Status?.State ?? 'Enabled') === 'Enabled'

type Looks = Pick<Volumes, 'byKey' | 'byKeys' | 'at'>
const looks = ({ connection, map }: Reach): Looks => ({
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
      const task = isReady(volume) ? null : await taskMaking(connection, map.tasks, volume['@odata.id'])
      found.set(key, { locator: volume['@odata.id'], task })
    }
    return found
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
      isReady: isReady(volume),
      poolLocator: poolOf(volume),
      limits: ofMaker.volumeLimits(volume),
      task: await taskMaking(connection, map.tasks, locator),
    }
  },
})

type Makes = Pick<Volumes, 'create' | 'remove'>
const makes = ({ connection, map }: Reach): Makes => ({
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
  // A volume that is gone already is removed.
  remove: (locator, expectedNaa) =>
    unlessGone(async () => {
      await changeExpected(connection, locator, expectedNaa, () => ({ method: 'DELETE' }))
    }),
})

type Alters = Omit<Volumes, keyof Looks | keyof Makes>
function alters({ connection, map }: Reach): Alters {
  const alter = async (locator: string, expectedNaa: string, body: object) => {
    const answer = await changeExpected(connection, locator, expectedNaa, () => ({ method: 'PATCH', body }))
    return { locator, task: answer.status === 202 ? taskIn(answer) : null }
  }
  return {
    enlarge: (locator, expectedNaa, sizeBytes) => alter(locator, expectedNaa, { CapacityBytes: Number(sizeBytes) }),
    convert: (locator, expectedNaa, isThin) => alter(locator, expectedNaa, { ProvisioningPolicy: policyOf(isThin) }),
    move: (locator, expectedNaa, poolLocator, ratePercent) =>
      alter(locator, expectedNaa, {
        CapacitySources: [{ ProvidingPools: { Members: [reference(poolLocator)] } }],
        ...ofMaker.moveRate(map.identity.maker, ratePercent),
      }),
    async limit(locator, expectedNaa, limits) {
      const body = ofMaker.volumeLimitsBody(map.identity.maker, limits)
      if (body === undefined)
        throw new NotOffered(connection.endpoint.address, 'volumes', 'Its maker has no words for limits on volumes.')
      await alter(locator, expectedNaa, body)
    },
    rename: async (locator, expectedNaa, name) => void (await alter(locator, expectedNaa, { DisplayName: name })),
  }
}

/** Source: Swordfish, Volume, ProvisioningPolicy. */
const policyOf = (isThin: boolean) => (isThin ? 'Thin' : 'Fixed')
