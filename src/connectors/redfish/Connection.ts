import type { ValidateFunction } from 'ajv'
import { setTimeout as pause } from 'node:timers/promises'
import { exchange, UnreadableAnswer, type Endpoint, type Exchanged } from '../http'
import { answered, checked, isGone, isLink, isOtherwise, patienceSeconds, type Answered } from './answers'
import { Budget } from './Budget'
import { OtherIdentity } from './errors'
import { isCollection } from './schema'
import { isServiceRoot, type RedfishRoot } from './service/schema'
import { pageAfter, pageFrom, unexpanded, waysOf } from './pages'
import { notSignedIn, opened, type Credentials, type Session, type Skipped } from './session'
import { usable } from './usable'

const root = '/redfish/v1'
const busyTries = 4
const mostMembers = 500_000
/** How often what is otherwise than it was read is read again, before it is given up. */
const mostReadings = 5

/** What is to be done with a resource: there, or at a place of its own as an action has. */
export interface Change {
  readonly method: 'POST' | 'PATCH' | 'DELETE'
  readonly at?: string
  readonly body?: unknown
}

/**
 * A signed-in way to one system. The token is made when first needed and anew when it has expired, and never before the service root
 * has said that this is still the system that was registered.
 */
export class Connection {
  readonly skipped: Skipped[] = []
  /** How many changes were sent, counted before they are. */
  changesSent = 0

  /** @param expectedUuid of the system that was registered; undefined for a first look */
  constructor(
    readonly endpoint: Endpoint,
    private readonly credentials: Credentials,
    private readonly stop: AbortSignal,
    readonly expectedUuid: string | undefined,
    private readonly session: Session = notSignedIn(),
    private readonly budget: Budget | undefined = undefined,
  ) {}

  /** The same way in, for one reading of the whole system: bounded in requests, bytes and time, with its own list of what was skipped. */
  reading(): Connection {
    const budget = new Budget(this.endpoint.address)
    return new Connection(this.endpoint, this.credentials, this.stop, this.expectedUuid, this.session, budget)
  }

  /** Who answers, as anybody may ask. @throws {OtherIdentity} where it is not the system that was registered */
  async serviceRoot(): Promise<RedfishRoot> {
    const answer = await this.#sent('GET', root)
    const found = checked(root, answered(this.endpoint, 'GET', root, answer).body, isServiceRoot)
    if (this.expectedUuid !== undefined && found.UUID !== this.expectedUuid) {
      this.session.token = undefined
      throw new OtherIdentity(this.endpoint.address, this.expectedUuid, found.UUID ?? null)
    }
    return found
  }

