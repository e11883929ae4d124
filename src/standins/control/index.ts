import Fastify, { type FastifyInstance } from 'fastify'
import Ajv from 'ajv/dist/2020.js'
import { failDrive, type SimulatedArray } from '../array'
import { faultKinds, type FaultKind, type FleetClock, type Faults } from '../fleet'

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
  readonly times?: number
}
const isFault = new Ajv().compile<WantedFault>(faultSchema)

/** The fleet's own control interface: its clock and its faults. Wendrel never speaks to it. */
export function fleetControl(clock: FleetClock, faults: Faults, arrays: readonly SimulatedArray[]): FastifyInstance {
  const server = Fastify({ forceCloseConnections: true })
  const state = () => ({
    now: new Date(clock.now()).toISOString(),
    rate: clock.rate,
    faults: faults.all(),
    arrays: arrays.map(each => each.model.name),
  })
  server.get('/fleet', state)
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
  server.post('/faults', ({ body }, reply) => {
    if (!isFault(body)) return reply.code(400).send({ why: `target, and kind as one of ${faultKinds.join(', ')}` })
    const array = arrays.find(each => each.model.name === body.target)
    if (body.kind === 'drive-fails') {
      const [enclosure = '', bay = ''] = (body.drive ?? '').split('/')
      if (array === undefined) return reply.code(400).send({ why: `no array ${body.target}` })
      failDrive(array, enclosure, Number(bay))
      return state()
    }
    return faults.inject({ milliseconds: 3000, retryAfterSeconds: 2, atRatio: 0.7, drive: '', times: 0, ...body })
  })
  server.delete<{ Params: { id: string } }>('/faults/:id', ({ params }) => {
    faults.clear(params.id === 'all' ? undefined : params.id)
    return state()
  })
  return server
}
