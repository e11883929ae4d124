import { join } from 'node:path'
import type { FastifyInstance } from 'fastify'
import { BlockStore, extentBytes, SimulatedArray, work } from './array'
import { fleetControl } from './control'
import { bittern, heron, hostModels } from './demo/models'
import { seedBittern, seedHeron } from './demo/seedFleet'
import { Faults, FleetClock, Store } from './fleet'
import { hostAgent, SimulatedHost } from './host'
import { redfishService } from './redfish'

/** Where each stand-in listens, on loopback; 0 lets the system choose. */
export interface FleetPorts {
  readonly control: number
  readonly arrays: Readonly<Record<string, number>>
  readonly hosts: Readonly<Record<string, number>>
}

export interface Fleet {
  readonly ports: FleetPorts
  readonly clock: FleetClock
  readonly faults: Faults
  readonly arrays: readonly SimulatedArray[]
  stop(): Promise<void>
}

const tickMilliseconds = 250
const snapshotMilliseconds = 60_000

/** Starts the fleet from its folder, or from its seed where the folder is new. */
export async function startFleet(folder: string, ports: FleetPorts, firstRate: number): Promise<Fleet> {
  const store = new Store(folder)
  const clock = new FleetClock(store, firstRate)
  const faults = new Faults()
  const arrays = [heron, bittern].map(
    model =>
      new SimulatedArray(
        model,
        store,
        clock,
        faults,
        new BlockStore(join(folder, 'blocks', model.name), Number(extentBytes)),
      ),
  )
  for (const array of arrays) {
    if (store.count(`${array.model.name}/drives`) === 0) (array.model === heron ? seedHeron : seedBittern)(array)
  }
  const hosts = hostModels.map(model => new SimulatedHost(model, store, arrays))
  const servers: FastifyInstance[] = []
  const listen = async (server: FastifyInstance, port: number) => {
    servers.push(server)
    await server.listen({ host: '127.0.0.1', port })
    const address = server.server.address()
    return typeof address === 'object' && address !== null ? address.port : port
  }
  const control = await listen(fleetControl(clock, faults, arrays), ports.control)
  const arrayPorts: Record<string, number> = {}
  for (const array of arrays)
    arrayPorts[array.model.name] = await listen(redfishService(array), ports.arrays[array.model.name] ?? 0)
  const hostPorts: Record<string, number> = {}
  for (const host of hosts)
    hostPorts[host.model.name] = await listen(hostAgent(host), ports.hosts[host.model.name] ?? 0)

  let last = clock.now()
  const ticking = setInterval(() => {
    const now = clock.now()
    const seconds = (now - last) / 1000
    last = now
    if (seconds > 0) arrays.forEach(array => work(array, seconds))
  }, tickMilliseconds)
  const snapshots = setInterval(() => store.snapshot(), snapshotMilliseconds)
  return {
    ports: { control, arrays: arrayPorts, hosts: hostPorts },
    clock,
    faults,
    arrays,
    async stop() {
      clearInterval(ticking)
      clearInterval(snapshots)
      await Promise.all(servers.map(server => server.close()))
      store.snapshot()
    },
  }
}
