import { col, fn, literal } from 'sequelize'
import { estateTime } from '@/core/clock'
import type { Estate, Node, NodePort, PathProbe, Switch, SwitchPort } from '@/core/estate'
import type { Finding } from '@/core/findings'
import type { FindingRecord, PieceWork } from '@/core/views'
import { rows, type Scope } from '../database'
import { estateClock } from '../inventory'
import { fromRow, probesAndNames, type RowOf } from '../estate'
import { objects } from '../objects'

export interface RowNetwork {
  readonly nodes: readonly Node[]
  readonly nodePorts: readonly NodePort[]
  readonly switches: readonly Switch[]
  readonly switchPorts: readonly SwitchPort[]
  readonly probe: PathProbe | undefined
  readonly nameAnswers: Estate['nameAnswers']
}

/** The nodes of a system with the network between them, and what was last probed there. */
export async function rowNetwork(scope: Scope, systemId: string): Promise<RowNetwork> {
  const where = { systemId }
  const { pathProbes, nameAnswers } = await probesAndNames(scope)
  return {
    nodes: await objects(scope, 'nodes', { where }),
    nodePorts: await objects(scope, 'nodePorts', {
      where,
      order: [
        [literal('(select n.name from nodes n where n.id = node_id)'), 'ASC'],
        ['name', 'ASC'],
      ],
    }),
    switches: await objects(scope, 'switches', { where }),
    switchPorts: await objects(scope, 'switchPorts', {
      where,
      order: [
        [fn('length', col('name')), 'ASC'],
        ['name', 'ASC'],
      ],
    }),
    probe: pathProbes.find(each => each.systemId === systemId),
    nameAnswers,
  }
}

/** Systems that have nodes. */
export const rowSystemIds = async (scope: Scope) =>
  (
    await rows<{ readonly id: string }>(scope, 'select distinct system_id as id from nodes where missing_since is null')
  ).map(({ id }) => id)

/** Findings that stand, of one system or of all, with the exception that covers each by the estate's clock. */
export async function standingFindings(scope: Scope, systemId: string | null): Promise<FindingRecord[]> {
  const at = estateTime(await estateClock(scope), new Date())
  const found = await rows<{
    readonly body: Finding
    readonly system_id: string
    readonly since: Date
    readonly reason: string | null
    readonly signed_by: string | null
    readonly until: Date | null
  }>(
    scope,
    `select f.body, f.system_id, f.since, e.reason, e.signed_by, e.until from findings f
     left join lateral (select reason, signed_by, until from signed_exceptions
       where finding_key = f.key and until > $2 and (gravity is null
         or array_position(array['note', 'soon', 'now'], f.body ->> 'gravity') <= array_position(array['note', 'soon', 'now'], gravity)) order by until desc limit 1) e on true
     where f.cleared_at is null and ($1::uuid is null or f.system_id = $1) order by f.since, f.id limit 2000`,
    [systemId, at.toISOString()],
  )
  return found.map(({ body, system_id, since, reason, signed_by, until }) => ({
    finding: body,
    systemId: system_id,
    since: since.toISOString(),
    exception: reason === null ? null : { reason, signedBy: signed_by ?? '', until: until?.toISOString() ?? '' },
  }))
}

/** What a pool's cluster has done with its pieces, latest first. */
export async function pieceWorks(scope: Scope, poolId: string): Promise<PieceWork[]> {
  const found = await rows<RowOf<PieceWork>>(
    scope,
    `select id, kind, bytes, p10_seconds, p50_seconds, p90_seconds, bound_by, started_estate_at, ended_estate_at, done_ratio, state, was_forecast
     from rebuilds where pool_id = $1 order by started_estate_at desc limit 10`,
    [poolId],
  )
  return found.map(each => ({ ...fromRow<PieceWork>(each), bytes: BigInt(each.bytes) }))
}
