import { ReadingUnbounded } from '../http'

const mostRequests = 200_000
const mostBytes = 1024 ** 3
const mostMinutes = 20

/** What one reading of a system may cost: a system that leads on without an end must not fill our memory, or hold us for ever. */
export class Budget {
  #requests = 0
  #bytes = 0
  readonly #until: number

  constructor(private readonly address: string) {
    this.#until = Date.now() + mostMinutes * 60_000
  }

  /** @param bytes of one more answer @throws {ReadingUnbounded} */
  spend(bytes: number): void {
    this.#requests += 1
    this.#bytes += bytes
    if (this.#requests > mostRequests)
      throw new ReadingUnbounded(this.address, `It took more than ${mostRequests} requests.`)
    if (this.#bytes > mostBytes) throw new ReadingUnbounded(this.address, 'Its answers came to more than 1 GiB.')
    if (Date.now() > this.#until) throw new ReadingUnbounded(this.address, `It took more than ${mostMinutes} minutes.`)
  }
}
