import Ajv from 'ajv/dist/2020.js'
import { later } from '@/core/input'
import type { FastifyInstance } from 'fastify'
import type { Who } from '../files'
import { HostRefused } from './HostRefused'
import type { SimulatedHost } from './SimulatedHost'

const ajv = new Ajv()
const compile = <T>(schema: object) => later(() => ajv.compile<T>(schema))

/** Names of files hold whatever their makers have put there. */
const path = { type: 'string', pattern: '^/[^\\u0000]{1,4096}$' } as const
const exported = { type: 'string', pattern: '^//?[A-Za-z0-9._/-]{1,200}$' } as const
const number = { type: 'integer', minimum: 0, maximum: 4_294_967_294 } as const
const as = {
  oneOf: [
    {
      type: 'object',
      required: ['uid', 'gid', 'groups'],
      properties: { uid: number, gid: number, groups: { type: 'array', maxItems: 64, items: number } },
    },
    {
      type: 'object',
      required: ['account'],
      additionalProperties: false,
      properties: { account: { type: 'string', minLength: 1, maxLength: 255 } },
    },
  ],
} as const
interface Asked {
  readonly server?: string
  readonly share?: string
  readonly domain?: string
  readonly forward?: string
  readonly path?: string
  readonly lengthBytes?: number
  readonly offsetBytes?: number
  readonly seed?: string
  readonly head?: string
  readonly reserveBytes?: string
  readonly as?: Who
  readonly after?: string
  readonly limit?: number
}
const isAsked = compile<Asked>({
  type: 'object',
  properties: {
    server: { type: 'string', minLength: 1, maxLength: 253 },
    share: exported,
    domain: { type: 'string', pattern: '^[a-z0-9]([a-z0-9.-]{0,250}[a-z0-9])?$' },
    forward: { type: 'string', pattern: '^([0-9a-fA-F.:\\[\\]]{3,64})?$' },
    path,
    lengthBytes: { type: 'integer', minimum: 1, maximum: 67_108_864 },
    offsetBytes: { type: 'integer', minimum: 0, maximum: Number.MAX_SAFE_INTEGER },
    seed: { type: 'string', maxLength: 200 },
    head: { type: 'string', pattern: '^([0-9a-f]{2}){0,64}$' },
    reserveBytes: { type: 'string', pattern: '^[0-9]{1,16}$' },
    as,
    after: { type: 'string', maxLength: 4096 },
    limit: { type: 'integer', minimum: 1, maximum: 5000 },
  },
})

function asked(body: unknown): Required<Asked> {
  if (isAsked(body))
    return {
      server: '',
      share: '',
      domain: '',
      forward: '',
      path: '',
      lengthBytes: 1,
      // Below zero: all of it.
      offsetBytes: -1,
      seed: '',
      head: '',
      reserveBytes: '0',
      as: { uid: 0, gid: 0, groups: [] },
      after: '',
      limit: 1000,
      ...body,
    }
  throw new HostRefused(400, {
    what: 'Nothing was done.',
    why: 'The request is not understood: paths are absolute, ids are whole numbers.',
    remedy: 'Ask as the interface says.',
  })
}

/** Routes for shares of the network, and for what somebody on the host may do with them. */
export function shareRoutes(server: FastifyInstance, host: SimulatedHost): void {
  server.get('/agent/shares', () => ({ shares: host.shares.all() }))
  server.post('/agent/connect', ({ body }) => {
    const began = performance.now()
    return { ...host.shares.connect(asked(body).server), milliseconds: performance.now() - began }
  })
  server.post('/agent/way', ({ body }) => host.shares.way(asked(body).server))
  server.get('/agent/resolver', () => host.shares.resolver)
  server.post('/agent/resolver', ({ body }) => {
    const { domain, forward } = asked(body)
    host.shares.setForward(domain, forward)
    return host.shares.resolver
  })
  server.post('/agent/shares/try', ({ body }) => {
    const wanted = asked(body)
    return host.shares.try(wanted.server, wanted.share, wanted.as)
  })
  server.post('/agent/shares', ({ body }) => {
    const wanted = asked(body)
    host.shares.mount(wanted.server, wanted.share, wanted.path)
    return {}
  })
  sharedFileRoutes(server, host)
}

/** Routes for what somebody does with the files of a share that is mounted. */
function sharedFileRoutes(server: FastifyInstance, host: SimulatedHost): void {
  server.post('/agent/shares/write', ({ body }) => {
    const wanted = asked(body)
    return {
      sha256: host.shares.write(wanted.path, wanted.as, {
        length: wanted.lengthBytes,
        seed: wanted.seed,
        head: wanted.head,
      }),
    }
  })
  server.post('/agent/shares/reserve', ({ body }) => {
    const wanted = asked(body)
    host.shares.write(wanted.path, wanted.as, { length: Number(wanted.reserveBytes), seed: null, head: '' })
    return {}
  })
  server.post('/agent/shares/read', ({ body }) => {
    const wanted = asked(body)
    const part = { offset: wanted.offsetBytes, length: wanted.lengthBytes }
    return { sha256: host.shares.read(wanted.path, wanted.as, wanted.offsetBytes < 0 ? undefined : part) }
  })
  server.post('/agent/shares/list', ({ body }) => {
    const { path: at, as: who, after, limit } = asked(body)
    return host.shares.list(at, who, after, limit)
  })
  server.post('/agent/shares/remove', ({ body }) => {
    const wanted = asked(body)
    host.shares.remove(wanted.path, wanted.as)
    return {}
  })
}
