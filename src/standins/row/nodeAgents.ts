import { createHash } from 'node:crypto'
import Fastify, { type FastifyInstance } from 'fastify'
import Ajv from 'ajv/dist/2020.js'
import { later } from '@/core/input'
import { setTimeout as pause } from 'node:timers/promises'
import type { RawDrives } from './RawDrives'
import type { SimulatedRow } from './SimulatedRow'

const ajv = new Ajv()
const compile = <T>(schema: object) => later(() => ajv.compile<T>(schema))
const isProbe = compile<{ addresses: string[]; mtu: number }>({
  type: 'object',
  required: ['addresses', 'mtu'],
  properties: {
    addresses: { type: 'array', maxItems: 1024, items: { type: 'string', maxLength: 64 } },
    mtu: { type: 'integer', minimum: 576, maximum: 65_535 },
  },
})
const isRange = compile<{ offsetBytes: string; lengthBytes: number }>({
  type: 'object',
  required: ['offsetBytes', 'lengthBytes'],
  properties: {
    offsetBytes: { type: 'string', pattern: '^[0-9]{1,20}$' },
    lengthBytes: { type: 'integer', minimum: 1, maximum: 4_194_304 },
  },
})
/** What waiting for a packet that never comes back costs. */
const lostPacketMilliseconds = 20

type Params = { readonly node: string; readonly serial: string }

/** The agents that run on the nodes, each under its node's name: they probe paths and read raw sectors. A node that is down is silent. */
export function nodeAgents(row: SimulatedRow, raw: RawDrives): FastifyInstance {
  const server = Fastify({ forceCloseConnections: true })
  const refusal = (what: string, why: string) => ({ what, why, remedy: 'Correct the request.' })
  server.addHook('onRequest', async request => {
    const node = row.all('nodes').find(each => each.id === (request.params as Partial<Params>).node)
    if (node !== undefined && !row.isAnswering(node)) request.raw.socket.destroy()
  })
  server.post<{ Params: Params }>('/:node/agent/probe', async ({ params, body }, reply) => {
    if (!isProbe(body)) return reply.code(400).send(refusal('Nothing was probed.', 'Give addresses and an MTU.'))
    const wires = row.wires()
    const answers = body.addresses.map(address => ({
      address,
      passedMtu: wires.passes(params.node, address, body.mtu),
    }))
    if (answers.some(each => each.passedMtu === null)) await pause(lostPacketMilliseconds)
    return { answers }
  })
  server.post<{ Params: Params }>('/:node/agent/drives/:serial/read', ({ params, body }, reply) => {
    const drive = row.array
      .all('drives')
      .find(each => each.serial === params.serial && each.enclosureId === params.node)
    if (drive === undefined || drive.isPulled || drive.isFailed)
      return reply.code(404).send(refusal('Nothing was read.', `No drive ${params.serial} answers here.`))
    if (!isRange(body) || BigInt(body.offsetBytes) + BigInt(body.lengthBytes) > BigInt(drive.capacityBytes))
      return reply.code(400).send(refusal('Nothing was read.', 'The range is not on the drive.'))
    const bytes = raw.read(drive, Number(body.offsetBytes), body.lengthBytes)
    return {
      sha256: createHash('sha256').update(bytes).digest('hex'),
      nonZeroBytes: bytes.reduce((sum, byte) => sum + (byte === 0 ? 0 : 1), 0),
    }
  })
  return server
}
