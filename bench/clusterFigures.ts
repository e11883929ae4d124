import { planIntent } from '@/changes'
import { ErasureCode } from '@/core/erasure'
import { emptyEstate, type Estate } from '@/core/estate'
import {
  sampleDrive,
  sampleId,
  sampleNode,
  sampleNodePort,
  sampleSwitch,
  sampleSwitchPort,
  sampleSystem,
} from '@/core/estate/testing/samples'
import { placer } from '@/core/placement'
import { timed, under, type Figure, type Timed } from './measure'

const nodes = 64
const drivesOfNode = 24

/** Placement, erasure code and the draft of a large cluster, beside what is to be reached. */
export async function clusterFigures(): Promise<Figure[]> {
  const domains = Array.from({ length: 40 }, (_, node) => ({
    id: `n${node}`,
    drives: Array.from({ length: 24 }, (__, drive) => ({ id: `n${node}/${drive}`, chunks: 3725 })),
  }))
  const place = await timed(3, () => placer(domains, 11).placeAll(100_000))
  const { encoded, restored, copied } = await encoding()
  const estate = largeRow()
  const intent = {
    systemId: sampleId(1),
    name: 'large',
    driveIds: estate.drives.map(drive => drive.id),
    roles: {},
    domain: 'node',
    scheme: { kind: 'erasure', dataPieces: 8, parityPieces: 3 },
    keepsRebuildReserve: true,
    snapshotSharePercent: 10,
  }
  const draft = await timed(7, () => planIntent('form-cluster', intent, () => Promise.resolve(estate), new Date()))
  return [
    under('Placement of 100,000 stripes of 11 pieces over 40 nodes × 24 drives', place, 1000),
    {
      what: 'Erasure 8+3, encoding, beside a plain memory copy in the same run',
      measured: `${encoded.median.toFixed(0)} MB/s beside ${copied.median.toFixed(0)} MB/s`,
      wanted: 'at least 1 GB/s',
      holds: encoded.best >= 1000,
    },
    {
      what: 'Erasure 8+3, three lost data pieces restored',
      measured: `${restored.median.toFixed(0)} MB/s`,
      wanted: 'at least 1 GB/s',
      holds: restored.best >= 1000,
    },
    under(`Draft of a cluster of ${nodes} nodes × ${drivesOfNode} drives, recomputed`, draft, 150),
  ]
}

/** Megabytes of data a second. */
async function encoding(): Promise<Readonly<Record<'encoded' | 'restored' | 'copied', Timed>>> {
  const code = new ErasureCode(8, 3)
  const data = Array.from({ length: 8 }, (_, piece) => new Uint8Array(1 << 20).map((__, at) => (at * 31 + piece) & 255))
  const target = data.map(() => new Uint8Array(1 << 20))
  for (let warm = 0; warm < 6; warm += 1) code.encode(data)
  const milliseconds = await timed(9, () => code.encode(data))
  const lost = [...data.map((piece, index) => (index < 3 ? undefined : piece)), ...code.encode(data)]
  const restoring = await timed(9, () => code.restore(lost))
  const copying = await timed(9, () => data.forEach((piece, index) => target[index]?.set(piece)))
  const megabytes = (8 * (1 << 20)) / 1e6
  const rate = ({ median, best }: Timed): Timed => ({
    median: (megabytes / median) * 1000,
    best: (megabytes / best) * 1000,
  })
  return { encoded: rate(milliseconds), restored: rate(restoring), copied: rate(copying) }
}

function largeRow(): Estate {
  const numbers = Array.from({ length: nodes }, (_, index) => index + 100)
  const answers = numbers.flatMap(from =>
    numbers
      .filter(to => to !== from)
      .map(to => ({ fromNodeId: sampleId(from), toNodeId: sampleId(to), passedMtu: 9000, why: null })),
  )
  return {
    ...emptyEstate,
    systems: [sampleSystem()],
    nodes: numbers.map(number => sampleNode(number, { mostCapacityDrives: 11 })),
    nodePorts: numbers.map(number => sampleNodePort(number)),
    switches: [sampleSwitch()],
    switchPorts: numbers.map(number => sampleSwitchPort(number)),
    pathProbes: [{ systemId: sampleId(1), at: '2026-05-04T10:00:00Z', wantedMtu: 9000, answers }],
    drives: numbers.flatMap(number =>
      Array.from({ length: drivesOfNode }, (_, bay) =>
        sampleDrive(number * 100 + bay, {
          nodeId: sampleId(number),
          bay: bay + 1,
          ...(bay < 2
            ? { media: 'SSD', driveWritesPerDay: 10, capacityBytes: 1_600_000_000_000n }
            : { media: 'HDD', protocol: 'SAS', capacityBytes: BigInt(4 + (number % 3) * 2) * 1_000_000_000_000n }),
        }),
      ),
    ),
  }
}
