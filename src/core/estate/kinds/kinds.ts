import { nodePortSchema, nodeSchema, switchPortSchema, switchSchema } from '../nodeSchemas'
import {
  controllerSchema,
  driveSchema,
  enclosureSchema,
  hostGroupSchema,
  hostSchema,
  mappingSchema,
  poolSchema,
  portSchema,
  siteSchema,
  systemSchema,
  volumeSchema,
} from '../schemas'
import type { KindName, ObjectKind } from './ObjectKind'

/**
 * Every kind of object, those first to which others refer. What is left out of a kind is empty.
 * Adding one: its schema, its value here, its table in a migration, and its place in the systems' inventory.
 */
export const objectKinds: { readonly [Name in KindName]: ObjectKind<Name> } = {
  sites: {
    name: 'sites',
    words: { one: 'site', many: 'sites' },
    schema: siteSchema,
    references: {},
    moving: [],
    ours: ['name'],
    order: ['name'],
  },
  systems: {
    name: 'systems',
    words: { one: 'system', many: 'systems' },
    schema: systemSchema,
    durableName: 'uuid',
    references: { siteId: 'sites' },
    moving: ['seenAt', 'reach', 'reachWhy', 'accessGroups'],
    ours: ['siteId', 'name', 'address', 'reach', 'reachWhy', 'seenAt'],
    order: ['name'],
    search: { by: ['name', 'serial'], title: 'name', detail: 'model' },
    page: '/build/systems/{id}',
  },
  controllers: {
    name: 'controllers',
    words: { one: 'controller', many: 'controllers' },
    schema: controllerSchema,
    references: {},
    moving: [],
    ours: [],
    order: ['name'],
  },
  enclosures: {
    name: 'enclosures',
    words: { one: 'enclosure', many: 'enclosures' },
    schema: enclosureSchema,
    references: {},
    moving: [],
    ours: [],
    order: ['name'],
  },
  nodes: {
    name: 'nodes',
    words: { one: 'node', many: 'nodes' },
    schema: nodeSchema,
    references: { enclosureId: 'enclosures' },
    moving: ['clockOffsetSeconds'],
    ours: [],
    order: ['name'],
    search: { by: ['name', 'hostName'], title: 'name', detail: 'model' },
    page: '/build/systems/{systemId}',
  },
  switches: {
    name: 'switches',
    words: { one: 'switch', many: 'switches' },
    schema: switchSchema,
    references: {},
    moving: [],
    ours: [],
    order: ['name'],
    search: { by: ['name'], title: 'name', detail: 'model' },
    page: '/build/network?system={systemId}',
  },
  switchPorts: {
    name: 'switchPorts',
    words: { one: 'switch port', many: 'switch ports' },
    schema: switchPortSchema,
    references: { switchId: 'switches', peerPortId: 'switchPorts' },
    moving: [],
    ours: [],
    order: ['switchId', 'name'],
  },
  nodePorts: {
    name: 'nodePorts',
    words: { one: 'node port', many: 'node ports' },
    schema: nodePortSchema,
    references: { nodeId: 'nodes', switchPortId: 'switchPorts' },
    moving: [],
    ours: [],
    order: ['nodeId', 'name'],
    search: { by: ['mac'], title: 'mac', detail: 'name' },
    page: '/build/network?system={systemId}',
  },
  pools: {
    name: 'pools',
    words: { one: 'pool', many: 'pools' },
    schema: poolSchema,
    references: {},
    moving: ['writtenBytes'],
    ours: [],
    order: ['name', 'id'],
    search: { by: ['name'], title: 'name', detail: 'state' },
    page: '/build/pools?sel={id}',
  },
  drives: {
    name: 'drives',
    words: { one: 'drive', many: 'drives' },
    schema: driveSchema,
    durableName: 'serial',
    references: { enclosureId: 'enclosures', poolId: 'pools', nodeId: 'nodes' },
    moving: ['powerOnHours', 'wearRatio', 'isLit'],
    ours: [],
    order: ['systemId', 'enclosureId', 'bay'],
    search: { by: ['serial', 'wwn'], title: 'serial', detail: 'name' },
    page: '/build/systems/{systemId}?drive={id}',
  },
  ports: {
    name: 'ports',
    words: { one: 'port', many: 'ports' },
    schema: portSchema,
    references: {},
    moving: [],
    ours: [],
    order: ['systemId', 'name'],
    search: { by: ['name', 'address', 'targetName'], title: 'name', detail: 'targetName' },
    page: '/build/ports?sel={id}',
    list: {
      place: '/build/ports',
      concern: { field: 'isUp', is: false, words: 'without a link' },
      columns: [
        { field: 'name', words: 'Port' },
        { field: 'systemId', words: 'System', as: 'name of' },
        { field: 'protocol', words: 'Protocol', isFolded: true },
        { field: 'isUp', words: 'Link', as: 'up or down' },
        { field: 'speedBitsPerSecond', words: 'Speed', as: 'bits a second' },
        { field: 'address', words: 'Address', as: 'identifier' },
        { field: 'targetName', words: 'Hosts log in by', as: 'identifier', isWide: true },
      ],
    },
  },
  volumes: {
    name: 'volumes',
    words: { one: 'volume', many: 'volumes' },
    schema: volumeSchema,
    durableName: 'naa',
    references: { poolId: 'pools' },
    moving: ['writtenBytes', 'lostBytes'],
    ours: ['state', 'holdingUntil'],
    order: ['name', 'id'],
    search: { by: ['name', 'naa'], title: 'name', detail: 'naa' },
    page: '/provision?sel={id}',
  },
  hostGroups: {
    name: 'hostGroups',
    words: { one: 'host group', many: 'host groups' },
    schema: hostGroupSchema,
    references: {},
    moving: [],
    ours: ['name'],
    order: ['name'],
    search: { by: ['name'], title: 'name', detail: 'name' },
    page: '/provision/hosts',
  },
  hosts: {
    name: 'hosts',
    words: { one: 'host', many: 'hosts' },
    schema: hostSchema,
    references: { hostGroupId: 'hostGroups' },
    moving: [],
    ours: ['hostGroupId', 'name', 'agentAddress', 'operatingSystem', 'initiators'],
    order: ['name'],
    search: { by: ['name', 'initiators'], title: 'name', detail: 'operatingSystem' },
    page: '/provision/hosts?sel={id}',
    list: {
      place: '/provision/hosts',
      about:
        'Volumes are mapped to host groups. Through its agent Wendrel proves that a host sees what it should, and nothing else.',
      concern: { field: 'initiators', is: 'none', words: 'without an initiator and can log in nowhere' },
      columns: [
        { field: 'name', words: 'Host' },
        { field: 'hostGroupId', words: 'Group', as: 'name of' },
        { field: 'initiators', words: 'Initiators', as: 'identifier', isWide: true },
        { field: 'operatingSystem', words: 'System' },
        { field: 'agentAddress', words: 'Agent', as: 'identifier', isFolded: true },
      ],
    },
  },
  mappings: {
    name: 'mappings',
    words: { one: 'mapping', many: 'mappings' },
    schema: mappingSchema,
    references: { volumeId: 'volumes', hostGroupId: 'hostGroups' },
    moving: [],
    ours: [],
    order: ['lun'],
  },
}

/** What is said of a kind, whichever it is. */
export const kindOf = (name: KindName): ObjectKind => objectKinds[name] as unknown as ObjectKind

/** All kinds, those first to which others refer. */
export const kindList: readonly ObjectKind[] = (Object.keys(objectKinds) as KindName[]).map(kindOf)

/** The page that shows an object; undefined for kinds that have none. */
export const pageOf = (
  kind: ObjectKind,
  object: { readonly id: string; readonly systemId: string | null },
): string | undefined => kind.page?.replace('{id}', object.id).replace('{systemId}', object.systemId ?? '')

/** All of a kind, as a heading says it: `Ports`. */
export const titleOf = ({ words: { many } }: Pick<ObjectKind, 'words'>): string =>
  many.charAt(0).toUpperCase() + many.slice(1)
