import type {
  Controller,
  Drive,
  Enclosure,
  Host,
  HostGroup,
  Mapping,
  Node,
  NodePort,
  Pool,
  Port,
  Probe,
  Site,
  Switch,
  SwitchPort,
  System,
  Volume,
} from '@/core/estate'

/** Rows as PostgreSQL gives them: NUMERIC as text, timestamps as Date. */
type Bytes<T> = { readonly [K in keyof T]: T[K] extends bigint ? string : T[K] }
type Snake<S extends string> = S extends `${infer A}${infer B}`
  ? `${A extends Capitalize<A> ? (A extends Lowercase<A> ? A : `_${Lowercase<A>}`) : A}${Snake<B>}`
  : S
type RowOf<T> = { readonly [K in keyof T & string as Snake<K>]: Bytes<T>[K] }

export type SystemRow = Omit<RowOf<System>, 'seen_at'> & { readonly seen_at: Date | null }
export type DriveRow = RowOf<Drive>
export type PoolRow = RowOf<Pool>
export type VolumeRow = Omit<RowOf<Volume>, 'holding_until'> & { readonly holding_until: Date | null }
export type HostRow = RowOf<Host>
export type NodePortRow = RowOf<NodePort>

const camel = (name: string) => name.replace(/_([a-z])/g, (_, letter: string) => letter.toUpperCase())

/** A row with its names as the model has them; columns named as bytes become bigint, dates ISO 8601 text. */
export function fromRow<T>(row: object): T {
  return Object.fromEntries(
    Object.entries(row).map(([name, value]) => [
      camel(name),
      name.endsWith('_bytes') && typeof value === 'string'
        ? BigInt(value)
        : value instanceof Date
          ? value.toISOString()
          : (value as unknown),
    ]),
  ) as T
}

export const toNode = (row: RowOf<Node>) => fromRow<Node>(row)
export const toNodePort = (row: NodePortRow) => fromRow<NodePort>(row)
export const toSwitch = (row: RowOf<Switch>) => fromRow<Switch>(row)
export const toSwitchPort = (row: RowOf<SwitchPort>) => fromRow<SwitchPort>(row)
export const toSite = (row: RowOf<Site>) => fromRow<Site>(row)
export const toSystem = (row: SystemRow) => fromRow<System>(row)
export const toController = (row: RowOf<Controller>) => fromRow<Controller>(row)
export const toEnclosure = (row: RowOf<Enclosure>) => fromRow<Enclosure>(row)
export const toDrive = (row: DriveRow) => fromRow<Drive>(row)
export const toPort = (row: RowOf<Port>) => fromRow<Port>(row)
export const toPool = (row: PoolRow) => fromRow<Pool>(row)
export const toVolume = (row: VolumeRow) => fromRow<Volume>(row)
export const toHostGroup = (row: RowOf<HostGroup>) => fromRow<HostGroup>(row)
export const toHost = (row: HostRow) => fromRow<Host>(row)
export const toMapping = (row: RowOf<Mapping>) => fromRow<Mapping>(row)
export const toProbe = ({
  id,
  at,
  found,
}: {
  readonly id: string
  readonly at: Date
  readonly found: Omit<Probe, 'id' | 'at' | 'drives'> & { drives: { words: string; count: number; bytes: string }[] }
}): Probe => ({
  ...found,
  id,
  at: at.toISOString(),
  drives: found.drives.map(each => ({ ...each, bytes: BigInt(each.bytes) })),
})
export type { RowOf }
