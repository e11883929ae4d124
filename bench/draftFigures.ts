import { randomBytes } from 'node:crypto'
import type { Sequelize } from 'sequelize'
import { within } from '@/core/estate'
import type { Inventory } from '@/ports'
import { loadEstate } from '@/records'
import { keepPathProbe, nextReading, storeInventory } from '@/records/inventory'
import { enrolled, sampleDriveFound, sampleInventory } from '@/records/testing'
import { inWords, timesOf, type Figure } from './measure'
import type { Headers } from './webProcess'

const nodes = 64
const drivesOfNode = 24
const turns = 15
const numbers = Array.from({ length: nodes }, (_, index) => index + 1)

/** A cluster of 64 nodes being drafted: from a request that alters it to the whole answer, with all that is read and kept for it. */
export async function draftFigure(address: string, headers: Headers, database: Sequelize): Promise<Figure> {
  const scope = { database }
  const { systemId } = await enrolled(scope, randomBytes(32), 'row')
  await storeInventory(database, systemId, row(), await nextReading(scope))
  const estate = await loadEstate(scope, within(systemId), '')
  const ids = estate.nodes.map(({ id }) => id)
  const answers = ids.flatMap(fromNodeId =>
    ids.flatMap(toNodeId => (fromNodeId === toNodeId ? [] : [{ fromNodeId, toNodeId, passedMtu: 9000, why: null }])),
  )
  await keepPathProbe(scope, { systemId, at: new Date().toISOString(), wantedMtu: 9000, answers })
  const intent = {
    ...{ systemId, name: 'wide', driveIds: estate.drives.filter(each => !each.isBoot).map(({ id }) => id), roles: {} },
    ...{ domain: 'node', scheme: { kind: 'erasure', dataPieces: 8, parityPieces: 3 } },
    ...{ keepsRebuildReserve: true, snapshotSharePercent: 10 },
  }
  const ask = async (method: string, path: string, body: object) => {
    const answer = await fetch(`${address}/api/v1${path}`, {
      method,
      headers: { ...headers, 'Content-Type': 'application/json' },
      body: JSON.stringify(body),
    })
    if (!answer.ok) throw new Error(`${method} ${path}: ${answer.status} ${await answer.text()}`)
    return (await answer.json()) as { readonly id: string; readonly edit: number }
  }
  let draft = await ask('POST', '/changes', { kind: 'form-cluster', intent })
  const taken: number[] = []
  for (let turn = 0; turn < turns; turn += 1) {
    const at = performance.now()
    const altered = { ...intent, snapshotSharePercent: 5 + (turn % 5) }
    draft = await ask('PUT', `/changes/${draft.id}`, { intent: altered, edit: draft.edit })
    taken.push(performance.now() - at)
  }
  const { median, best } = timesOf(taken)
  return {
    what: `Draft of a cluster of ${nodes} nodes × ${drivesOfNode} drives altered, from request to answer`,
    measured: inWords(median),
    wanted: 'under 100 ms',
    holds: best < 100,
  }
}

export function row(): Inventory {
  return sampleInventory({
    pools: [],
    volumes: [],
    drives: numbers.flatMap(number =>
      Array.from({ length: drivesOfNode }, (_, bay) =>
        sampleDriveFound(bay + 1, {
          ...{
            locator: `/d/${number}/${bay}`,
            nodeLocator: `/n/${number}`,
            serial: `W${number}-${bay}`,
            poolLocator: null,
          },
          ...{ role: 'unassigned' as const, groupIndex: null, driveWritesPerDay: bay < 2 ? 10 : null },
          ...(bay < 2
            ? { capacityBytes: 1_600_000_000_000n }
            : {
                media: 'HDD' as const,
                protocol: 'SAS' as const,
                capacityBytes: BigInt(4 + (number % 3) * 2) * 10n ** 12n,
              }),
        }),
      ),
    ),
    nodes: numbers.map(number => ({
      ...{
        locator: `/n/${number}`,
        enclosureLocator: '/e',
        name: `wide-${number}`,
        hostName: null,
        rack: `K${number % 8}`,
      },
      ...{
        state: 'fine' as const,
        firmware: '2.4.1',
        model: 'M-210',
        clockOffsetSeconds: 0.1,
        isRestartServiceOn: true,
      },
      ...{ mostCapacityDrives: 11, memoryBytes: 2 ** 37, agentAddress: null },
    })),
    nodePorts: numbers.map(number => ({
      ...{ locator: `/np/${number}`, nodeLocator: `/n/${number}`, name: 'port 1', mac: `02:00:00:00:00:${number}` },
      ...{ speedBitsPerSecond: 25e9, isUp: true, mtu: 9000, traffic: [], switchPortLocator: `/sp/${number}` },
      storage: {
        ...{ family: 'IPv4' as const, address: `10.20.30.${number}`, prefixLength: 24, origin: 'static' as const },
        ...{ isReserved: false, vlan: 30 },
      },
    })),
    switches: [{ locator: '/s/1', name: 'switch 1', model: null, firmware: null }],
    switchPorts: numbers.map(number => ({
      ...{ locator: `/sp/${number}`, switchLocator: '/s/1', name: `${number}`, mtu: 9216, vlans: [1, 30], isUp: true },
      peerPortLocator: null,
    })),
  })
}
