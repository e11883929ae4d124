import { setTimeout as pause } from 'node:timers/promises'
import Fastify, { type FastifyInstance } from 'fastify'
import Ajv from 'ajv/dist/2020.js'
import { later } from '@/core/input'
import { InputOutputRefused } from '../row'
import { HostRefused, refuse } from './HostRefused'
import { shareRoutes } from './shareRoutes'
import type { ShownSecrets } from './hostState'
import type { SimulatedHost } from './SimulatedHost'

const ajv = new Ajv()
const compile = <T>(schema: object) => later(() => ajv.compile<T>(schema))

export type { HostModel } from './hostState'
export { SimulatedHost } from './SimulatedHost'

const range = {
  type: 'object',
  required: ['offsetBytes', 'lengthBytes'],
  properties: {
    offsetBytes: { type: 'string', pattern: '^[0-9]{1,25}$' },
    lengthBytes: { type: 'integer' },
    seed: { type: 'string', minLength: 1, maxLength: 200 },
  },
} as const
const isRange = compile<{ offsetBytes: string; lengthBytes: number; seed?: string }>(range)

const isFast = compile<{ seconds: number; bytesEach: number }>({
  type: 'object',
  required: ['seconds', 'bytesEach'],
  properties: {
    seconds: { type: 'number', minimum: 1, maximum: 30 },
    bytesEach: { type: 'integer', minimum: 512, maximum: 16_777_216 },
  },
})

const isSignIn = compile<{ target?: string; secrets: ShownSecrets | null }>({
  type: 'object',
  required: ['secrets'],
  properties: {
    target: { type: 'string', maxLength: 255 },
    secrets: {
      type: ['object', 'null'],
      required: ['secret', 'systemSecret'],
      properties: {
        secret: { type: 'string', maxLength: 64 },
        systemSecret: { type: ['string', 'null'], maxLength: 64 },
      },
    },
  },
})
function secretsIn(body: unknown) {
  if (isSignIn(body)) return body
  throw refuse(400, 'Nothing was done.', 'The secrets are not understood.', 'Ask as the interface says.')
}

/** The agent that runs on a host: logs in, rescans, writes, reads and checksums. Its interface is described in the folder above. */
export function hostAgent(host: SimulatedHost): FastifyInstance {
  const server = Fastify({ forceCloseConnections: true })
  server.setErrorHandler((cause, _, reply) => {
    const isRefusal = cause instanceof HostRefused || cause instanceof InputOutputRefused
    const status = isRefusal ? cause.status : 500
    const { what = 'The agent failed.', why = String(cause), remedy = 'See its log.' } = isRefusal ? cause : {}
    return reply.code(status).send({ what, why, remedy })
  })
  guard(server, host)
  server.get('/agent', () => ({
    name: host.model.name,
    operatingSystem: host.model.operatingSystem,
    initiators: host.model.initiators,
    addresses: host.model.addresses,
  }))
  signInRoutes(server, host)
  deviceRoutes(server, host)
  fileRoutes(server, host)
  shareRoutes(server, host)
  return server
}

/** Who may ask it, and when. */
function guard(server: FastifyInstance, host: SimulatedHost): void {
  // A host that is starting answers nothing.
  server.addHook('onRequest', (request, _reply, done) => {
    if (host.isStarting) request.raw.destroy()
    else done()
  })
  server.addHook('onRequest', (request, _reply, done) => {
    const { credential } = host
    const isKnown = credential === undefined || request.headers.authorization === `Bearer ${credential}`
    done(
      isKnown
        ? undefined
        : refuse(401, 'The agent did nothing.', 'It does not know who asks.', 'Show the credential that it was given.'),
    )
  })
  server.post('/agent/credential', ({ body }) => {
    const { credential } = (body ?? {}) as { credential?: unknown }
    if (typeof credential !== 'string' || credential.length < 12)
      throw refuse(400, 'No credential was set.', 'It has fewer than 12 characters.', 'Choose a longer one.')
    host.setCredential(credential)
    return {}
  })
}

/** How it signs in to systems. */
function signInRoutes(server: FastifyInstance, host: SimulatedHost): void {
  server.post('/agent/logins', ({ body }) => {
    host.login(String((body as { target?: unknown } | null)?.target))
    return { logins: host.state.logins }
  })
  server.post('/agent/sign-in', ({ body }) => {
    host.setSignIn(secretsIn(body).secrets)
    return {}
  })
  server.post('/agent/logins/try', ({ body }) => {
    const { target = '', secrets } = secretsIn(body)
    const why = host.tryLogin(target, secrets)
    return why === undefined ? { isLetIn: true } : { isLetIn: false, why }
  })
}

interface OfDevice {
  readonly Params: { readonly naa: string }
}

