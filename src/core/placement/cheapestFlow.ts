/**
 * The least-cost flow of given size through a network with whole capacities, by successive shortest paths.
 * Whole capacities give whole flows, so what it answers can be carried out piece by piece.
 * @see Ahuja, Magnanti & Orlin 1993, chapter 9
 */
export class FlowNetwork {
  readonly #to: number[] = []
  readonly #room: number[] = []
  readonly #cost: number[] = []
  readonly #from: number[][]

  constructor(nodes: number) {
    this.#from = Array.from({ length: nodes }, () => [])
  }

  /** @returns the arc, by which its flow is asked for */
  addArc(from: number, to: number, room: number, cost: number): number {
    const arc = this.#to.length
    this.#to.push(to, from)
    this.#room.push(room, 0)
    this.#cost.push(cost, -cost)
    this.#from[from]?.push(arc)
    this.#from[to]?.push(arc + 1)
    return arc
  }

  flowOn(arc: number): number {
    return this.#room[arc + 1] ?? 0
  }

  /** Sends as much as is wanted, at the least cost. @returns what was sent, and its cost */
  send(source: number, sink: number, wanted: number): { readonly sent: number; readonly cost: number } {
    let sent = 0
    let cost = 0
    while (sent < wanted) {
      const { distance, arriving } = this.#shortest(source)
      const length = distance[sink] ?? Infinity
      if (length === Infinity) break
      let part = wanted - sent
      for (let node = sink; node !== source; node = this.#tail(arriving[node]))
        part = Math.min(part, this.#room[arriving[node] ?? 0] ?? 0)
      for (let node = sink; node !== source; node = this.#tail(arriving[node])) {
        const arc = arriving[node] ?? 0
        this.#room[arc] = (this.#room[arc] ?? 0) - part
        this.#room[arc ^ 1] = (this.#room[arc ^ 1] ?? 0) + part
      }
      sent += part
      cost += part * length
    }
    return { sent, cost }
  }

  #tail(arc: number | undefined): number {
    return this.#to[(arc ?? 0) ^ 1] ?? 0
  }

  /** Bellman–Ford with a queue: arcs that take flow back have negative costs, but there is never a negative cycle. */
  #shortest(source: number): { distance: Float64Array; arriving: Int32Array } {
    const distance = new Float64Array(this.#from.length).fill(Infinity)
    const arriving = new Int32Array(this.#from.length).fill(-1)
    const isQueued = new Uint8Array(this.#from.length)
    distance[source] = 0
    const queue = [source]
    for (let head = 0; head < queue.length; head += 1) {
      const node = queue[head] ?? 0
      isQueued[node] = 0
      for (const arc of this.#from[node] ?? []) {
        if ((this.#room[arc] ?? 0) <= 0) continue
        const to = this.#to[arc] ?? 0
        const through = (distance[node] ?? Infinity) + (this.#cost[arc] ?? 0)
        if (through >= (distance[to] ?? Infinity)) continue
        distance[to] = through
        arriving[to] = arc
        if (isQueued[to] === 1) continue
        isQueued[to] = 1
        queue.push(to)
      }
    }
    return { distance, arriving }
  }
}
