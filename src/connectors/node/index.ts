import type { ValidateFunction } from 'ajv'
import Ajv from 'ajv/dist/2020.js'
import type { NodeAgent } from '@/ports'
import { exchange, UnreadableAnswer } from '../http'
import { HostRefused } from '../host'

const ajv = new Ajv()
const isProbed = ajv.compile<{ answers: { address: string; passedMtu: number | null }[] }>({
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
const isRead = ajv.compile<{ nonZeroBytes: number }>({
  type: 'object',
  required: ['nonZeroBytes'],
  properties: { nonZeroBytes: { type: 'integer', minimum: 0 } },
})

/** A node through its agent's HTTP interface, which may stand under a path of its own. */
export function nodeAgent(address: string, stop: AbortSignal): NodeAgent {
  const base = new URL(address).pathname.replace(/\/$/, '')
  const ask = async <T>(path: string, isAnswer: ValidateFunction<T>, body: object): Promise<T> => {
    const answer = await exchange({ address, acceptedFingerprint: null }, 'POST', `${base}${path}`, { body, stop })
    let parsed: unknown
    try {
      parsed = JSON.parse(answer.text)
    } catch (cause) {
      throw new UnreadableAnswer(path, 'The node agent did not answer in JSON.', { cause })
    }
    if (answer.status >= 400) throw new HostRefused(address, undefined)
    if (!isAnswer(parsed))
      throw new UnreadableAnswer(path, `${isAnswer.errors?.[0]?.instancePath ?? ''} breaks the schema.`)
    return parsed
  }
  return {
    probe: async (addresses, mtu) => (await ask('/agent/probe', isProbed, { addresses, mtu })).answers,
    nonZeroBytes: async (serial, offsetBytes, lengthBytes) =>
      (
        await ask(`/agent/drives/${encodeURIComponent(serial)}/read`, isRead, {
          offsetBytes: `${offsetBytes}`,
          lengthBytes,
        })
      ).nonZeroBytes,
  }
}
