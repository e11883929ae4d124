import { createHash, randomBytes, randomUUID } from 'node:crypto'
import type { SessionEntity, SimulatedArray } from '../array'
import { Refused } from '../array'

const idleMilliseconds = 30 * 60 * 1000
const hashOf = (token: string) => createHash('sha256').update(token).digest('hex')

/** Redfish sessions of one array: opened by name and password, ended by time. Source: DSP0266, session-based authentication. */
export class Sessions {
  constructor(private readonly array: SimulatedArray) {}

  open(userName: string, password: string): { readonly id: string; readonly token: string } {
    if (!this.#isOf(userName, password)) throw notSignedIn('The name or password is wrong.')
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

  /**
   * By a session's token, or by name and password with the request itself (RFC 7617).
   * @throws {Refused} where neither is given, or what is given is wrong or too old
   */
  check(token: string | undefined, authorization: string | undefined): void {
    if (token === undefined) {
      const [scheme, given] = authorization?.split(' ') ?? []
      if (scheme?.toLowerCase() !== 'basic') throw notSignedIn('The request carries neither a token nor a name.')
      const [name, ...password] = Buffer.from(given ?? '', 'base64')
        .toString('utf8')
        .split(':')
      if (!this.#isOf(name, password.join(':'))) throw notSignedIn('The name or password is wrong.')
      return
    }
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

  #isOf(userName: string | undefined, password: string): boolean {
    return userName === this.array.model.userName && password === this.array.model.password
  }

  get #collection(): string {
    return `${this.array.model.name}/sessions`
  }
}

const notSignedIn = (why: string) =>
  new Refused(
    401,
    'Base.1.18.NoValidSession',
    { what: 'The request was not carried out.', why, remedy: 'Open a session and send its token.' },
    { headers: { 'WWW-Authenticate': 'Basic realm="Redfish", charset="UTF-8"' } },
  )
