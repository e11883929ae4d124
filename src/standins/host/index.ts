import Fastify, { type FastifyInstance } from 'fastify'
import Ajv from 'ajv/dist/2020.js'
import { InputOutputRefused } from '../row'
import { HostRefused, type SimulatedHost } from './SimulatedHost'

export { SimulatedHost, type HostModel } from './SimulatedHost'

const range = {
  type: 'object',
  required: ['offsetBytes', 'lengthBytes'],
  properties: {
    offsetBytes: { type: 'string', pattern: '^[0-9]{1,25}$' },
    lengthBytes: { type: 'integer' },
    seed: { type: 'string', minLength: 1, maxLength: 200 },
  },
} as const
const isRange = new Ajv().compile<{ offsetBytes: string; lengthBytes: number; seed?: string }>(range)

/** The agent that runs on a host: logs in, rescans, writes, reads and checksums. Its interface is described in the folder above. */
export function hostAgent(host: SimulatedHost): FastifyInstance {
  const server = Fastify({ forceCloseConnections: true })
  server.setErrorHandler((cause, _, reply) => {
    const isRefusal = cause instanceof HostRefused || cause instanceof InputOutputRefused
    const status = isRefusal ? cause.status : 500
    const { what = 'The agent failed.', why = String(cause), remedy = 'See its log.' } = isRefusal ? cause : {}
    return reply.code(status).send({ what, why, remedy })
  })
  server.get('/agent', () => ({
    name: host.model.name,
    operatingSystem: host.model.operatingSystem,
    initiators: host.model.initiators,
  }))
  server.post('/agent/logins', ({ body }) => {
    host.login(String((body as { target?: unknown } | null)?.target))
    return { logins: host.state.logins }
  })
  server.post('/agent/rescan', () => ({ devices: host.rescan() }))
  server.get('/agent/devices', () => ({ devices: host.state.devices }))
  server.post<{ Params: { naa: string } }>('/agent/devices/:naa/write', ({ params, body }) => {
    const { offset, length, seed } = bytes(body)
    return { sha256: host.write(params.naa, offset, length, seed) }
  })
  server.post<{ Params: { naa: string } }>('/agent/devices/:naa/read', ({ params, body }) => {
    const { offset, length } = bytes(body)
    return { sha256: host.read(params.naa, offset, length) }
  })
  server.post<{ Params: { naa: string } }>('/agent/devices/:naa/discard', ({ params, body }) => {
    const { offset, length } = bytes(body)
    host.discard(params.naa, offset, length)
    return {}
  })
  return server
}

/** The range that a request names. */
function bytes(body: unknown) {
  if (isRange(body)) return { offset: BigInt(body.offsetBytes), length: body.lengthBytes, seed: body.seed ?? '' }
  throw new HostRefused(400, {
    what: 'Nothing was done.',
    why: 'The range is not understood.',
    remedy: 'Give offsetBytes as text and lengthBytes as a number.',
  })
}
