import type { BankWanted, ClusterSeen, InterfaceWanted, NodeRow } from '@/ports'
import type { Connection } from '../Connection'
import { NoNodes, OtherObject } from '../errors'
import type { ServiceMap } from '../identity'
import { keyMark } from '../keyMark'
import { isDrive, isPool, isTask } from '../schemas'
import { madeBy, readTask, taskMaking } from '../tasks'
import { clockOffsets } from './clockOffsets'
import { headerBytes, storageOf } from './readRow'
import {
  isAggregate,
  isAggregationService,
  isComputer,
  isEthernetInterface,
  isEthernetPort,
  isLit,
  isSpread,
  type Spread,
} from './schemas'

const reference = (locator: string) => ({ '@odata.id': locator })
const maskOf = (prefixLength: number) =>
  [0, 1, 2, 3].map(byte => 256 - 2 ** (8 - Math.min(8, Math.max(0, prefixLength - 8 * byte)))).join('.')

/** How an interface comes to its address. Source: DMTF EthernetInterface schema. */
const addressing = ({ family, origin, address, prefixLength }: InterfaceWanted['storage']) => {
  const isLeased = origin === 'leased'
  return {
    DHCPv4: { DHCPEnabled: isLeased && family === 'IPv4' },
    DHCPv6: { OperatingMode: isLeased && family === 'IPv6' ? 'Stateful' : 'Disabled' },
    ...(isLeased
      ? {}
      : family === 'IPv4'
        ? { IPv4StaticAddresses: [{ Address: address, SubnetMask: maskOf(prefixLength) }] }
        : { IPv6StaticAddresses: [{ Address: address, PrefixLength: prefixLength }] }),
  }
}

const bankBody = (bank: BankWanted) => ({
  Number: bank.number,
  Node: reference(bank.nodeLocator),
  Cache: reference(bank.cacheLocator),
  Capacity: bank.capacityLocators.map(reference),
})

/** The part of a pool that says how a cluster spreads it; undefined for a pool of RAID groups. */
export const spreadIn = (body: unknown): Spread | undefined => {
  const own = (body as { Oem?: { Mirefield?: unknown } }).Oem?.Mirefield
  return isSpread(own) ? own : undefined
}

export const banksIn = (spread: Spread): BankWanted[] =>
  spread.Banks.map(bank => ({
    number: bank.Number,
    nodeLocator: bank.Node['@odata.id'],
    cacheLocator: bank.Cache['@odata.id'],
    capacityLocators: bank.Capacity.map(each => each['@odata.id']),
  }))

