import { suggestedRole } from '@/core/clusters'
import { kindWords, type Drive, type IntakeState } from '@/core/estate'
import { storable } from '@/core/input'
import type { DriveCount, DriveLine, DriveSort } from '@/core/views'
import { row, rows, type Scope } from '../database'

export interface DriveQuestion {
  readonly filter?: string
  readonly state?: IntakeState
  /** In words: `8 TB NVMe`. */
  readonly kind?: string
  readonly systemId?: string
  readonly sort?: DriveSort
  readonly isDescending?: boolean
  readonly offset?: number
  readonly limit?: number
}

const mostLines = 500

/** What asks for work stands first, then what can be used. */
const urgency = `array_position(array['failed','failing','foreign','unassigned','spare','in use','boot'], drives.intake)`
const place = [
  'systems.name collate natural_order',
  `coalesce(nodes.name, enclosures.name, '') collate natural_order`,
  'drives.bay',
]
const orderBy: Readonly<Record<DriveSort, readonly string[]>> = {
  label: ['right(drives.serial, 4)'],
  where: place,
  kind: ['drives.media', 'drives.capacity_bytes'],
  state: [urgency, ...place],
  serial: ['drives.serial'],
  model: ['drives.model'],
  size: ['drives.capacity_bytes'],
  hours: ['drives.power_on_hours'],
  writes: ['drives.drive_writes_per_day'],
}
const joined = `drives join systems on systems.id = drives.system_id
  left join nodes on nodes.id = drives.node_id left join enclosures on enclosures.id = drives.enclosure_id`
const where = `drives.missing_since is null
  and ($1 = '' or concat_ws(' ', drives.serial, drives.model, drives.firmware, systems.name, coalesce(nodes.name, enclosures.name),
    'bay ' || drives.bay, drives.intake, drives.left_over::text) ilike $2)
  and ($3::text is null or drives.intake = $3)
  and ($4::text[] is null or drives.media || '/' || drives.protocol || '/' || drives.capacity_bytes = any($4))
  and ($5::uuid is null or drives.system_id = $5)`

interface Line extends Omit<DriveLine, 'bestFor'> {
  readonly nodeId: string | null
  readonly isBoot: boolean
}

/** One page of drives as they stand in the intake, and how many there are in all. */
export async function driveList(
  scope: Scope,
  question: DriveQuestion,
): Promise<{ readonly total: number; readonly items: readonly DriveLine[] }> {
  const direction = question.isDescending === true ? 'desc' : 'asc'
  const bind = await bindOf(scope, question)
  const counted = row<{ readonly total: number }>(
    scope,
    `select count(*)::int as total from ${joined} where ${where}`,
    bind,
  )
  const order = [...orderBy[question.sort ?? 'state'], 'drives.id'].map(by => `${by} ${direction} nulls last`).join()
  const listed = rows<Line>(
    scope,
    `select drives.id, drives.system_id as "systemId", systems.name as "systemName", drives.bay, drives.serial, drives.model,
       coalesce(nodes.name, enclosures.name, '') as "standsIn", drives.firmware, drives.media, drives.protocol,
       drives.capacity_bytes::text as "capacityBytes", drives.intake, pools.name as "poolName", drives.group_index as "groupIndex", drives.wear_ratio as "wearRatio", drives.is_lit as "isLit", drives.left_over as "leftOver",
       drives.power_on_hours as "powerOnHours", drives.drive_writes_per_day as "driveWritesPerDay",
       drives.node_id as "nodeId", drives.is_boot as "isBoot"
     from ${joined} left join pools on pools.id = drives.pool_id where ${where}
     order by ${order} offset $6 limit $7`,
    [...bind, Math.max(0, question.offset ?? 0), Math.min(mostLines, Math.max(1, question.limit ?? 200))],
  )
  const [total, lines] = await Promise.all([counted, listed])
  const beside = await drivesBeside(
    scope,
    lines.flatMap(line => line.nodeId ?? []),
  )
  return {
    total: total?.total ?? 0,
    items: lines.map(({ nodeId, isBoot, ...line }) => ({
      ...line,
      bestFor:
        nodeId === null || isBoot
          ? null
          : suggestedRole({ ...line, capacityBytes: BigInt(line.capacityBytes) }, beside.get(nodeId) ?? []).role,
    })),
  }
}

/** What the list compares with: a text, a state, and kinds. */
async function bindOf(scope: Scope, question: DriveQuestion): Promise<readonly unknown[]> {
  const filter = storable(question.filter ?? '').trim()
  return [
    filter,
    `%${filter.replace(/[%_\\]/g, '\\$&')}%`,
    question.state ?? null,
    question.kind === undefined ? null : await alike(scope, question.kind),
    question.systemId ?? null,
  ]
}

type Beside = Pick<Drive, 'media' | 'capacityBytes'>

/** The data drives of nodes, by node. */
async function drivesBeside(scope: Scope, nodeIds: readonly string[]): Promise<ReadonlyMap<string, Beside[]>> {
  const byNode = new Map<string, Beside[]>()
  if (nodeIds.length === 0) return byNode
  const all = await rows<{ readonly nodeId: string; readonly media: Drive['media']; readonly capacityBytes: string }>(
    scope,
    `select node_id as "nodeId", media, capacity_bytes::text as "capacityBytes" from drives
     where node_id = any($1) and not is_boot and missing_since is null`,
    [[...new Set(nodeIds)]],
  )
  for (const { nodeId, media, capacityBytes } of all)
    byNode.set(nodeId, [...(byNode.get(nodeId) ?? []), { media, capacityBytes: BigInt(capacityBytes) }])
  return byNode
}

/** How many drives there are of each sort and state; adds up to all of them. */
export async function driveCounts(scope: Scope): Promise<readonly DriveCount[]> {
  const counted = await rows<Omit<DriveCount, 'capacityBytes'> & { readonly bytes: string }>(
    scope,
    `select media, protocol, capacity_bytes::text as bytes, intake, count(*)::int as count from drives
     where missing_since is null group by 1, 2, 3, 4`,
  )
  return counted.map(({ bytes, ...count }) => ({ ...count, capacityBytes: BigInt(bytes) }))
}

/** What drives of a kind are, as the list compares it: sizes that differ may read alike. */
const alike = async (scope: Scope, kind: string): Promise<readonly string[]> =>
  (await driveCounts(scope))
    .filter(each => kindWords(each) === kind)
    .map(each => `${each.media}/${each.protocol}/${each.capacityBytes}`)

/** How many drives a system has, how many of them are free, and their bytes. */
export interface SystemDrives {
  readonly systemId: string
  readonly count: number
  readonly freeCount: number
  readonly rawBytes: bigint
}

export async function drivesBySystem(scope: Scope): Promise<ReadonlyMap<string, SystemDrives>> {
  const found = await rows<Omit<SystemDrives, 'rawBytes'> & { readonly bytes: string }>(
    scope,
    `select system_id as "systemId", count(*)::int as count, count(*) filter (where intake = 'unassigned')::int as "freeCount",
       sum(capacity_bytes)::text as bytes
     from drives where missing_since is null group by system_id`,
  )
  return new Map(found.map(({ bytes, ...each }) => [each.systemId, { ...each, rawBytes: BigInt(bytes) }]))
}
