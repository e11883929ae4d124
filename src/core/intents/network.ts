import { idSchema } from '../estate'
import type { IntentKind, IntentOf } from './IntentKind'

const setStorageNetworkSchema = {
  type: 'object',
  required: ['systemId', 'nodes', 'origin', 'vlan', 'mtu'],
  additionalProperties: false,
  properties: {
    systemId: idSchema,
    nodes: {
      type: 'array',
      maxItems: 256,
      items: {
        type: 'object',
        required: ['nodeId', 'portId', 'address'],
        additionalProperties: false,
        properties: {
          nodeId: idSchema,
          portId: idSchema,
          /** With its subnet, such as `10.20.30.11/24`; empty where it is leased. */
          address: { type: 'string', maxLength: 64 },
        },
      },
    },
    origin: { enum: ['static', 'leased'] },
    /** Of leased addresses; addresses set by hand tell it themselves. IPv4 where it is left out. */
    family: { enum: ['IPv4', 'IPv6'] },
    vlan: { type: ['integer', 'null'] },
    mtu: { type: 'integer' },
  },
} as const
export type SetStorageNetworkIntent = IntentOf<typeof setStorageNetworkSchema>

export const setStorageNetworkIntent = {
  kind: 'set-storage-network',
  title: 'Set the storage network',
  begins: '/build/network?draft=set-storage-network',
  verb: 'Carry out',
  place: '/build/network?system={systemId}',
  form: {
    fields: [
      {
        field: 'origin',
        label: 'Addresses',
        as: 'side by side',
        options: [
          { value: 'static', words: 'set by hand' },
          { value: 'leased', words: 'leased' },
        ],
      },
      {
        field: 'family',
        label: 'Family of the leased addresses',
        as: 'side by side',
        options: [
          { value: 'IPv4', words: 'IPv4' },
          { value: 'IPv6', words: 'IPv6' },
        ],
        onlyWhile: { field: 'origin', is: 'leased' },
      },
      { field: 'vlan', label: 'VLAN', hint: '1 to 4094; empty is untagged', as: 'number or none' },
      { field: 'mtu', label: 'MTU', hint: 'bytes; large frames are 9000', as: 'number', isBeside: true },
      { field: 'nodes', label: 'Nodes', as: 'part' },
    ],
  },
  intentSchema: setStorageNetworkSchema,
} as const satisfies IntentKind

const setSwitchPortSchema = {
  type: 'object',
  required: ['systemId', 'switchPortId', 'mtu', 'vlans'],
  additionalProperties: false,
  properties: {
    systemId: idSchema,
    switchPortId: idSchema,
    mtu: { type: 'integer' },
    vlans: { type: 'array', maxItems: 4094, items: { type: 'integer' } },
  },
} as const
export type SetSwitchPortIntent = IntentOf<typeof setSwitchPortSchema>

export const setSwitchPortIntent = {
  kind: 'set-switch-port',
  title: 'Set a switch port',
  verb: 'Carry out',
  place: '/build/network?system={systemId}&port={switchPortId}',
  form: {
    fields: [
      {
        field: 'mtu',
        label: 'MTU',
        hint: 'bytes; it has to fit the nodes and every other port on the way',
        as: 'number',
      },
      { field: 'vlans', label: 'VLANs', hint: 'numbers with commas', as: 'numbers' },
    ],
  },
  intentSchema: setSwitchPortSchema,
} as const satisfies IntentKind

const setNodeClockSchema = {
  type: 'object',
  required: ['systemId', 'nodeId'],
  additionalProperties: false,
  properties: { systemId: idSchema, nodeId: idSchema },
} as const
export type SetNodeClockIntent = IntentOf<typeof setNodeClockSchema>

export const setNodeClockIntent = {
  kind: 'set-node-clock',
  title: 'Set the clock of a node',
  verb: 'Carry out',
  place: '/build/network?system={systemId}&node={nodeId}',
  form: { fields: [] },
  intentSchema: setNodeClockSchema,
} as const satisfies IntentKind

const setRestartServiceSchema = {
  type: 'object',
  required: ['systemId', 'nodeIds', 'isOn'],
  additionalProperties: false,
  properties: {
    systemId: idSchema,
    nodeIds: { type: 'array', maxItems: 256, items: idSchema },
    isOn: { type: 'boolean' },
  },
} as const
export type SetRestartServiceIntent = IntentOf<typeof setRestartServiceSchema>

export const setRestartServiceIntent = {
  kind: 'set-restart-service',
  title: 'Switch the restart service of nodes',
  verb: 'Carry out',
  place: '/build/network?system={systemId}',
  form: {
    fields: [
      {
        field: 'isOn',
        label: 'Restart service',
        as: 'side by side',
        options: [
          { value: true, words: 'on' },
          { value: false, words: 'off' },
        ],
      },
    ],
  },
  intentSchema: setRestartServiceSchema,
} as const satisfies IntentKind

/** The network between nodes, their clocks and services. */
export const networkIntents: readonly IntentKind[] = [
  setStorageNetworkIntent,
  setSwitchPortIntent,
  setNodeClockIntent,
  setRestartServiceIntent,
]
