import Ajv from 'ajv/dist/2020.js'
import { later } from '@/core/input'
import { fileSystems, type FileSystem, type Host } from '@/ports'
import { ask, type Asked } from './ask'
import { HostRefused } from './errors'
import { networkRequests } from './network'
import { shareRequests } from './shares'

const ajv = new Ajv()
const compile = <T>(schema: object) => later(() => ajv.compile<T>(schema))
const text = { type: 'string', maxLength: 4096 }
const isIdentity = compile<{ name: string; operatingSystem: string; initiators: string[]; addresses?: string[] }>({
  type: 'object',
  required: ['name', 'operatingSystem', 'initiators'],
  properties: {
    name: { ...text, minLength: 1 },
    operatingSystem: text,
    initiators: { type: 'array', maxItems: 64, items: text },
    addresses: { type: 'array', maxItems: 64, items: { type: 'string', maxLength: 64 } },
  },
})
const isDevices = compile<{
  devices: {
    naa: string
    sizeBytes: string
    lun: number
    path: string
    paths?: { target: string; isUp: boolean }[]
  }[]
}>({
  type: 'object',
  required: ['devices'],
  properties: {
    devices: {
      type: 'array',
      items: {
        type: 'object',
        required: ['naa', 'sizeBytes', 'lun', 'path'],
        properties: {
          naa: text,
          sizeBytes: { type: 'string', pattern: '^[0-9]{1,25}$' },
          lun: { type: 'integer', minimum: 0, maximum: 2_147_483_647 },
          path: text,
          paths: {
            type: 'array',
            maxItems: 256,
            items: {
              type: 'object',
              required: ['target', 'isUp'],
              properties: { target: text, isUp: { type: 'boolean' } },
            },
          },
        },
      },
    },
  },
})
const isSum = compile<{ sha256: string }>({
  type: 'object',
  required: ['sha256'],
  properties: { sha256: { type: 'string', pattern: '^[0-9a-f]{64}$' } },
})
const isFileSystems = compile<{
  fileSystems: {
    naa: string
    fileSystem: FileSystem
    uuid: string
    sizeBytes: string
    usedBytes: string
    mountedAt: string | null
    mountsAt: string | null
  }[]
}>({
  type: 'object',
  required: ['fileSystems'],
  properties: {
    fileSystems: {
      type: 'array',
      maxItems: 4096,
      items: {
        type: 'object',
        required: ['naa', 'fileSystem', 'uuid', 'sizeBytes', 'usedBytes', 'mountedAt', 'mountsAt'],
        properties: {
          naa: text,
          fileSystem: { enum: [...fileSystems] },
          uuid: text,
          sizeBytes: { type: 'string', pattern: '^[0-9]{1,25}$' },
          usedBytes: { type: 'string', pattern: '^[0-9]{1,25}$' },
          mountedAt: { type: ['string', 'null'], maxLength: 4096 },
          mountsAt: { type: ['string', 'null'], maxLength: 4096 },
        },
      },
    },
  },
})
const isSize = compile<{ sizeBytes: string }>({
  type: 'object',
  required: ['sizeBytes'],
  properties: { sizeBytes: { type: 'string', pattern: '^[0-9]{1,25}$' } },
})
const isFast = compile<{ requests: number; seconds: number }>({
  type: 'object',
  required: ['requests', 'seconds'],
  properties: { requests: { type: 'integer', minimum: 0 }, seconds: { type: 'number', exclusiveMinimum: 0 } },
})
const isTried = compile<{ isLetIn: boolean; why?: string }>({
  type: 'object',
  required: ['isLetIn'],
  properties: { isLetIn: { type: 'boolean' }, why: text },
})
const isBoot = compile<{ bootId: string }>({ type: 'object', required: ['bootId'], properties: { bootId: text } })
const isAnything = compile<object>({ type: 'object' })
export { ask, HostRefused }

const notThere = 404
type FileRequests =
  | 'fileSystems'
  | 'format'
  | 'mount'
  | 'unmount'
  | 'grow'
  | 'writeFile'
  | 'readFile'
  | 'copyFile'
  | 'removeFile'