  /** Reads a resource. @throws {RequestRefused | UnreadableAnswer} */
  async read<T>(path: string, isAnswer: ValidateFunction<T>): Promise<T> {
    return checked(path, (await this.#ask('GET', path)).body, isAnswer)
  }

  /** Reads what may be answered in more than one way, such as a task monitor. */
  look(path: string): Promise<Answered> {
    return this.#ask('GET', path)
  }

  /**
   * Changes a resource as it was read, and only so. Where it is otherwise by then (412) nothing was done: it is read and looked at again,
   * since what a drive or a volume counts goes on by itself.
   * @param look judges what stands there, and says what is to be done with it; what it throws ends it
   */
  async changeAsRead<T>(
    path: string,
    isAnswer: ValidateFunction<T>,
    look: (found: T) => Change | Promise<Change>,
  ): Promise<Answered> {
    for (let tries = 1; ; tries += 1) {
      const { body, etag } = await this.#ask('GET', path)
      const { method, at = path, body: wanted } = await look(checked(path, body, isAnswer))
      try {
        return await this.change(method, at, wanted, etag)
      } catch (cause) {
        if (!isOtherwise(cause) || tries >= mostReadings) throw cause
      }
    }
  }

  /** Reads a resource that may be gone. */
  async readIfThere<T>(path: string, isAnswer: ValidateFunction<T>): Promise<T | undefined> {
    try {
      return await this.read(path, isAnswer)
    } catch (cause) {
      if (isGone(cause)) return undefined
      throw cause
    }
  }

  /** A resource that stands where a link to it may stand as well. */
  async whole<T>(value: { readonly '@odata.id'?: string }, isAnswer: ValidateFunction<T>): Promise<T> {
    const locator = value['@odata.id'] ?? ''
    return isLink(value) ? this.read(locator, isAnswer) : checked(locator, value, isAnswer)
  }

  /**
   * All members of a collection, through all its pages; expanded where the system can, else one by one. A member that cannot be used is
   * left out and told of in `skipped`; one that stands twice is taken once.
   * @param taken what is kept of each: of a hundred thousand, whole answers would fill the memory
   */
  async members<T>(path: string, isMember: ValidateFunction<T>): Promise<T[]>
  async members<T, Taken>(
    path: string,
    isMember: ValidateFunction<T>,
    taken: (member: T) => Taken | Promise<Taken>,
  ): Promise<Taken[]>
  async members<T>(
    path: string,
    isMember: ValidateFunction<T>,
    taken: (member: T) => unknown = member => member,
  ): Promise<unknown[]> {
    const found: unknown[] = []
    const seen = new Set<string>()
    const pages = new Set<string>()
    for (let next: string | undefined = await this.#firstPage(path); next !== undefined; ) {
      const at: string = next
      if (pages.has(at)) throw new UnreadableAnswer(path, 'Its pages lead round in a ring.')
      pages.add(at)
      const page = checked(at, await this.#page(at), isCollection)
      const fresh = page.Members.filter(member => !seen.has(member['@odata.id']) && seen.add(member['@odata.id']))
      if (fresh.length < page.Members.length) this.skip(at, 'It names the same member twice; it was taken once.')
      if (seen.size > mostMembers) throw new UnreadableAnswer(path, `It has more than ${mostMembers} members.`)
      for (const member of await usable(this, fresh, isMember)) {
        const kept = taken(member)
        // Of a hundred thousand, waiting for what is there already would take most of the time.
        found.push(kept instanceof Promise ? await kept : kept)
      }
      next = page['Members@odata.nextLink'] ?? pageAfter(this.session, path, page, seen.size)
      // A page that adds nothing and still leads on would lead on for ever.
      if (next !== undefined && fresh.length === 0)
        throw new UnreadableAnswer(path, 'Its pages lead on without an end.')
    }
    return found
  }

  /** Sends a change once. A change is never sent again by itself: the step that wanted it looks first what it has done. */
  change(
    method: 'POST' | 'PATCH' | 'DELETE',
    path: string,
    body?: unknown,
    ifMatch?: string | null,
  ): Promise<Answered> {
    this.changesSent += 1
    return this.#ask(method, path, body, ifMatch ?? undefined)
  }

  /** The headers that an event stream needs. */
  async signedIn(): Promise<Readonly<Record<string, string>>> {
    return { 'X-Auth-Token': this.session.token ?? (await this.#signIn()) }
  }

  /** Until when the certificate is valid that it showed last; null over plain HTTP, and before it was asked. */
  certificateEndsAt(): Date | null {
    return this.session.certificateEndsAt
  }

  /** Ends the session at the system, where there is one; a system that does not take it loses nothing by it. */
  async signOut(): Promise<void> {
    const { token, locator } = this.session
    this.session.token = undefined
    if (token === undefined || locator === undefined) return
    await exchange(this.endpoint, 'DELETE', locator, { headers: { 'X-Auth-Token': token } }).catch(() => undefined)
  }

  async #firstPage(path: string): Promise<string> {
    if (this.session.canExpand === undefined) Object.assign(this.session, waysOf(await this.serviceRoot()))
    return this.session.canExpand === true ? pageFrom(this.session, path, 0) : path
  }

  /** A page; where the system refuses to expand although it says that it can, the page without. */
  async #page(at: string): Promise<unknown> {
    try {
      return (await this.#ask('GET', at)).body
    } catch (cause) {
      const path = unexpanded(at, cause)
      if (path === undefined) throw cause
      this.session.canExpand = false
      return (await this.#ask('GET', path)).body
    }
  }

  /** Notes what of a reading could not be used, and why. */
  skip(locator: string, why: string): void {
    if (this.skipped.length < 1000) this.skipped.push({ locator: locator.slice(0, 500), why: why.slice(0, 300) })
  }

  async #ask(method: string, path: string, body?: unknown, ifMatch?: string): Promise<Answered> {
    for (let renewals = 0; ; renewals += 1) {
      const token = this.session.token ?? (await this.#signIn())
      const headers = { 'X-Auth-Token': token, ...(ifMatch === undefined ? {} : { 'If-Match': ifMatch }) }
      const answer = await this.#sent(method, path, { headers, body })
      // A 401 says that nothing was done, so it may be asked again with another token.
      if (answer.status !== 401 || renewals >= 2) return answered(this.endpoint, method, path, answer)
      if (this.session.token === token) this.session.token = undefined
    }
  }

  /** One exchange within the budget; a system that is busy says that nothing was done, and is asked again when it wants to be. */
  async #sent(
    method: string,
    path: string,
    options: { readonly headers?: Readonly<Record<string, string>>; readonly body?: unknown } = {},
  ): Promise<Exchanged> {
    for (let patience = 0; ; patience += 1) {
      const answer = await exchange(this.endpoint, method, path, { ...options, stop: this.stop })
      this.budget?.spend(answer.text.length)
      this.session.certificateEndsAt = answer.certificateEndsAt
      if (answer.status !== 503 || patience >= busyTries) return answer
      await pause(patienceSeconds(answer) * 1000, undefined, { signal: this.stop })
    }
  }

  #signIn(): Promise<string> {
    this.session.signingIn ??= this.#openSession().finally(() => (this.session.signingIn = undefined))
    return this.session.signingIn
  }

  async #openSession(): Promise<string> {
    // The password goes only to whom it belongs; by TLS the certificate has been judged as well by now.
    const { Links } = await this.serviceRoot()
    const { token, locator } = await opened(
      this.endpoint,
      this.credentials,
      Links?.Sessions?.['@odata.id'],
      (path, body) => this.#sent('POST', path, { body }),
    )
    this.session.token = token
    this.session.locator = locator
    return token
  }
}
