import type {
  Controller,
  Drive,
  Enclosure,
  Host,
  HostGroup,
  Mapping,
  Pool,
  Port,
  Site,
  System,
  Volume,
} from '../schemas'
import type { ConsistencyGroup, ServiceClass, Snapshot } from '../promiseSchemas'
import type { Directory, Principal } from '../directorySchemas'
import type { FileService, FileSystem, Share } from '../fileSchemas'
import type { Route, Rule } from '../tellingSchemas'
import type { Node, NodePort, Switch, SwitchPort } from '../nodeSchemas'

/** The model's type of each kind of object, by the name of all of a kind. */
export interface ObjectTypes {
  readonly sites: Site
  readonly systems: System
  readonly controllers: Controller
  readonly enclosures: Enclosure
  readonly nodes: Node
  readonly switches: Switch
  readonly switchPorts: SwitchPort
  readonly nodePorts: NodePort
  readonly pools: Pool
  readonly drives: Drive
  readonly ports: Port
  readonly serviceClasses: ServiceClass
  readonly consistencyGroups: ConsistencyGroup
  readonly volumes: Volume
  readonly snapshots: Snapshot
  readonly hostGroups: HostGroup
  readonly hosts: Host
  readonly mappings: Mapping
  readonly fileServices: FileService
  readonly fileSystems: FileSystem
  readonly shares: Share
  readonly directories: Directory
  readonly principals: Principal
  readonly routes: Route
  readonly rules: Rule
}
export type KindName = keyof ObjectTypes
export type FieldOf<Name extends KindName> = keyof ObjectTypes[Name] & string

interface ObjectSchema {
  readonly type: 'object'
  readonly required: readonly string[]
  readonly properties: Readonly<Record<string, object>>
}

/**
 * All that is said of a kind of object, once. Model, upsert, row mapping, revision, search, lists, API and list page follow from it.
 */
export interface ObjectKind<Name extends KindName = KindName> {
  readonly name: Name
  readonly words: { readonly one: string; readonly many: string }
  readonly schema: ObjectSchema
  /** By what its maker or a standard names it, wherever it stands; what has none is known by its place. */
  readonly durableName?: FieldOf<Name>
  /** Fields that hold the id of another object, with that object's kind. A field `xId` is stated by a system as `xLocator`. */
  readonly references: Partial<Record<FieldOf<Name>, KindName>>
  /** References of which at least one must lead somewhere. */
  readonly oneOf?: readonly FieldOf<Name>[]
  /** What moves often, and no plan rests on: it counts up no revision. */
  readonly moving: readonly FieldOf<Name>[]
  /** What Wendrel keeps of it and no system states. */
  readonly ours: readonly FieldOf<Name>[]
  /** The order in which all of a kind stand. */
  readonly order: readonly FieldOf<Name>[]
  /** What it is found by, and how a hit is shown; undefined for what nobody looks for by itself. */
  readonly search?: {
    readonly by: readonly FieldOf<Name>[]
    readonly title: FieldOf<Name>
    readonly detail: FieldOf<Name>
  }
  /** The page that shows one; `{id}` and `{systemId}` stand for its own. */
  readonly page?: string
  /** How its own list page shows it; undefined for kinds that have a page of another shape. */
  readonly list?: KindList<Name>
}

/** A list page: its columns, the first of which is the object's name. */
export interface KindList<Name extends KindName = KindName> {
  /** Where the page stands: the section of the work, and the word under its title. */
  readonly place: `/${'build' | 'provision' | 'grant' | 'watch'}/${string}`
  /** What one should know of them before choosing one. */
  readonly about?: string
  /** What a reader should know of all of them: how many have this value (`none`: an empty list), in words. */
  readonly concern?: { readonly field: FieldOf<Name>; readonly is: string | number | boolean; readonly words: string }
  readonly columns: readonly ListColumn<FieldOf<Name>>[]
}

export interface ListColumn<Field extends string = string> {
  readonly field: Field
  readonly words: string
  /** How the value is written; text where nothing is said. */
  readonly as?:
    | 'text'
    | 'identifier'
    | 'bytes'
    | 'bits a second'
    | 'up or down'
    | 'count'
    | 'name of'
    | 'instant'
    | 'instances'
    | 'rules'
  /** Its values are long. */
  readonly isWide?: true
  /** Shown only when it is chosen. */
  readonly isFolded?: true
}

/** How a value is kept: the model has bytes as bigint, instants as ISO 8601 text. */
export type ValueType = 'text' | 'uuid' | 'bytes' | 'integer' | 'number' | 'boolean' | 'instant' | 'json'

export interface ObjectField {
  readonly field: string
  readonly type: ValueType
  readonly isNullable: boolean
}

/** What a field's schema says of how its value is kept. */
function typeOf(schema: {
  readonly type?: unknown
  readonly format?: unknown
  readonly enum?: readonly unknown[]
}): ValueType {
  if (schema.format === 'uuid') return 'uuid'
  if (schema.format === 'bytes') return 'bytes'
  if (schema.format === 'date-time') return 'instant'
  if (schema.enum !== undefined) return 'text'
  const types = [schema.type].flat().filter(type => type !== 'null')
  if (types.length !== 1) return 'json'
  const [only] = types
  return only === 'string' ? 'text' : only === 'integer' || only === 'number' || only === 'boolean' ? only : 'json'
}

const isNullable = (schema: {
  readonly type?: unknown
  readonly enum?: readonly unknown[]
  readonly oneOf?: readonly object[]
}): boolean =>
  [schema.type].flat().includes('null') ||
  schema.enum?.includes(null) === true ||
  schema.oneOf?.some(isNullable) === true

/** The fields of a kind, as they are kept. */
export const fieldsOf = (kind: Pick<ObjectKind, 'schema'>): ObjectField[] =>
  Object.entries(kind.schema.properties).map(([field, schema]) => ({
    field,
    type: typeOf(schema),
    isNullable: isNullable(schema),
  }))

/** Whether a system states it, so that it has a place there and can be missing. */
export const isLocated = (kind: Pick<ObjectKind, 'schema'>): boolean => 'systemId' in kind.schema.properties
