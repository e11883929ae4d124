import Ajv from 'ajv/dist/2020.js'
import { later } from '@/core/input'
import type { Attempt, Connected, HostShares, ListedPage } from '@/ports'
import { HostRefused } from './errors'
import type { Asked } from './ask'

const ajv = new Ajv()
const compile = <T>(schema: object) => later(() => ajv.compile<T>(schema))
const text = { type: 'string', maxLength: 4096 }
const isSum = compile<{ sha256: string }>({
  type: 'object',
  required: ['sha256'],
  properties: { sha256: { type: 'string', pattern: '^[0-9a-f]{64}$' } },
})
const isConnected = compile<Connected>({
  type: 'object',
  required: ['address', 'isOpen', 'milliseconds'],
  properties: {
    address: { type: ['string', 'null'], maxLength: 64 },
    isOpen: { type: 'boolean' },
    milliseconds: { type: 'number', minimum: 0 },
    lookupMilliseconds: { type: 'number', minimum: 0 },
  },
})
const isMounted = compile<{ shares: { server: string; share: string; path: string; isMounted: boolean }[] }>({
  type: 'object',
  required: ['shares'],
  properties: {
    shares: {
      type: 'array',
      maxItems: 4096,
      items: {
        type: 'object',
        required: ['server', 'share', 'path', 'isMounted'],
        properties: { server: text, share: text, path: text, isMounted: { type: 'boolean' } },
      },
    },
  },
})
const whole = { type: 'integer', minimum: 0, maximum: 4_294_967_295 }
const isListed = compile<ListedPage>({
  type: 'object',
  required: ['files', 'isLast'],
  properties: {
    isLast: { type: 'boolean' },
    files: {
      type: 'array',
      maxItems: 5000,
      items: {
        type: 'object',
        required: ['path', 'uid', 'gid', 'bytes', 'modifiedAt', 'head'],
        properties: {
          path: { type: 'string', minLength: 1, maxLength: 4096 },
          uid: whole,
          gid: whole,
          bytes: { type: 'integer', minimum: 0, maximum: Number.MAX_SAFE_INTEGER },
          modifiedAt: { type: 'number', minimum: 0, maximum: 4_294_967_295_000 },
          head: { type: 'string', pattern: '^([0-9a-f]{2}){0,64}$' },
        },
      },
    },
  },
})
const isAnything = compile<object>({ type: 'object' })

/** What a host answers where a server let it do nothing: no fault of the host, and often just what is wanted. */
const refusedStatus = 403
/** No such share: to who would mount it the same as being refused. */
const notThere = 404

async function attempted<T>(
  act: () => Promise<T>,
  statuses: readonly number[] = [refusedStatus],
): Promise<T | { readonly refused: string }> {
  try {
    return await act()
  } catch (cause) {
    if (cause instanceof HostRefused && statuses.includes(cause.status)) return { refused: cause.why }
    throw cause
  }
}

/** What is asked of a host about shares of the network. */
export const shareRequests = (asked: Asked): HostShares => ({
  connect: server => asked('POST', '/agent/connect', isConnected, { server }),
  mounted: async () => (await asked('GET', '/agent/shares', isMounted)).shares,
  async mount(server, share, path) {
    const done = await attempted(
      () => asked('POST', '/agent/shares', isAnything, { server, share, path }),
      [refusedStatus, notThere],
    )
    return 'refused' in done ? String(done.refused) : undefined
  },
  write: (path, as, lengthBytes, seed, head = ''): Promise<Attempt> =>
    attempted(() => asked('POST', '/agent/shares/write', isSum, { path, as, lengthBytes, seed, head })),
  async reserve(path, as, bytes) {
    const body = { path, as, reserveBytes: `${bytes}` }
    const done = await attempted(() => asked('POST', '/agent/shares/reserve', isAnything, body))
    return 'refused' in done ? String(done.refused) : undefined
  },
  read: (path, as, part): Promise<Attempt> =>
    attempted(() => asked('POST', '/agent/shares/read', isSum, { path, as, ...part })),
  list: (path, as, after) =>
    attempted(
      () => asked('POST', '/agent/shares/list', isListed, { path, as, after, limit: 1000 }),
      [refusedStatus, notThere],
    ),
  remove: async (path, as) => void (await asked('POST', '/agent/shares/remove', isAnything, { path, as })),
})
