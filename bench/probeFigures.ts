import { mkdtempSync, rmSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { probePaths } from '@/changes'
import { nodeAgent } from '@/connectors/node'
import { sampleId, sampleNode, sampleNodePort } from '@/core/estate/testing/samples'
import { BlockStore, SimulatedArray } from '@/standins/array'
import { Faults, FleetClock, Store } from '@/standins/fleet'
import { godwit } from '@/standins/demo/models'
import { nodeAgents, RawDrives, SimulatedRow } from '@/standins/row'
import { timed, under, type Figure } from './measure'

const nodes = 64

/** The probe matrix of a large row, through real agents over HTTP: every pair, a few of them failing. */
export async function probeFigures(): Promise<Figure[]> {
  const folder = mkdtempSync(join(tmpdir(), 'wendrel-bench-row-'))
  const store = new Store(folder)
  const array = new SimulatedArray(
    godwit,
    store,
    new FleetClock(store, 1),
    new Faults(),
    new BlockStore(folder, 1 << 20),
  )
  const row = new SimulatedRow(array, () => '')
  store.commit([
    row.entry('switches', { id: 's', name: 'switch', model: 'm', firmware: '1' }),
    ...Array.from({ length: nodes }, (_, number) => [
      row.entry('nodes', {
        id: `n${number}`,
        hostName: '',
        rack: '',
        serial: '',
        model: '',
        firmware: '',
        isUp: true,
        downSince: null,
        restartingUntil: null,
        clockOffsetSeconds: 0,
        isRestartServiceOn: false,
        mostCapacityDrives: 7,
      }),
      row.entry('switchPorts', {
        id: `s.${number}`,
        switchId: 's',
        name: `${number}`,
        mtu: number === 9 ? 1500 : 9216,
        vlans: [30],
        isUp: true,
        peerPortId: null,
      }),
      row.entry('nodePorts', {
        id: `p${number}`,
        nodeId: `n${number}`,
        name: 'port 1',
        mac: '',
        speedGbps: 25,
        isUp: true,
        mtu: 9000,
        traffic: [],
        switchPortId: `s.${number}`,
        hasReservation: false,
        storage: {
          family: 'IPv4' as const,
          address: `10.20.30.${10 + number}`,
          prefixLength: 24,
          origin: 'static' as const,
          isReserved: false,
          vlan: 30,
        },
      }),
    ]).flat(),
  ])
  const server = nodeAgents(row, new RawDrives(join(folder, 'sectors')))
  await server.listen({ host: '127.0.0.1', port: 0 })
  const address = server.server.address()
  const port = typeof address === 'object' && address !== null ? address.port : 0
  const own = Array.from({ length: nodes }, (_, number) =>
    sampleNode(number + 1, { agentAddress: `http://127.0.0.1:${port}/n${number}` }),
  )
  const ports = own.map((node, number) => ({
    ...sampleNodePort(number + 1),
    nodeId: node.id,
    storage: {
      family: 'IPv4' as const,
      address: `10.20.30.${10 + number}`,
      prefixLength: 24,
      origin: 'static' as const,
      isReserved: false,
      vlan: 30,
    },
  }))
  const stop = new AbortController()
  let pairs = 0
  const taken = await timed(3, async () => {
    const probe = await probePaths(sampleId(1), own, ports, async agent => nodeAgent(agent, stop.signal), new Date())
    pairs = probe.answers.length
  })
  await server.close()
  rmSync(folder, { recursive: true, force: true })
  if (pairs !== nodes * (nodes - 1)) throw new Error(`Only ${pairs} paths were probed.`)
  return [under(`Probe matrix of ${nodes} nodes, ${pairs.toLocaleString('en')} paths, one port too small`, taken, 2000)]
}