/** What is asked of a host about its file systems and the files in them. */
const fileRequests = (asked: Asked): Pick<Host, FileRequests> => ({
  fileSystems: async () =>
    (await asked('GET', '/agent/file-systems', isFileSystems)).fileSystems.map(each => ({
      ...each,
      sizeBytes: BigInt(each.sizeBytes),
      usedBytes: BigInt(each.usedBytes),
    })),
  format: async (naa, fileSystem, label) =>
    void (await asked('POST', `/agent/devices/${encodeURIComponent(naa)}/format`, isAnything, { fileSystem, label })),
  mount: async (naa, path, isReadOnly = false) =>
    void (await asked('POST', '/agent/mounts', isAnything, { naa, path, isReadOnly })),
  unmount: async path => void (await asked('POST', '/agent/mounts/remove', isAnything, { path })),
  grow: async path => BigInt((await asked('POST', '/agent/mounts/grow', isSize, { path })).sizeBytes),
  writeFile: async (path, lengthBytes, seed) =>
    (await asked('POST', '/agent/files/write', isSum, { path, lengthBytes, seed })).sha256,
  readFile: async path => {
    try {
      return (await asked('POST', '/agent/files/read', isSum, { path })).sha256
    } catch (cause) {
      if (cause instanceof HostRefused && cause.status === notThere) return undefined
      throw cause
    }
  },
  copyFile: async (from, to) => (await asked('POST', '/agent/files/copy', isSum, { path: from, to })).sha256,
  removeFile: async path => void (await asked('POST', '/agent/files/remove', isAnything, { path })),
})

const sized = <T extends { readonly sizeBytes: string }>(device: T) => ({
  ...device,
  sizeBytes: BigInt(device.sizeBytes),
})

/** A host through its agent's HTTP interface. */
export function hostAgent(address: string, stop: AbortSignal, allowedNetworks?: string, credential?: string): Host {
  const asked: Asked = (method, path, isAnswer, body) =>
    ask({ address, allowedNetworks, credential }, method, path, isAnswer, stop, body)
  const range = (offsetBytes: bigint, lengthBytes: number) => ({ offsetBytes: `${offsetBytes}`, lengthBytes })
  return {
    identity: () => asked('GET', '/agent', isIdentity),
    login: async target => void (await asked('POST', '/agent/logins', isAnything, { target })),
    setSignIn: async secrets => void (await asked('POST', '/agent/sign-in', isAnything, { secrets })),
    tryLogin: async (target, secrets) => {
      const { isLetIn, why } = await asked('POST', '/agent/logins/try', isTried, { target, secrets })
      return isLetIn ? undefined : (why ?? 'It was not let in.')
    },
    devices: async () => (await asked('GET', '/agent/devices', isDevices)).devices.map(sized),
    rescan: async () => (await asked('POST', '/agent/rescan', isDevices, {})).devices.map(sized),
    write: async (naa, offset, length, seed) =>
      (
        await asked('POST', `/agent/devices/${encodeURIComponent(naa)}/write`, isSum, {
          ...range(offset, length),
          seed,
        })
      ).sha256,
    read: async (naa, offset, length) =>
      (await asked('POST', `/agent/devices/${encodeURIComponent(naa)}/read`, isSum, range(offset, length))).sha256,
    readFast: (naa, seconds, bytesEach) =>
      asked('POST', `/agent/devices/${encodeURIComponent(naa)}/read-fast`, isFast, { seconds, bytesEach }),
    ...fileRequests(asked),
    shares: shareRequests(asked),
    network: networkRequests(asked),
    reboot: async () => void (await asked('POST', '/agent/reboot', isAnything, {})),
    bootId: async () => (await asked('GET', '/agent/boot', isBoot)).bootId,
    discard: async (naa, offset, length) =>
      void (await asked(
        'POST',
        `/agent/devices/${encodeURIComponent(naa)}/discard`,
        isAnything,
        range(offset, length),
      )),
  }
}