/** The devices that it sees, and what is read from them and written to them. */
function deviceRoutes(server: FastifyInstance, host: SimulatedHost): void {
  server.post('/agent/rescan', () => ({ devices: host.rescan().map(each => host.withWays(each)) }))
  server.get('/agent/devices', () => ({ devices: host.state.devices.map(each => host.withWays(each)) }))
  server.post<OfDevice>('/agent/devices/:naa/write', ({ params, body }) => {
    const { offset, length, seed } = bytes(body)
    return { sha256: host.write(params.naa, offset, length, seed) }
  })
  server.post<OfDevice>('/agent/devices/:naa/read', ({ params, body }) => {
    const { offset, length } = bytes(body)
    return { sha256: host.read(params.naa, offset, length) }
  })
  server.post<OfDevice>('/agent/devices/:naa/discard', ({ params, body }) => {
    const { offset, length } = bytes(body)
    host.discard(params.naa, offset, length)
    return {}
  })
  server.post<OfDevice>('/agent/devices/:naa/read-fast', async ({ params, body }) => {
    if (!isFast(body))
      throw refuse(400, 'Nothing was read.', 'The request is not understood.', 'Ask for 1 to 30 seconds.')
    const { requestsPerSecond, rate } = host.readFast(params.naa, body.bytesEach)
    // Its time goes by the fleet's clock; one that stands still is not waited for.
    await pause(rate === 0 ? 0 : (body.seconds * 1000) / rate)
    return { requests: Math.floor(requestsPerSecond * body.seconds), seconds: body.seconds }
  })
}

/** Routes for file systems, files and restarts; the body of each is checked by the one schema of all their parts. */
function fileRoutes(server: FastifyInstance, host: SimulatedHost): void {
  server.get('/agent/file-systems', () => ({ fileSystems: host.files.fileSystems() }))
  server.post<{ Params: { naa: string } }>('/agent/devices/:naa/format', ({ params, body }) => {
    const { fileSystem, label } = asked(body)
    host.files.format(params.naa, fileSystem, label)
    return {}
  })
  server.post('/agent/mounts', ({ body }) => {
    const { naa, path, isReadOnly } = asked(body)
    host.files.mount(naa, path, isReadOnly)
    return {}
  })
  server.post('/agent/mounts/remove', ({ body }) => {
    host.files.unmount(asked(body).path)
    host.shares.unmount(asked(body).path)
    return {}
  })
  server.post('/agent/mounts/grow', ({ body }) => ({ sizeBytes: `${host.files.grow(asked(body).path)}` }))
  server.post('/agent/files/write', ({ body }) => {
    const { path, lengthBytes, seed } = asked(body)
    return { sha256: host.files.writeFile(path, lengthBytes, seed) }
  })
  server.post('/agent/files/read', ({ body }) => ({ sha256: host.files.readFile(asked(body).path) }))
  server.post('/agent/files/copy', ({ body }) => {
    const { path, to } = asked(body)
    return { sha256: host.files.copyFile(path, to) }
  })
  server.post('/agent/files/remove', ({ body }) => {
    host.files.removeFile(asked(body).path)
    return {}
  })
  server.get('/agent/boot', () => ({ bootId: host.bootId }))
  server.post('/agent/reboot', (_, reply) => {
    reply.raw.once('finish', () => host.reboot())
    return {}
  })
}

const path = { type: 'string', pattern: '^/[A-Za-z0-9._/-]{1,200}$' } as const
const isAsked = compile<{
  naa?: string
  path?: string
  to?: string
  isReadOnly?: boolean
  fileSystem?: 'xfs' | 'ext4'
  label?: string
  lengthBytes?: number
  seed?: string
}>({
  type: 'object',
  properties: {
    naa: { type: 'string', maxLength: 64 },
    path,
    to: path,
    isReadOnly: { type: 'boolean' },
    fileSystem: { enum: ['xfs', 'ext4'] },
    label: { type: 'string', maxLength: 12 },
    lengthBytes: { type: 'integer' },
    seed: { type: 'string', maxLength: 200 },
  },
})

const nothingAsked = {
  naa: '',
  path: '',
  to: '',
  isReadOnly: false,
  fileSystem: 'xfs' as const,
  label: '',
  lengthBytes: 0,
  seed: '',
}

/** The parts of a request that are about files; what is missing is empty, and refused by what needs it. */
function asked(body: unknown) {
  if (isAsked(body)) return { ...nothingAsked, ...body }
  throw new HostRefused(400, {
    what: 'Nothing was done.',
    why: 'The request is not understood: paths are absolute, of letters, digits, dots, hyphens and underscores.',
    remedy: 'Ask as the interface says.',
  })
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
