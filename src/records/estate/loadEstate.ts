import {
  fieldsOf,
  isLocated,
  kindOf,
  objectKinds,
  type Estate,
  type EstateNeeds,
  type KindName,
  type ObjectTypes,
  type PoolDemand,
  type Want,
} from '@/core/estate'
import { isUuid } from '@/core/input'
import { Op, type WhereOptions } from 'sequelize'
import { rows, type Scope } from '../database'
import { estateNow } from '../inventory'
import { poolTrends, worstDemand } from '../metrics'
import { objects, tableOf } from '../objects'
import { settings } from '../settings'
import { probeById } from './probes'
import { rowReadings } from './rowRecords'
import { unchanged, type Reading } from './unchanged'

/** Few in any estate, and given to every plan. */
const always: ReadonlySet<KindName> = new Set([
  'sites',
  'systems',
  'pools',
  'hostGroups',
  'hosts',
  'serviceClasses',
  'fileServices',
  'directories',
  'routes',
  'rules',
])
/** More of a kind than a plan could look at: names that a pattern would give are counted among these. */
const mostOfAKind: Partial<Record<KindName, number>> = { volumes: 2000, principals: 20_000 }
const mostMisses = 50

/** The slice of the estate that a kind of change reads. A change's own claims are left out, so that it does not bar itself. */
export async function loadEstate(
  scope: Scope,
  needs: EstateNeeds,
  kind: string,
  ownChangeId?: string,
): Promise<Estate> {
  const found = await wanted(scope, needs)
  const shown = await mappingsOf(scope, found.volumes, found.snapshots)
  const mappings = [...new Map([...found.mappings, ...shown].map(each => [each.id, each])).values()]
  const probeId = needs.find(want => want.kind === 'probes')?.values[0]
  const probe = probeId === undefined || !isUuid(probeId) ? undefined : await probeById(scope, probeId)
  return {
    ...found,
    mappings,
    probes: probe === undefined ? [] : [probe],
    poolDemands: await demandsWanted(scope, needs),
    poolTrends: needs.some(({ kind }) => kind === 'poolTrends') ? await poolTrends(scope) : [],
    pastMisses: await pastMisses(scope, kind),
    settings: await settings(scope),
    claims: await claims(scope, ownChangeId),
  }
}

/** What was asked of the pools whose demands a plan wants to look at. */
async function demandsWanted(scope: Scope, needs: EstateNeeds): Promise<PoolDemand[]> {
  const found: PoolDemand[] = []
  for (const id of needs.filter(want => want.kind === 'poolDemands').flatMap(({ values }) => values.filter(isUuid))) {
    const demand = await worstDemand(scope, id, await estateNow(scope))
    if (demand !== undefined) found.push(demand)
  }
  return found
}

/** To whom volumes and snapshots are shown. */
async function mappingsOf(
  scope: Scope,
  volumes: readonly { readonly id: string }[],
  snapshots: readonly { readonly id: string }[],
): Promise<ObjectTypes['mappings'][]> {
  const ids = (all: readonly { readonly id: string }[]) => all.map(({ id }) => id)
  if (volumes.length + snapshots.length === 0) return []
  return objects(scope, 'mappings', {
    and: { [Op.or]: [{ volumeId: ids(volumes) }, { snapshotId: ids(snapshots) }] },
  })
}

type Found = { readonly [Name in KindName]: readonly ObjectTypes[Name][] } & Pick<
  Estate,
  'pathProbes' | 'nameAnswers' | 'exceptions' | 'catalogues'
>

/** All that a plan wants: whole tables and whole systems where one of their rows is another than before, the rest as it stands. */
async function wanted(scope: Scope, needs: EstateNeeds): Promise<Found> {
  const names = Object.keys(objectKinds) as KindName[]
  const readings = new Map<string, Reading>(Object.entries(rowReadings(scope)))
  for (const name of names) {
    const reading = wholeReading(scope, name, needs)
    if (reading !== undefined) readings.set(name, reading)
  }
  const read = await unchanged(scope, [...readings.values()])
  const found = new Map<string, readonly object[]>([...readings.keys()].map((name, index) => [name, read[index] ?? []]))
  // One after another: in a transaction all go over one connection, which answers one question at a time.
  for (const name of names) if (!found.has(name)) found.set(name, await some(scope, name, needs))
  return Object.fromEntries(found) as unknown as Found
}

/** The objects of a kind that a plan names. */
async function some<Name extends KindName>(scope: Scope, name: Name, needs: EstateNeeds): Promise<ObjectTypes[Name][]> {
  const types = new Map(fieldsOf(kindOf(name)).map(({ field, type }) => [field, type]))
  const any = needs
    .filter(want => want.kind === name)
    .flatMap(want => condition(want, types.get(want.field) === 'uuid'))
  const limit = mostOfAKind[name]
  return any.length === 0
    ? []
    : objects(scope, name, { and: { [Op.or]: any }, ...(limit === undefined ? {} : { limit }) })
}

/** A kind that is given to every plan, or all of whose objects in one system are wanted and no others. */
function wholeReading(scope: Scope, name: KindName, needs: EstateNeeds): Reading | undefined {
  const table = { table: tableOf(name), isLocated: isLocated(kindOf(name)) }
  if (always.has(name)) return { ...table, read: () => objects(scope, name) }
  const [want, ...others] = name in mostOfAKind ? [] : needs.filter(each => each.kind === name)
  const [systemId = ''] = want?.values ?? []
  const isWhole = want?.field === 'systemId' && want.values.length === 1 && others.length === 0 && isUuid(systemId)
  return isWhole ? { ...table, systemId, read: () => objects(scope, name, { and: { systemId } }) } : undefined
}

/** Nothing where no value could be some object's: what a draft has not named yet, or names wrongly, is nobody's. */
function condition({ field, values, isBeginning, isAmong }: Want, isId: boolean): WhereOptions[] {
  const possible = isId ? values.filter(isUuid) : values
  if (possible.length === 0) return []
  if (isAmong === true) return possible.map(value => ({ [field]: { [Op.contains]: [value] } }))
  return isBeginning === true
    ? possible.map(value => ({ [field]: { [Op.startsWith]: value } }))
    : [{ [field]: possible }]
}

/** How far earlier forecasts of a kind were off, latest last. */
async function pastMisses(scope: Scope, kind: string): Promise<number[]> {
  const misses = await rows<{ readonly miss: number }>(
    scope,
    'select actual_seconds / base_seconds as miss from forecast_outcomes where kind = $1 and base_seconds > 0 order by ended_at desc limit $2',
    [kind, mostMisses],
  )
  return misses.map(({ miss }) => miss).reverse()
}

async function claims(scope: Scope, ownChangeId: string | undefined): Promise<ReadonlyMap<string, string>> {
  const held = await rows<{ readonly claim: string; readonly title: string }>(
    scope,
    'select claim, title from claims join changes on changes.id = change_id where change_id is distinct from $1::uuid',
    [ownChangeId ?? null],
  )
  return new Map(held.map(({ claim, title }) => [claim, title]))
}
