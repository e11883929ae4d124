import type { FieldOf, KindName } from './kinds'

/** Objects of a kind that a plan wants to look at: those whose field has one of some values, or begins so. */
export interface Want {
  readonly kind: KindName | 'probes' | 'poolDemands' | 'poolTrends'
  readonly field: string
  readonly values: readonly string[]
  readonly isBeginning?: true
  /** The field is a list, which has one of the values. */
  readonly isAmong?: true
}

/**
 * What a kind of change reads. Sites, systems, pools and hosts are few and always given, the mappings of a volume come with it; everything
 * else only as asked for. What a draft has not named yet (a blank) is nobody's.
 */
export type EstateNeeds = readonly Want[]

const given = (values: readonly (string | undefined)[]) =>
  values.filter((value): value is string => value !== undefined && value !== '')

/** Those of a kind whose field has one of the values. */
export const those = <Name extends KindName>(
  kind: Name,
  field: FieldOf<Name>,
  ...values: readonly (string | undefined)[]
): Want => ({ kind, field, values: given(values) })

/** Those of a kind whose field is a list that has one of the values. */
export const having = <Name extends KindName>(
  kind: Name,
  field: FieldOf<Name>,
  ...values: readonly (string | undefined)[]
): Want => ({ kind, field, values: given(values), isAmong: true })

/** One of a kind, by its id. */
export const one = (kind: KindName | 'probes', id: string | undefined): Want => ({
  kind,
  field: 'id',
  values: given([id]),
})

/** Those of a kind whose names begin so. */
export const beginning = (kind: KindName, name: string): Want => ({
  kind,
  field: 'name',
  values: given([name]),
  isBeginning: true,
})

/** All that stands in a system but its volumes. */
export const within = (systemId: string | undefined): EstateNeeds =>
  (['controllers', 'enclosures', 'nodes', 'switches', 'switchPorts', 'nodePorts', 'drives', 'ports'] as const).map(
    kind => those(kind, 'systemId', systemId),
  )

/** What was asked of a pool in the worst hour of its last week. */
export const demandsOn = (poolId: string | undefined): Want => ({
  kind: 'poolDemands',
  field: 'poolId',
  values: given([poolId]),
})

/** How all pools answer and grow, for a plan that chooses among them. */
export const trendsOfPools: Want = { kind: 'poolTrends', field: 'poolId', values: [] }
