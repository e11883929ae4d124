import { clusterLayout, piecesOf, spreadMove, widthOf, isSpreadScheme, type ClusterLayout } from '@/core/clusters'
import type { Drive, Estate, Node, Pool, SpreadSchemeText } from '@/core/estate'
import type { SharedPart } from '@/core/transfer'

/** The pool's layout over domains; a pool of RAID groups has none. */
export const spreadOf = (pool: Pool | undefined): SpreadSchemeText | undefined =>
  pool !== undefined && isSpreadScheme(pool.scheme) ? pool.scheme : undefined

/** Bytes of pieces that move when drives join or leave: their share of all that is stored, and no more. */
export function movedBytes(
  pool: Pool,
  scheme: SpreadSchemeText,
  moving: readonly Drive[],
  whole: readonly Drive[],
): bigint {
  const sum = (drives: readonly Drive[]) => drives.reduce((total, drive) => total + drive.capacityBytes, 0n)
  const all = sum(whole)
  if (all === 0n) return 0n
  const stored = (pool.writtenBytes * BigInt(widthOf(scheme))) / BigInt(piecesOf(scheme).needed)
  return (stored * sum(moving)) / all
}

/** How a pool would be laid out on other drives; undefined for one that is spread over nothing. */
export function layoutOn(
  pool: Pool | undefined,
  nodes: readonly Node[],
  capacity: readonly Drive[],
): ClusterLayout | undefined {
  const scheme = spreadOf(pool)
  if (pool === undefined || scheme === undefined || pool.failureDomain === null) return undefined
  return clusterLayout(
    { nodes, cache: [], capacity },
    {
      domain: pool.failureDomain,
      scheme,
      keepsRebuildReserve: pool.rebuildReserveBytes > 0n,
      snapshotShareRatio: 0,
    },
  )
}

/** What the moving passes, at the part of drives and links that it may take. */
export const movingParts = (
  estate: Estate,
  sources: readonly Drive[],
  targets: readonly Drive[],
  ratePercent: number,
): SharedPart[] =>
  spreadMove(
    sources,
    targets,
    estate.nodePorts.filter(port => port.storage !== null),
    ratePercent / 100,
  )
