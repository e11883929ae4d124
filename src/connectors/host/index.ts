import type { ValidateFunction } from 'ajv'
import Ajv from 'ajv/dist/2020.js'
import type { Host } from '@/ports'
import { ask } from './ask'
import { HostRefused } from './errors'

const ajv = new Ajv()
const text = { type: 'string', maxLength: 4096 }
const isIdentity = ajv.compile<{ name: string; operatingSystem: string; initiators: string[] }>({
  type: 'object',
  required: ['name', 'operatingSystem', 'initiators'],
  properties: {
    name: { ...text, minLength: 1 },
    operatingSystem: text,
    initiators: { type: 'array', maxItems: 64, items: text },
  },
})
const isDevices = ajv.compile<{ devices: { naa: string; sizeBytes: string; lun: number; path: string }[] }>({
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
          lun: { type: 'integer' },
          path: text,
        },
      },
    },
  },
})
const isSum = ajv.compile<{ sha256: string }>({
  type: 'object',
  required: ['sha256'],
  properties: { sha256: { type: 'string', pattern: '^[0-9a-f]{64}$' } },
})
const isAnything = ajv.compile<object>({ type: 'object' })
export { ask, HostRefused }

/** A host through its agent's HTTP interface. */
export function hostAgent(address: string, stop: AbortSignal, allowedNetworks?: string): Host {
  const asked = <T>(method: 'GET' | 'POST', path: string, isAnswer: ValidateFunction<T>, body?: unknown) =>
    ask(address, method, path, isAnswer, stop, allowedNetworks, body)
  const range = (offsetBytes: bigint, lengthBytes: number) => ({ offsetBytes: `${offsetBytes}`, lengthBytes })
  return {
    identity: () => asked('GET', '/agent', isIdentity),
    login: async target => void (await asked('POST', '/agent/logins', isAnything, { target })),
    rescan: async () =>
      (await asked('POST', '/agent/rescan', isDevices, {})).devices.map(each => ({
        ...each,
        sizeBytes: BigInt(each.sizeBytes),
      })),
    write: async (naa, offset, length, seed) =>
      (
        await asked('POST', `/agent/devices/${encodeURIComponent(naa)}/write`, isSum, {
          ...range(offset, length),
          seed,
        })
      ).sha256,
    read: async (naa, offset, length) =>
      (await asked('POST', `/agent/devices/${encodeURIComponent(naa)}/read`, isSum, range(offset, length))).sha256,
    discard: async (naa, offset, length) =>
      void (await asked(
        'POST',
        `/agent/devices/${encodeURIComponent(naa)}/discard`,
        isAnything,
        range(offset, length),
      )),
  }
}
