import { provisionableBytes, type Pool } from '@/core/estate'
import type { Part } from '@/core/threads'
import type { PartState } from '@/core/views'

export interface VolumeRow {
  readonly id: string
  readonly name: string
  readonly pool_id: string
  readonly system_id: string
  readonly application: string | null
  readonly p95: number | null
  readonly promised: number | null
  readonly groups: readonly GroupSeeing[] | null
  /** What of it hosts mount over the network. */
  readonly shares: readonly ShareOf[] | null
}

/** A group that sees a volume. */
export interface GroupSeeing {
  readonly id: string
  readonly name: string
  readonly hosts: readonly string[]
  /** Hosts of it that have ways to the volume, none of which is up. */
  readonly cut: readonly string[]
}

export interface ShareOf {
  readonly id: string
  readonly name: string
  readonly usedRatio: number
  readonly warnPercent: number | null
  /** Addresses at which nobody answers for its service. */
  readonly silent: number
}

export interface GroupRow {
  readonly pool_id: string
  readonly group_index: number | null
  readonly drives: number
  readonly failed: number
  readonly failing: number
  /** That err more from week to week. */
  readonly erring: number
}

const milliseconds = (seconds: number) => (seconds * 1000).toFixed(seconds < 0.01 ? 1 : 0)
/** More than this part of a promise is used up: it is at risk. */
const nearRatio = 0.8

function latencyState(p95: number | null, promised: number | null): Pick<PartState, 'gravity' | 'words'> {
  if (p95 === null) return { gravity: 'unknown', words: 'not measured' }
  if (promised === null) return { gravity: 'fine', words: `${milliseconds(p95)} ms` }
  const gravity = p95 > promised ? 'now' : p95 > promised * nearRatio ? 'soon' : 'fine'
  return { gravity, words: `${milliseconds(p95)} of ${milliseconds(promised)} ms` }
}

export const volumeState = ({ id, p95, promised, system_id }: VolumeRow): PartState => ({
  ...latencyState(p95, promised),
  href: `/watch/performance?sel=${id}`,
  systemId: system_id,
})

/** An application is as slow as the volume that misses its promise by most. */
export function applicationState(volumes: readonly VolumeRow[], name: string): PartState {
  const own = volumes.filter(each => (each.application ?? each.groups?.[0]?.name) === name)
  const used = ({ p95, promised }: VolumeRow) => (p95 ?? 0) / (promised ?? Number.POSITIVE_INFINITY) + (p95 ?? 0) * 1e-6
  const [worst] = [...own].sort((a, b) => used(b) - used(a))
  return {
    ...latencyState(worst?.p95 ?? null, worst?.promised ?? null),
    href: `/provision?application=${encodeURIComponent(name)}`,
    systemId: null,
  }
}

export function shareState({ id, usedRatio, warnPercent, silent }: ShareOf, systemId: string): PartState {
  const isFull = usedRatio * 100 >= (warnPercent ?? 90)
  return {
    gravity: silent > 0 ? 'now' : isFull ? 'soon' : 'fine',
    words: silent > 0 ? `${silent} silent` : `${((usedRatio ?? 0) * 100).toFixed(0)}%`,
    href: `/provision/shares/${id}`,
    systemId,
  }
}

export function poolState(pool: Pool): PartState {
  const capacity = Number(provisionableBytes(pool))
  const fill = capacity === 0 ? 0 : Number(pool.writtenBytes) / capacity
  const isHurt = pool.state === 'degraded' || pool.state === 'failed'
  return {
    gravity: isHurt ? 'now' : fill >= 0.9 ? 'soon' : 'fine',
    words: isHurt ? pool.state : `${(fill * 100).toFixed(0)}%`,
    href: `/watch?sel=${pool.id}`,
    systemId: pool.systemId,
  }
}

export const groupPart = ({ pool_id, group_index, drives }: GroupRow): Part => ({
  key: `drives/${pool_id}:${group_index ?? 'all'}`,
  stop: 'drives',
  name: group_index === null ? `${drives} drives` : `group ${group_index + 1}, ${drives} drives`,
})

export const groupState = ({ failed, failing, erring }: GroupRow, systemId: string): PartState => ({
  gravity: failed > 0 ? 'now' : failing + erring > 0 ? 'soon' : 'fine',
  words:
    failed > 0
      ? `${failed} failed`
      : failing > 0
        ? `${failing} failing`
        : erring > 0
          ? `${erring} ${erring === 1 ? 'errs' : 'err'} more`
          : 'whole',
  href: `/build/systems/${systemId}`,
  systemId,
})
