import { createHash, randomBytes, randomUUID } from 'node:crypto'
import type { SessionEntity, SimulatedArray } from '../array'
import { Refused } from '../array'

const idleMilliseconds = 30 * 60 * 1000
const hashOf = (token: string) => createHash('sha256').update(token).digest('hex')

/** Redfish sessions of one array: opened by name and password, ended by time. Source: DSP0266, session-based authentication. */
export class Sessions {
  constructor(private readonly array: SimulatedArray) {}

  open(userName: string, password: string): { readonly id: string; readonly token: string } {
    if (userName !== this.array.model.userName || password !== this.array.model.password)
      throw notSignedIn('The name or password is wrong.')
    const token = randomBytes(24).toString('base64url')
    const id = randomUUID()
    this.array.store.put(this.#collection, id, {
      id,
      tokenHash: hashOf(token),
      userName,
      usedAt: Date.now(),
    } satisfies SessionEntity)
    return { id, token }
  }

  /** @throws {Refused} where the token is missing, unknown or too old */
  check(token: string | undefined): void {
    if (token === undefined) throw notSignedIn('The request carries no X-Auth-Token.')
    const hash = hashOf(token)
    const session = this.array.store.all<SessionEntity>(this.#collection).find(each => each.tokenHash === hash)
    const isStruck =
      session !== undefined && this.array.faults.strikes(this.array.model.name, 'expired-token') !== undefined
    if (session === undefined || isStruck || Date.now() - session.usedAt > idleMilliseconds) {
      if (session !== undefined) this.close(session.id)
      throw notSignedIn('The session has ended.')
    }
    // Written at most once a minute: a session's last use needs no better resolution than its thirty minutes.
    if (Date.now() - session.usedAt > 60_000)
      this.array.store.put(this.#collection, session.id, { ...session, usedAt: Date.now() })
  }

  close(id: string): void {
    this.array.store.commit([{ collection: this.#collection, id, value: null }])
  }

  all(): SessionEntity[] {
    return this.array.store.all<SessionEntity>(this.#collection)
  }

  get #collection(): string {
    return `${this.array.model.name}/sessions`
  }
}

const notSignedIn = (why: string) =>
  new Refused(401, 'Base.1.18.NoValidSession', {
    what: 'The request was not carried out.',
    why,
    remedy: 'Open a session and send its token.',
  })
