import type { ValidateFunction } from 'ajv'
import { setTimeout as pause } from 'node:timers/promises'
import { exchange, UnreadableAnswer, type Endpoint, type Exchanged } from '../http'
import { RequestRefused, SignInRefused } from './errors'
import { isCollection, isErrorBody } from './schemas'

export interface Credentials {
  readonly userName: string
  readonly password: string
}

interface Answered {
  readonly body: unknown
  readonly location: string | null
  readonly status: number
  readonly etag: string | null
}

const root = '/redfish/v1'
const mostPatientSeconds = 30
const busyTries = 4

/** A signed-in way to one system. The token is made when first needed and anew when it has expired. */
export class Connection {
  #token: string | undefined
  #signingIn: Promise<string> | undefined

  constructor(
    readonly endpoint: Endpoint,
    private readonly credentials: Credentials,
    private readonly stop: AbortSignal,
  ) {}

  /** Reads a resource. @throws {RequestRefused | UnreadableAnswer} */
  async read<T>(path: string, isAnswer: ValidateFunction<T>): Promise<T> {
    return checked(path, (await this.#ask('GET', path)).body, isAnswer)
  }

  /** Reads a resource that may be gone. */
  async readIfThere<T>(path: string, isAnswer: ValidateFunction<T>): Promise<T | undefined> {
    try {
      return await this.read(path, isAnswer)
    } catch (cause) {
      if (cause instanceof RequestRefused && cause.status === 404) return undefined
      throw cause
    }
  }

  /** All members of a collection, through all its pages; expanded where the system can, else one by one. */
  async members<T>(path: string, isMember: ValidateFunction<T>): Promise<T[]> {
    const found: T[] = []
    let next: string | undefined = `${path}?$expand=.`
    while (next !== undefined) {
      const at: string = next
      const page = checked(at, (await this.#ask('GET', at)).body, isCollection)
      for (const member of page.Members) {
        const isLink = Object.keys(member).length === 1
        found.push(
          isLink ? await this.read(member['@odata.id'], isMember) : checked(member['@odata.id'], member, isMember),
        )
      }
      next = page['Members@odata.nextLink']
    }
    return found
  }

  /** Sends a change once. A change is never sent again by itself: the step that wanted it looks first what it has done. */
  change(method: 'POST' | 'PATCH' | 'DELETE', path: string, body?: unknown, ifMatch?: string): Promise<Answered> {
    return this.#ask(method, path, body, ifMatch)
  }

  /** The headers that an event stream needs. */
  async signedIn(): Promise<Readonly<Record<string, string>>> {
    return { 'X-Auth-Token': this.#token ?? (await this.#signIn()) }
  }

  async #ask(method: string, path: string, body?: unknown, ifMatch?: string): Promise<Answered> {
    let renewals = 0
    let patience = 0
    for (;;) {
      const token = this.#token ?? (await this.#signIn())
      const headers = { 'X-Auth-Token': token, ...(ifMatch === undefined ? {} : { 'If-Match': ifMatch }) }
      const answer = await exchange(this.endpoint, method, path, { headers, body, stop: this.stop })
      // A 401 or 503 says that nothing was done, so these two may be asked again.
      if (answer.status === 401 && renewals < 2) {
        renewals += 1
        if (this.#token === token) this.#token = undefined
        continue
      }
      if (answer.status === 503 && patience < busyTries) {
        patience += 1
        await pause(Math.min(mostPatientSeconds, Number(answer.headers['retry-after'] ?? 1) || 1) * 1000, undefined, {
          signal: this.stop,
        })
        continue
      }
      return answered(method, path, answer)
    }
  }

  #signIn(): Promise<string> {
    this.#signingIn ??= this.#openSession().finally(() => (this.#signingIn = undefined))
    return this.#signingIn
  }

  async #openSession(): Promise<string> {
    const path = `${root}/SessionService/Sessions`
    const answer = await exchange(this.endpoint, 'POST', path, {
      body: { UserName: this.credentials.userName, Password: this.credentials.password },
      stop: this.stop,
    })
    if (answer.status === 401 || answer.status === 403) throw new SignInRefused(this.endpoint.address)
    const token = answer.headers['x-auth-token']
    if (answer.status >= 400 || typeof token !== 'string') throw refusal('POST', path, answer)
    this.#token = token
    return token
  }
}

function answered(method: string, path: string, answer: Exchanged): Answered {
  if (answer.status >= 400) throw refusal(method, path, answer)
  const { location, etag } = answer.headers
  return {
    body: answer.text === '' ? undefined : parsed(path, answer.text),
    location: typeof location === 'string' ? new URL(location, 'http://system').pathname : null,
    status: answer.status,
    etag: typeof etag === 'string' ? etag : null,
  }
}

function refusal(method: string, path: string, answer: Exchanged): RequestRefused {
  const retryAfter = Number(answer.headers['retry-after'])
  return new RequestRefused(
    `${method} ${path}`,
    answer.status,
    said(answer.text),
    Number.isFinite(retryAfter) ? retryAfter : null,
  )
}

function said(text: string): { message: string; resolution: string } | undefined {
  try {
    const body: unknown = JSON.parse(text)
    if (!isErrorBody(body)) return undefined
    const first = body.error['@Message.ExtendedInfo']?.[0]
    return { message: first?.Message ?? body.error.message ?? '', resolution: first?.Resolution ?? '' }
  } catch {
    return undefined // a refusal without a readable body is still a refusal, told by its status
  }
}

function parsed(path: string, text: string): unknown {
  try {
    return JSON.parse(text)
  } catch (cause) {
    throw new UnreadableAnswer(path, 'It is not whole JSON.', { cause })
  }
}

function checked<T>(path: string, body: unknown, isAnswer: ValidateFunction<T>): T {
  if (isAnswer(body)) return body
  const first = isAnswer.errors?.[0]
  throw new UnreadableAnswer(path, `${first?.instancePath || 'The body'} ${first?.message ?? 'breaks the schema'}.`)
}
