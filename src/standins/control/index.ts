import Fastify, { type FastifyInstance } from 'fastify'
import Ajv from 'ajv/dist/2020.js'
import { later } from '@/core/input'
import { failDrive, type SimulatedArray } from '../array'
import { fillShare, type Ways } from '../files'
import type { NameServer } from '../names/NameServer'
import type { ClusterPools, SimulatedRow } from '../row'
import { faultKinds, type FaultKind, type FleetClock, type Faults } from '../fleet'

const ajv = new Ajv()
const compile = <T>(schema: object) => later(() => ajv.compile<T>(schema))

const faultSchema = {
  type: 'object',
  required: ['target', 'kind'],
  additionalProperties: false,
  properties: {
    target: { type: 'string' },
    kind: { enum: faultKinds },
    milliseconds: { type: 'number', minimum: 0 },
    retryAfterSeconds: { type: 'number', minimum: 0 },
    atRatio: { type: 'number', minimum: 0, maximum: 1 },
    drive: { type: 'string' },
    controller: { type: 'string' },
    node: { type: 'string' },
    port: { type: 'string' },
    mtu: { type: 'integer' },
    seconds: { type: 'number' },
    name: { type: 'string' },
    address: { type: 'string' },
    times: { type: 'integer', minimum: 0 },
  },
}
interface WantedFault {
  readonly target: string
  readonly kind: FaultKind
  readonly milliseconds?: number
  readonly retryAfterSeconds?: number
  readonly atRatio?: number
  readonly drive?: string
  readonly controller?: string
  readonly node?: string
  readonly port?: string
  readonly mtu?: number
  readonly seconds?: number
  readonly name?: string
  readonly address?: string
  readonly times?: number
}
const isFault = compile<WantedFault>(faultSchema)

interface Controlled {
  readonly clock: FleetClock
  readonly faults: Faults
  readonly arrays: readonly SimulatedArray[]
  readonly row: SimulatedRow
  readonly pools: ClusterPools
  readonly names: NameServer
  readonly ways: Ways
}

/** The fleet's own control interface: its clock and its faults. Wendrel never speaks to it. */
export function fleetControl(controlled: Controlled): FastifyInstance {
  const { clock, faults, arrays } = controlled
  const server = Fastify({ forceCloseConnections: true })
  const state = () => ({
    now: new Date(clock.now()).toISOString(),
    rate: clock.rate,
    faults: faults.all(),
    arrays: arrays.map(each => each.model.name),
  })
  server.get('/fleet', state)
  fillRoutes(server, arrays, state)
  clockRoutes(server, clock, state)
  server.post('/faults', ({ body }, reply) => {
    if (!isFault(body)) return reply.code(400).send({ why: `target, and kind as one of ${faultKinds.join(', ')}` })
    const isDirectory = body.target === 'directory' && (body.kind === 'slow' || body.kind === 'not-answering')
    if (!isDirectory && !arrays.some(each => each.model.name === body.target))
      return reply.code(400).send({ why: `no system ${body.target}` })
    const missing = whatIsMissing(body, controlled)
    if (missing !== undefined) return reply.code(400).send({ why: missing })
    if (strike(body, controlled)) return state()
    return faults.inject({ milliseconds: 3000, retryAfterSeconds: 2, atRatio: 0.7, drive: '', times: 0, ...body })
  })
  server.delete<{ Params: { id: string } }>('/faults/:id', ({ params }) => {
    faults.clear(params.id === 'all' ? undefined : params.id)
    return state()
  })
  return server
}

