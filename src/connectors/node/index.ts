import Ajv from 'ajv/dist/2020.js'
import { later } from '@/core/input'
import type { NodeAgent } from '@/ports'
import { ask } from '../host'

const ajv = new Ajv()
const compile = <T>(schema: object) => later(() => ajv.compile<T>(schema))
const isProbed = compile<{ answers: { address: string; passedMtu: number | null }[] }>({
  type: 'object',
  required: ['answers'],
  properties: {
    answers: {
      type: 'array',
      items: {
        type: 'object',
        required: ['address', 'passedMtu'],
        properties: { address: { type: 'string', maxLength: 64 }, passedMtu: { type: ['integer', 'null'] } },
      },
    },
  },
})
const isRead = compile<{ nonZeroBytes: number }>({
  type: 'object',
  required: ['nonZeroBytes'],
  properties: { nonZeroBytes: { type: 'integer', minimum: 0 } },
})

/** A node through its node agent's HTTP interface, which may stand under a path of its own. */
export const nodeAgent = (address: string, stop: AbortSignal, allowedNetworks?: string): NodeAgent => ({
  probe: async (addresses, mtu) =>
    (await ask({ address, allowedNetworks }, 'POST', '/agent/probe', isProbed, stop, { addresses, mtu })).answers,
  nonZeroBytes: async (serial, offsetBytes, lengthBytes) => {
    const path = `/agent/drives/${encodeURIComponent(serial)}/read`
    const range = { offsetBytes: `${offsetBytes}`, lengthBytes }
    return (await ask({ address, allowedNetworks }, 'POST', path, isRead, stop, range)).nonZeroBytes
  },
})
