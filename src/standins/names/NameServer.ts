import { createSocket, type Socket } from 'node:dgram'
import { createServer, type Server } from 'node:net'
import packet, { type Answer, type Packet } from 'dns-packet'
import { plainAddress, reverseName } from '@/core/network'
import type { Store } from '../fleet'

interface NameRecord {
  readonly name: string
  readonly address: string
}

const collection = 'names'

/** A name server with one zone of addresses and what leads back from them, over UDP and TCP. Source: RFC 1035, RFC 3596. */
export class NameServer {
  #udp: Socket | undefined
  #tcp: Server | undefined

  constructor(private readonly store: Store) {}

  /** Sets what a name leads to; an empty address takes it out. The way back is a record of its own. */
  setForward(name: string, address: string): void {
    this.#set(`forward/${name.toLowerCase()}`, name, address)
  }

  setReverse(address: string, name: string): void {
    this.#set(`reverse/${plainAddress(address) ?? address}`, name, name === '' ? '' : address)
  }

  answer(query: Packet): Packet {
    const [question] = query.questions ?? []
    const name = question?.name.toLowerCase() ?? ''
    const isReverse = name.endsWith('.arpa')
    const records = this.store.all<NameRecord & { readonly kind: string }>(collection)
    const own = records.filter(each =>
      isReverse
        ? each.kind === 'reverse' && reverseName(each.address) === name
        : each.kind === 'forward' && each.name.toLowerCase() === name,
    )
    const answers: Answer[] = own.flatMap((each): Answer[] => {
      if (isReverse) return question?.type === 'PTR' ? [{ type: 'PTR', name, ttl: 300, data: each.name }] : []
      const type = each.address.includes(':') ? 'AAAA' : 'A'
      return question?.type === type ? [{ type, name, ttl: 300, data: each.address }] : []
    })
    const isKnown = own.length > 0
    return {
      type: 'response',
      id: query.id ?? 0,
      // Authoritative; NXDOMAIN (3) where no record of any type bears the name.
      flags: packet.AUTHORITATIVE_ANSWER | (isKnown ? 0 : 3),
      questions: query.questions ?? [],
      answers,
    }
  }

  async listen(port: number): Promise<number> {
    const tcp = createServer(socket => {
      let held = Buffer.alloc(0)
      socket.on('error', () => socket.destroy())
      socket.on('data', chunk => {
        held = Buffer.concat([held, chunk])
        while (held.length >= 2 && held.length >= 2 + held.readUInt16BE(0)) {
          const length = held.readUInt16BE(0)
          const bytes = held.subarray(2, 2 + length)
          held = held.subarray(2 + length)
          const reply = this.#answerBytes(bytes)
          if (reply === undefined) return socket.destroy()
          const head = Buffer.alloc(2)
          head.writeUInt16BE(reply.length)
          socket.write(Buffer.concat([head, reply]))
        }
      })
    })
    await new Promise<void>((listening, failed) => tcp.once('error', failed).listen(port, '127.0.0.1', listening))
    const address = tcp.address()
    const chosen = typeof address === 'object' && address !== null ? address.port : port
    const udp = createSocket('udp4')
    udp.on('message', (bytes, from) => {
      const reply = this.#answerBytes(bytes)
      if (reply !== undefined) udp.send(reply, from.port, from.address)
    })
    await new Promise<void>((bound, failed) => udp.once('error', failed).bind(chosen, '127.0.0.1', bound))
    this.#tcp = tcp
    this.#udp = udp
    return chosen
  }

  async stop(): Promise<void> {
    this.#udp?.close()
    await new Promise<void>(closed => (this.#tcp === undefined ? closed() : this.#tcp.close(() => closed())))
  }

  #answerBytes(bytes: Buffer): Buffer | undefined {
    try {
      return packet.encode(this.answer(packet.decode(bytes)))
    } catch {
      return undefined // no DNS message: nothing is answered, as RFC 1035 leaves it
    }
  }

  #set(id: string, name: string, address: string): void {
    const kind = id.split('/')[0]
    this.store.commit([
      { collection, id, value: address === '' ? null : { kind, name, address: plainAddress(address) ?? address } },
    ])
  }
}
