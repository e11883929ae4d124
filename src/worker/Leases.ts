import pg from 'pg'

/** What can be leased: a system, to be collected and watched by one worker; the clock, what is measured, and telling, each by one. */
export type Leased =
  | { readonly kind: 'system'; readonly id: string }
  | { readonly kind: 'clock' | 'metrics' | 'telling' | 'directories' }

/** Numbers of locks: those of systems lie far from these. */
const numbers = { clock: 1n, metrics: 2n, telling: 3n, directories: 4n } as const

const numberOf = (leased: Leased) =>
  leased.kind === 'system'
    ? BigInt(`0x${leased.id.replaceAll('-', '').slice(-12)}`) + (1n << 60n)
    : numbers[leased.kind]

/**
 * What this worker looks after, so that of several workers each thing has one. The leases are locks of a connection of their own: the
 * database gives them back at the very moment when the process dies or loses its connection.
 */
export class Leases {
  #client: pg.Client | undefined
  #connecting: Promise<pg.Client> | undefined
  #lost = new AbortController()
  readonly #held = new Map<string, AbortController>()
  /** The connection answers one question at a time. */
  #asked: Promise<unknown> = Promise.resolve()

  constructor(private readonly url: string) {}

  /** Takes a lease, unless another worker has it. @returns what fires when it is lost; undefined where it was not given */
  async take(leased: Leased): Promise<AbortSignal | undefined> {
    const key = JSON.stringify(leased)
    if (this.#held.has(key)) return undefined
    const client = await this.#connected()
    const own = new AbortController()
    const lost = this.#lost.signal
    this.#held.set(key, own)
    const { rows } = await this.#inTurn(() =>
      client.query<{ held: boolean }>('select pg_try_advisory_lock($1) as held', [numberOf(leased).toString()]),
    ).catch((cause: unknown) => {
      this.#held.delete(key)
      throw cause
    })
    if (rows[0]?.held === true && !lost.aborted) return AbortSignal.any([own.signal, lost])
    this.#held.delete(key)
    return undefined
  }

  async giveBack(leased: Leased): Promise<void> {
    const key = JSON.stringify(leased)
    if (!this.#held.delete(key)) return
    await this.#inTurn(async () =>
      this.#client?.query('select pg_advisory_unlock($1)', [numberOf(leased).toString()]),
    ).catch(() => undefined)
  }

  async close(): Promise<void> {
    await this.#client?.end().catch(() => undefined)
  }

  /** Asks once what was asked before has been answered, or has failed. */
  #inTurn<T>(ask: () => Promise<T>): Promise<T> {
    const asked = this.#asked.then(ask, ask)
    this.#asked = asked.catch(() => undefined)
    return asked
  }

  /** The one connection: of several that ask for it at once each waits for the same, since a lock belongs to the connection that took it. */
  #connected(): Promise<pg.Client> {
    if (this.#client !== undefined) return Promise.resolve(this.#client)
    this.#connecting ??= this.#connect().finally(() => (this.#connecting = undefined))
    return this.#connecting
  }

  async #connect(): Promise<pg.Client> {
    const client = new pg.Client({ connectionString: this.url, application_name: 'wendrel leases', keepAlive: true })
    const lost = new AbortController()
    const end = () => {
      if (this.#client === client) {
        this.#client = undefined
        this.#held.clear()
      }
      lost.abort()
    }
    client.on('error', end)
    client.on('end', end)
    await client.connect()
    this.#client = client
    this.#lost = lost
    return client
  }
}
