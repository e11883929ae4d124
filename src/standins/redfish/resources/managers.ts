import type { SimulatedArray } from '../../array'
import type { NodeEntity } from '../../row'
import { link, root, status, type Body } from '../body'
import { placesOf, type Place } from '../Place'
import { reader } from '../reader'
import type { RowService } from '../RowService'
import type { FromSchema } from 'json-schema-to-ts'

const timeSource = {
  type: 'object',
  required: ['NTP'],
  additionalProperties: false,
  properties: {
    NTP: { type: 'object', required: ['ProtocolEnabled'], properties: { ProtocolEnabled: { type: 'boolean' } } },
  },
} as const
const readTimeSource = reader<FromSchema<typeof timeSource>>(timeSource)

const protocolType = 'ManagerNetworkProtocol.v1_10_0.ManagerNetworkProtocol'

/** The service's own manager; undefined stands for it among those of the nodes. */
type Managed = NodeEntity | undefined

/** Who manages the array, and each node of a row: with their clocks and where they take the time from. */
export function managerPlaces(array: SimulatedArray, nodes?: RowService): Place[] {
  const all = (): Managed[] => [undefined, ...(nodes?.row.all('nodes') ?? [])]
  const find = (id: string | undefined) =>
    id === '1' ? undefined : nodes?.row.all('nodes').find(each => each.id === id)
  const places = placesOf<{ readonly node: Managed }>({
    path: 'Managers/:manager',
    type: 'Manager.v1_19_0.Manager',
    title: 'Managers',
    members: () => all().map(node => ({ node })),
    idOf: ({ node }) => node?.id ?? '1',
    nameOf: ({ node }) => (node === undefined ? 'Array manager' : `Manager of ${node.id}`),
    body: ({ node }) => (node === undefined ? ownManager(array) : nodeManager(array, node, nodes)),
  })
  if (nodes === undefined) return places
  return [
    ...places,
    {
      path: 'Managers/:manager/NetworkProtocol',
      type: protocolType,
      show: ({ manager }) => {
        const node = find(manager)
        return node === undefined
          ? undefined
          : {
              '@odata.id': `${root}/Managers/${node.id}/NetworkProtocol`,
              '@odata.type': `#${protocolType}`,
              Id: 'NetworkProtocol',
              Name: 'Network protocols',
              HostName: node.hostName,
              NTP: { ProtocolEnabled: Math.abs(node.clockOffsetSeconds) < 1, NTPServers: [] },
              Status: status(true),
            }
      },
      patch: (body, { manager = '' }) => {
        if (readTimeSource(body).NTP.ProtocolEnabled) nodes.row.followTime(manager)
        return undefined
      },
    },
  ]
}

const ownManager = ({ model, clock }: SimulatedArray): Body => ({
  ManagerType: 'Service',
  UUID: model.uuid,
  FirmwareVersion: model.firmware,
  DateTime: new Date(clock.now()).toISOString(),
  DateTimeLocalOffset: '+00:00',
  Status: status(true),
})

const nodeManager = (array: SimulatedArray, node: NodeEntity, nodes: RowService | undefined): Body => ({
  ManagerType: 'BMC',
  FirmwareVersion: node.firmware,
  DateTime: new Date(array.clock.now() + node.clockOffsetSeconds * 1000).toISOString(),
  DateTimeLocalOffset: '+00:00',
  NetworkProtocol: link(`Managers/${node.id}/NetworkProtocol`),
  Links: {
    ManagerForServers: [link(`Systems/${node.id}`)],
    ManagerForChassis: [link(`Chassis/${node.id}`)],
  },
  Status: status(nodes?.row.isAnswering(node) === true),
})