/** A row of nodes over Redfish and its maker's own parts. */
export function nodeRow(connection: Connection, map: () => Promise<ServiceMap>): NodeRow {
  const aggregates = async () => {
    const { aggregation } = await map()
    if (aggregation === undefined) throw new NoNodes(connection.endpoint.address)
    return (await connection.read(aggregation, isAggregationService)).Aggregates['@odata.id']
  }
  const managerOf = async (nodeLocator: string) => {
    const computer = await connection.read(nodeLocator, isComputer)
    const manager = computer.Links?.ManagedBy?.[0]?.['@odata.id']
    if (manager === undefined) throw new NoNodes(connection.endpoint.address)
    return manager
  }
  const cluster = async (): Promise<ClusterSeen | undefined> => {
    const [found] = await connection.members(await aggregates(), isAggregate)
    if (found === undefined) return undefined
    return {
      locator: found['@odata.id'],
      name: found.Name,
      isReady: found.Status?.State === 'Enabled',
      nodeLocators: found.Elements.map(each => each['@odata.id']),
      task: await taskMaking(connection, found['@odata.id']),
    }
  }
  const runningTask = async (locator: string): Promise<string | null> => {
    const task = await taskMaking(connection, locator)
    return task === null || (await readTask(connection, task)).state !== 'running' ? null : task
  }
  return {
    async interfaceAt(locator) {
      const found = await connection.read(locator, isEthernetInterface)
      return { mtu: found.MTUSize ?? 1500, storage: storageOf(found) }
    },
    async setInterface(locator, { mtu, storage }) {
      await connection.change('PATCH', locator, {
        MTUSize: mtu,
        VLAN: { VLANEnable: storage.vlan !== null, ...(storage.vlan === null ? {} : { VLANId: storage.vlan }) },
        ...addressing(storage),
        Oem: { Mirefield: { CarriesStorage: true } },
      })
    },
    async clearInterface(locator) {
      await connection.change('PATCH', locator, { Oem: { Mirefield: { CarriesStorage: false } } })
    },
    async setSwitchPort(locator, { mtu, vlans }) {
      await connection.change('PATCH', locator, {
        MaxFrameSize: mtu + headerBytes,
        Oem: { Mirefield: { VLANs: vlans } },
      })
    },
    async switchPortAt(locator) {
      const found = await connection.read(locator, isEthernetPort)
      return { mtu: (found.MaxFrameSize ?? 0) - headerBytes, vlans: found.Oem?.Mirefield?.VLANs ?? [] }
    },
    async setRestartService(nodeLocator, isOn) {
      await connection.change('PATCH', nodeLocator, { HostWatchdogTimer: { FunctionEnabled: isOn } })
    },
    isRestartServiceOn: async nodeLocator =>
      (await connection.read(nodeLocator, isComputer)).HostWatchdogTimer?.FunctionEnabled === true,
    isAnswering: async nodeLocator => (await connection.read(nodeLocator, isComputer)).Status.State === 'Enabled',
    async followRowTime(nodeLocator) {
      // Given as a time source, not as an instant: what a request takes on its way would be left as an error.
      const path = `${await managerOf(nodeLocator)}/NetworkProtocol`
      await connection.change('PATCH', path, { NTP: { ProtocolEnabled: true } })
    },
    async clockOffsetSeconds(nodeLocator) {
      const offset = (await clockOffsets(connection, (await map()).managers, [nodeLocator])).get(nodeLocator)
      if (offset === undefined) throw new NoNodes(connection.endpoint.address)
      return offset
    },
    async setLight(driveLocator, isOn) {
      await connection.change('PATCH', driveLocator, { LocationIndicatorActive: isOn })
    },
    isLit: async driveLocator => (await connection.read(driveLocator, isLit)).LocationIndicatorActive,
    async eraseDrive(driveLocator, expectedSerial, isWhole) {
      const drive = await connection.read(driveLocator, isDrive)
      if (drive.SerialNumber !== expectedSerial)
        throw new OtherObject(driveLocator, `drive ${expectedSerial}`, `drive ${drive.SerialNumber}`)
      const body = { SanitizationType: isWhole ? 'Overwrite' : 'BlockErase' }
      return (await connection.change('POST', `${driveLocator}/Actions/Drive.SecureErase`, body)).location
    },
    erasing: locator => taskMaking(connection, locator),
    cluster,
    async formCluster(name, nodeLocators, key) {
      const body = { Name: name, Description: keyMark(key), Elements: nodeLocators.map(reference) }
      return madeBy(connection, await connection.change('POST', await aggregates(), body))
    },
    async setClusterMembers(nodeLocators) {
      const found = await cluster()
      if (found === undefined) throw new NoNodes(connection.endpoint.address)
      await connection.change('PATCH', found.locator, { Elements: nodeLocators.map(reference) })
    },
    async dissolveCluster(expectedName) {
      const found = await cluster()
      if (found === undefined) return
      if (found.name !== expectedName) throw new OtherObject(found.locator, expectedName, found.name)
      await connection.change('DELETE', found.locator)
    },
    async createClusterPool(wanted, key) {
      const answer = await connection.change('POST', (await map()).pools, {
        Name: wanted.name,
        Description: keyMark(key),
        Capacity: { Snapshot: { AllocatedPercent: wanted.snapshotReserveRatio * 100 } },
        Oem: {
          Mirefield: {
            ...(wanted.scheme.kind === 'copies'
              ? { Copies: wanted.scheme.copies }
              : { DataPieces: wanted.scheme.dataPieces, ParityPieces: wanted.scheme.parityPieces }),
            FailureDomain: wanted.domain,
            KeepsRebuildReserve: wanted.keepsRebuildReserve,
            Banks: wanted.banks.map(bankBody),
          },
        },
      })
      return madeBy(connection, answer)
    },
    async banksOf(poolLocator) {
      const spread = spreadIn(await connection.read(poolLocator, isPool))
      return spread === undefined ? [] : banksIn(spread)
    },
    async addDrives(poolLocator, banks, rateRatio) {
      const body = { Oem: { Mirefield: { Banks: banks.map(bankBody), RatePercent: Math.round(rateRatio * 100) } } }
      return (await connection.change('POST', `${poolLocator}/Actions/StoragePool.AddDrives`, body)).location
    },
    async removeDrives(poolLocator, driveLocators, rateRatio) {
      const body = {
        Drives: driveLocators.map(reference),
        Oem: { Mirefield: { RatePercent: Math.round(rateRatio * 100) } },
      }
      return (await connection.change('POST', `${poolLocator}/Actions/StoragePool.RemoveDrives`, body)).location
    },
    movingPieces: async poolLocator => {
      const task = await runningTask(poolLocator)
      if (task === null) return null
      return (await connection.readIfThere(task, isTask)) === undefined ? null : task
    },
  }
}
