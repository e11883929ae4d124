import { NotOffered, type Nodes } from '@/ports'
import type { Offer } from '../Reach'
import { clockOffsets } from './clockOffsets'
import { isComputer } from './schema'

/** The computers of a row. Source: DMTF ComputerSystem and ManagerNetworkProtocol schemas. */
export const nodes: Offer<'nodes'> = ({ connection, map }): Nodes => {
  const none = (why: string) => new NotOffered(connection.endpoint.address, 'nodes', why)
  if (map.computers === undefined) throw none('It is no row of nodes: it names no computers.')
  return {
    async setRestartService(locator, isOn) {
      await connection.change('PATCH', locator, { HostWatchdogTimer: { FunctionEnabled: isOn } })
    },
    isRestartServiceOn: async locator =>
      (await connection.read(locator, isComputer)).HostWatchdogTimer?.FunctionEnabled === true,
    isAnswering: async locator => (await connection.read(locator, isComputer)).Status.State === 'Enabled',
    async followRowTime(locator) {
      const { Links } = await connection.read(locator, isComputer)
      const manager = Links?.ManagedBy?.[0]?.['@odata.id']
      if (manager === undefined) throw none(`${locator} names no manager, whose clock could be set.`)
      // Given as a time source, not as an instant: what a request takes on its way would be left as an error.
      await connection.change('PATCH', `${manager}/NetworkProtocol`, { NTP: { ProtocolEnabled: true } })
    },
    async clockOffsetSeconds(locator) {
      const offset = (await clockOffsets(connection, map.managers, [locator])).get(locator)
      if (offset === undefined) throw none(`No manager says the time of ${locator}.`)
      return offset
    },
  }
}