/** What volumes and shares hold, as if hosts had written it. */
function fillRoutes(server: FastifyInstance, arrays: Controlled['arrays'], state: () => object): void {
  server.post<{ Body: { system?: unknown; volume?: unknown; bytes?: unknown } }>('/workload', ({ body }, reply) => {
    const array = arrays.find(each => each.model.name === body?.system)
    const volume = array?.all('volumes').find(each => each.name === body?.volume)
    const bytes = String(body?.bytes ?? '')
    if (array === undefined || volume === undefined || !/^\d{1,20}$/.test(bytes))
      return reply.code(400).send({ why: 'system, volume by name, and bytes as text' })
    array.store.commit([array.entry('volumes', { ...volume, workloadBytes: bytes })])
    return state()
  })
  server.post<{ Body: { system?: unknown; share?: unknown; count?: unknown } }>('/files', ({ body }, reply) => {
    const array = arrays.find(each => each.model.name === body?.system)
    if (array === undefined) return reply.code(400).send({ why: 'system, share by name, and count' })
    try {
      return { files: fillShare(array, String(body?.share), Number(body?.count)) }
    } catch (cause) {
      return reply.code(400).send({ why: cause instanceof Error ? cause.message : String(cause) })
    }
  })
}

/** The fleet's clock: how fast it goes, and steps forward. */
function clockRoutes(server: FastifyInstance, clock: FleetClock, state: () => object): void {
  server.put<{ Body: { rate?: unknown } }>('/clock', ({ body }, reply) => {
    const rate = Number(body?.rate)
    if (!(rate >= 0 && rate <= 100_000)) return reply.code(400).send({ why: 'rate is 0 to 100000' })
    clock.setRate(rate)
    return state()
  })
  server.post<{ Body: { seconds?: unknown } }>('/clock/step', ({ body }, reply) => {
    const seconds = Number(body?.seconds)
    if (!(seconds > 0)) return reply.code(400).send({ why: 'seconds is above 0: time is never set back' })
    clock.step(seconds)
    return state()
  })
}

/** Faults that happen at once and leave a state behind. @returns whether it was one */
function strike(fault: WantedFault, { arrays, row, pools, names, ways }: Controlled): boolean {
  const { kind, target, node = '', port = '', name = '', address = '' } = fault
  const [enclosure = '', bay = ''] = (fault.drive ?? '').split('/')
  const array = arrays.find(each => each.model.name === target)
  const fail = () => {
    if (array === row.array) pools.faults.fail(enclosure, Number(bay))
    else if (array !== undefined) failDrive(array, enclosure, Number(bay))
  }
  const strikes: Readonly<Partial<Record<FaultKind, () => void>>> = {
    ...(array === undefined ? {} : { 'drive-fails': fail }),
    'drive-pulled': () => pools.faults.setPulled(enclosure, Number(bay), true),
    'drive-returned': () => pools.faults.setPulled(enclosure, Number(bay), false),
    'node-down': () => row.setPower(node, false),
    'node-up': () => {
      row.setPower(node, true)
      pools.faults.nodeIsBack(node)
    },
    'port-mtu': () => row.setSwitchPort(port, { mtu: fault.mtu ?? 1500 }),
    'clock-skew': () => row.skewClock(node, fault.seconds ?? 360),
    'name-record': () => names.setForward(name, address),
    'address-record': () => names.setReverse(address, name),
    'way-barred': () => ways.setBarred(name, address, true),
    'way-open': () => ways.setBarred(name, address, false),
  }
  strikes[kind]?.()
  return strikes[kind] !== undefined
}

/** What a fault names that is not there; undefined where all is. */
function whatIsMissing(
  { target, kind, drive, node, port }: WantedFault,
  { arrays, row }: Controlled,
): string | undefined {
  const array = arrays.find(each => each.model.name === target)
  if (kind.startsWith('drive-')) {
    const isThere = array?.all('drives').some(each => `${each.enclosureId}/${each.bay}` === drive)
    return isThere === true ? undefined : `no drive ${drive ?? ''} in ${target}; drive is enclosure/bay`
  }
  if (kind === 'node-down' || kind === 'node-up' || kind === 'clock-skew')
    return row.all('nodes').some(each => each.id === node) ? undefined : `no node ${node ?? ''} in ${target}`
  if (kind === 'port-mtu')
    return row.all('switchPorts').some(each => each.id === port) ? undefined : `no port ${port ?? ''} in ${target}`
  return undefined
}
