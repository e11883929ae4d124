import type { ValidateFunction } from 'ajv'
import Ajv from 'ajv/dist/2020.js'
import { later, mayBeUnstorable, storable } from '@/core/input'
import { exchange, UnreadableAnswer } from '../http'
import { HostRefused } from './errors'

const ajv = new Ajv()
const compile = <T>(schema: object) => later(() => ajv.compile<T>(schema))

const text = { type: 'string', maxLength: 4096 }
const isRefusal = compile<{ what: string; why: string; remedy: string }>({
  type: 'object',
  required: ['what', 'why', 'remedy'],
  properties: { what: text, why: text, remedy: text },
})

/**
 * Asks the HTTP interface of a host or node, which may stand under a path of its own.
 * @throws {HostRefused | UnreadableAnswer | NotReached | AnswerLate}
 */
export interface Agent {
  readonly address: string
  readonly allowedNetworks: string | undefined
  /** By which it knows who asks; undefined where it asks for nothing. */
  readonly credential?: string | undefined
}

export async function ask<T>(
  { address, allowedNetworks, credential }: Agent,
  method: 'GET' | 'POST',
  path: string,
  isAnswer: ValidateFunction<T>,
  stop: AbortSignal,
  body?: unknown,
): Promise<T> {
  const base = new URL(address).pathname.replace(/\/$/, '')
  const answer = await exchange(
    { address, acceptedFingerprint: null, ...(allowedNetworks === undefined ? {} : { allowedNetworks }) },
    method,
    `${base}${path}`,
    {
      body,
      stop,
      mostBytes: 4_000_000,
      ...(credential === undefined ? {} : { headers: { authorization: `Bearer ${credential}` } }),
    },
  )
  let parsed: unknown
  try {
    parsed = JSON.parse(answer.text, mayBeUnstorable(answer.text) ? kept : undefined)
  } catch (cause) {
    throw new UnreadableAnswer(path, 'It did not answer in JSON.', { cause })
  }
  if (answer.status >= 400) throw new HostRefused(address, answer.status, isRefusal(parsed) ? parsed : undefined)
  if (isAnswer(parsed)) return parsed
  const [first] = isAnswer.errors ?? []
  throw new UnreadableAnswer(path, `${first?.instancePath ?? ''} ${first?.message ?? 'breaks the schema'}`.trim())
}

/** A file of a host may be called anything: what cannot be kept of its name is left out, and it is told of all the same. */
const kept = (_: string, value: unknown): unknown => (typeof value === 'string' ? storable(value) : value)

/** Asks a host something, and checks what it answers. */
export type Asked = <T>(
  method: 'GET' | 'POST',
  path: string,
  isAnswer: ValidateFunction<T>,
  body?: unknown,
) => Promise<T>
