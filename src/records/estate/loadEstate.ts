import {
  fieldsOf,
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
import { worstDemand } from '../metrics'
import { objects } from '../objects'
import { settings } from '../settings'
import { probeById } from './probes'
import { rowRecords } from './rowRecords'
import { unchanged } from './unchanged'

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
  // One after another: in a transaction all go over one connection, which answers one question at a time.
  const found: Partial<{ [Name in KindName]: ObjectTypes[Name][] }> = {}
  for (const name of Object.keys(objectKinds) as KindName[])
    Object.assign(found, { [name]: await wanted(scope, name, needs) })
  const shown = await mappingsOf(scope, found.volumes ?? [], found.snapshots ?? [])
  const mappings = [...new Map([...(found.mappings ?? []), ...shown].map(each => [each.id, each])).values()]
  const probeId = needs.find(want => want.kind === 'probes')?.values[0]
  const probe = probeId === undefined || !isUuid(probeId) ? undefined : await probeById(scope, probeId)
  return {
    ...(found as Required<typeof found>),
    mappings,
    probes: probe === undefined ? [] : [probe],
    ...(await rowRecords(scope)),
    poolDemands: await demandsWanted(scope, needs),
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

async function wanted<Name extends KindName>(
  scope: Scope,
  name: Name,
  needs: EstateNeeds,
): Promise<ObjectTypes[Name][]> {
  if (always.has(name)) return objects(scope, name)
  const types = new Map(fieldsOf(kindOf(name)).map(({ field, type }) => [field, type]))
  const any = needs
    .filter(want => want.kind === name)
    .flatMap(want => condition(want, types.get(want.field) === 'uuid'))
  const limit = mostOfAKind[name]
  const whole = wholeSystem(name, needs)
  if (whole !== undefined) return unchanged(scope, name, whole)
  return any.length === 0
    ? []
    : objects(scope, name, { and: { [Op.or]: any }, ...(limit === undefined ? {} : { limit }) })
}

/** Of which there are thousands, and of which drafts look at all of a system's. */
const many: ReadonlySet<KindName> = new Set(['drives'])

/** The one system all of whose objects of a kind are wanted, and nothing else of them. */
function wholeSystem(name: KindName, needs: EstateNeeds): string | undefined {
  const [want, ...others] = many.has(name) ? needs.filter(each => each.kind === name) : []
  const [systemId = ''] = want?.values ?? []
  return want?.field === 'systemId' && want.values.length === 1 && others.length === 0 && isUuid(systemId)
    ? systemId
    : undefined
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
