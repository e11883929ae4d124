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
import type { Estate, SpreadSchemeText } from '@/core/estate'
import { storagePort } from '@/core/network'
import type { ClusterSketch } from '@/core/plan'
import { forecastBefore } from '@/core/transfer'
import { formatBytes } from '@/core/units'
import { suggestedRoles, type ClusterChoice } from '../../parts/clusterChoice'

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
  systemId: string,
  choice: ClusterChoice,
  wish: LayoutWish,
  laid: ClusterLayout,
): ClusterSketch {
  const domains = laid.domains.length
  const biggest = choice.capacity.reduce((most, drive) => (drive.capacityBytes > most ? drive.capacityBytes : most), 0n)
  const media = choice.capacity.some(drive => drive.media === 'HDD') ? ('HDD' as const) : ('SSD' as const)
  const ports = choice.nodes.flatMap(node => storagePort(estate.nodePorts, node.id) ?? [])
  const rebuild =
    choice.capacity.length < 2 || ports.length === 0
      ? undefined
      : forecastBefore(biggest, spreadRebuild(choice.capacity.slice(1), ports, wish.scheme), 0, [])
  // A cache drive takes its bank with it: all of the bank's drives are made anew on what is left.
  const bankDrives = Math.max(1, ...choice.banks.map(bank => bank.capacityDriveIds.length))
  const remaining = choice.capacity.slice(bankDrives)
  const bankRebuild =
    remaining.length === 0 || ports.length === 0
      ? undefined
      : forecastBefore(biggest * BigInt(bankDrives), spreadRebuild(remaining, ports, wish.scheme, bankDrives), 0, [])
  const missing = lacking(laid, wish.scheme)
  const drivesByDomain = laid.domains.map(
    domain => choice.capacity.filter(drive => domain.nodeIds.includes(drive.nodeId ?? '')).length,
  )
  return {
    of: 'cluster',
    ladder: laid.ladder.map(rung => ({
      name: rung.name,
      bytes: `${rung.bytes}`,
      takenBytes: `${rung.takenBytes}`,
      sum: rung.sum.map(each => ({ name: each.name, bytes: `${each.bytes}` })),
    })),
    banks: choice.banks,
    roles: Object.fromEntries(suggestedRoles(estate, systemId)),
    domains: laid.domains.map(({ name, rawBytes, strandedBytes }) => ({
      name,
      rawBytes: `${rawBytes}`,
      strandedBytes: `${strandedBytes}`,
    })),
    lacking: missing === undefined ? null : { bytes: `${missing.bytes}`, domainNames: missing.domainNames },
    tolerance: {
      ...lossTolerance(wish.scheme, domains),
      domainWords: wish.domain === 'node' ? 'nodes' : `${wish.domain}s`,
    },
    writeCost: writeCost(wish.scheme),
    rebuild: rebuild === undefined ? null : { seconds: rebuild.p50Seconds, boundBy: rebuild.boundBy },
    durability:
      rebuild === undefined
        ? null
        : (clusterDurability(
            drivesByDomain,
            wish.scheme,
            media,
            biggest,
            { driveHours: rebuild.p50Seconds / 3600, bankHours: (bankRebuild ?? rebuild).p50Seconds / 3600 },
            choice.banks.length > 0,
          ) ?? null),
    alternatives: alternativesTo(choice, wish, domains),
    nodes: nodeTable(estate, choice),
  }
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
  const rows = choice.nodes.map(node => {
    const port = storagePort(estate.nodePorts, node.id)
    const own = choice.drives.filter(drive => drive.nodeId === node.id)
    const of = (role: 'cache' | 'capacity') => own.filter(drive => choice.roleOf.get(drive.id) === role)
    const bytes = of('capacity').reduce((sum, drive) => sum + drive.capacityBytes, 0n)
    return {
      id: node.id,
      name: node.name,
      cells: [
        ['Model', node.model ?? 'not stated'],
        ['Firmware', node.firmware ?? 'not stated'],
        ['Cache', `${of('cache').length}`],
        [
          'Capacity',
          `${of('capacity').length} × ${[...new Set(of('capacity').map(drive => formatBytes(drive.capacityBytes, 'decimal')))].join(', ')}`,
        ],
        ['In all', formatBytes(bytes)],
        ['Port', port === undefined ? 'none' : `${port.speedBitsPerSecond / 1e9} Gb/s, MTU ${port.mtu}`],
      ] as const,
    }
  })
  return rows.map(row => ({
    ...row,
    cells: row.cells.map(([what, value], index) => ({
      what,
      value,
      isOdd: value !== commonest(rows.map(each => each.cells[index]?.[1] ?? '')),
    })),
  }))
}

function commonest(values: readonly string[]): string {
  const counts = new Map<string, number>()
  for (const value of values) counts.set(value, (counts.get(value) ?? 0) + 1)
  return [...counts].reduce((most, each) => (each[1] > most[1] ? each : most), ['', 0] as [string, number])[0]
}
