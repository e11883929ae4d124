import {
  clusterDurability,
  clusterLayout,
  lacking,
  lossTolerance,
  schemeWords,
  spreadRebuild,
  widthOf,
  writeCost,
  type ClusterLayout,
  type LayoutWish,
} from '@/core/clusters'
import type { Drive, Estate, SpreadSchemeText } from '@/core/estate'
import { storagePort } from '@/core/network'
import type { ClusterSketch } from '@/core/plan'
import { forecastBefore } from '@/core/transfer'
import { formatBytes } from '@/core/units'
import { byNode, type ClusterChoice } from '../../parts/clusterChoice'

const offered: readonly SpreadSchemeText[] = [
  { kind: 'copies', copies: 2 },
  { kind: 'copies', copies: 3 },
  ...[2, 3, 4, 6, 8].flatMap(dataPieces =>
    [1, 2, 3].map(parityPieces => ({ kind: 'erasure' as const, dataPieces, parityPieces })),
  ),
]

/** Everything that follows from the chosen drives and the layout. */
export function clusterSketch(
  estate: Estate,
  choice: ClusterChoice,
  wish: LayoutWish,
  laid: ClusterLayout,
): ClusterSketch {
  const missing = lacking(laid, wish.scheme)
  return {
    of: 'cluster',
    ladder: laid.ladder.map(rung => ({
      name: rung.name,
      bytes: `${rung.bytes}`,
      takenBytes: `${rung.takenBytes}`,
      sum: rung.sum.map(each => ({ name: each.name, bytes: `${each.bytes}` })),
    })),
    banks: choice.banks,
    domains: laid.domains.map(({ name, rawBytes, strandedBytes }) => ({
      name,
      rawBytes: `${rawBytes}`,
      strandedBytes: `${strandedBytes}`,
    })),
    lacking: missing === undefined ? null : { bytes: `${missing.bytes}`, domainNames: missing.domainNames },
    tolerance: {
      ...lossTolerance(wish.scheme, laid.domains.length),
      domainWords: wish.domain === 'node' ? 'nodes' : `${wish.domain}s`,
    },
    writeCost: writeCost(wish.scheme),
    ...rebuildAndDurability(estate, choice, wish, laid),
    alternatives: alternativesTo(choice, wish, laid.domains.length),
    nodes: nodeTable(estate, choice),
  }
}

/** How long a lost drive takes to be whole again, and from that the odds of losing data; null where nothing can be said yet. */
function rebuildAndDurability(
  estate: Estate,
  choice: ClusterChoice,
  wish: LayoutWish,
  laid: ClusterLayout,
): Pick<ClusterSketch, 'rebuild' | 'durability'> {
  const { capacity } = choice
  const biggest = capacity.reduce((most, drive) => (drive.capacityBytes > most ? drive.capacityBytes : most), 0n)
  const ports = choice.nodes.flatMap(node => storagePort(estate.nodePorts, node.id) ?? [])
  if (capacity.length < 2 || ports.length === 0) return { rebuild: null, durability: null }
  const rebuild = forecastBefore(biggest, spreadRebuild(capacity.slice(1), ports, wish.scheme), 0, [])
  // A cache drive takes its bank with it: all of the bank's drives are made anew on what is left.
  const bankDrives = Math.max(1, ...choice.banks.map(bank => bank.capacityDriveIds.length))
  const remaining = capacity.slice(bankDrives)
  const bankRebuild =
    remaining.length === 0
      ? rebuild
      : forecastBefore(biggest * BigInt(bankDrives), spreadRebuild(remaining, ports, wish.scheme, bankDrives), 0, [])
  const drivesOf = byNode(capacity)
  const durability = clusterDurability(
    laid.domains.map(({ nodeIds }) => nodeIds.reduce((sum, id) => sum + (drivesOf.get(id)?.length ?? 0), 0)),
    wish.scheme,
    capacity.some(drive => drive.media === 'HDD') ? 'HDD' : 'SSD',
    biggest,
    { driveHours: rebuild.p50Seconds / 3600, bankHours: bankRebuild.p50Seconds / 3600 },
    choice.banks.length > 0,
  )
  return { rebuild: { seconds: rebuild.p50Seconds, boundBy: rebuild.boundBy }, durability: durability ?? null }
}

/** What other layouts would give of the same drives, most space first. */
function alternativesTo(choice: ClusterChoice, wish: LayoutWish, domains: number): ClusterSketch['alternatives'] {
  const own = schemeWords(wish.scheme)
  return offered
    .filter(scheme => widthOf(scheme) <= domains && schemeWords(scheme) !== own)
    .map(scheme => {
      const laid = clusterLayout(choice, { ...wish, scheme })
      return {
        words: schemeWords(scheme),
        freeBytes: `${laid.freeBytes}`,
        strandedBytes: `${laid.strandedBytes}`,
        ...lossTolerance(scheme, domains),
      }
    })
    .sort((a, b) => Number(BigInt(b.freeBytes) - BigInt(a.freeBytes)))
    .slice(0, 6)
}

/** What differs between the nodes: a value that is not the commonest of its kind is odd. */
function nodeTable(estate: Estate, choice: ClusterChoice): ClusterSketch['nodes'] {
  const drivesOf = byNode(choice.drives)
  const rows = choice.nodes.map(node => {
    const port = storagePort(estate.nodePorts, node.id)
    const own = drivesOf.get(node.id) ?? []
    const of = (role: 'cache' | 'capacity') => own.filter(drive => choice.roleOf.get(drive.id) === role)
    const bytes = of('capacity').reduce((sum, drive) => sum + drive.capacityBytes, 0n)
    return {
      id: node.id,
      name: node.name,
      cells: [
        ['Model', node.model ?? 'not stated'],
        ['Firmware', node.firmware ?? 'not stated'],
        ['Cache', `${of('cache').length}`],
        ['Capacity', `${of('capacity').length} × ${sizesOf(of('capacity')).join(', ')}`],
        ['In all', formatBytes(bytes)],
        ['Port', port === undefined ? 'none' : `${port.speedBitsPerSecond / 1e9} Gb/s, MTU ${port.mtu}`],
      ] as const,
    }
  })
  const usual = rows[0]?.cells.map((_, index) => commonest(rows.flatMap(each => each.cells[index]?.[1] ?? [])))
  return rows.map(row => ({
    ...row,
    cells: row.cells.map(([what, value], index) => ({ what, value, isOdd: value !== usual?.[index] })),
  }))
}

/** The sizes that there are of drives, each once. */
const sizesOf = (drives: readonly Drive[]) => [
  ...new Set(
    [...new Set(drives.map(({ capacityBytes }) => capacityBytes))].map(bytes => formatBytes(bytes, 'decimal')),
  ),
]

function commonest(values: readonly string[]): string {
  const counts = new Map<string, number>()
  for (const value of values) counts.set(value, (counts.get(value) ?? 0) + 1)
  return [...counts].reduce((most, each) => (each[1] > most[1] ? each : most), ['', 0] as [string, number])[0]
}
