import { createSocket, type Socket } from 'node:dgram'
import { createServer, type Server, type Socket as Connection } from 'node:net'
import packet, { type OptAnswer, type Packet } from 'dns-packet'
import { plainAddress, reverseName } from '@/core/network'
import type { Store } from '../fleet'
import { answerTo, refusing, rcodes } from './answerTo'
import { readUpdate, updated } from './update'
import { OutsideZones } from './OutsideZones'
import { Zones } from './Zones'

const defaultZones = ['marrowfield.example', '10.in-addr.arpa', 'd.f.ip6.arpa']
const plainUdpBytes = 512
/** What passes every path whole. Source: RFC 9715, 3.1. */
const largestUdpBytes = 1232
const updateOpcode = 5

/**
 * An authoritative name server for some zones, over UDP and TCP. Sources: RFC 1034, RFC 1035, RFC 2136 (dynamic update), RFC 2308
 * (negative answers), RFC 3596 (IPv6), RFC 6891 (EDNS). It listens on loopback only, so that updates need no signature.
 */
export class NameServer {
  readonly zones: Zones
  #udp: Socket | undefined
  #tcp: Server | undefined
  readonly #open = new Set<Connection>()

  constructor(
    store: Store,
    names: readonly string[] = defaultZones,
    /** The outside is told other addresses, and may change nothing. */
    private readonly isOutside = false,
  ) {
    this.zones = isOutside ? new OutsideZones(store, names) : new Zones(store, names)
  }

  /** Sets what a name leads to; an empty address takes it out. The way back is a record of its own. */
  setForward(name: string, address: string): void {
    const data = plainAddress(address) ?? address
    this.zones.replace(name, ['A', 'AAAA'], data === '' ? [] : [{ type: data.includes(':') ? 'AAAA' : 'A', data }])
  }

  setReverse(address: string, name: string): void {
    this.zones.replace(reverseName(address), ['PTR'], name === '' ? [] : [{ type: 'PTR', data: name }])
  }

  /** The name that an address leads back to; null where there is none. */
  nameOf(address: string): string | null {
    return this.zones.at(reverseName(address)).find(({ type }) => type === 'PTR')?.data ?? null
  }

  answer(query: Packet): Packet {
    return answerTo(this.zones, query)
  }

  async listen(port: number): Promise<number> {
    const tcp = createServer(socket => this.#serve(socket))
    await new Promise<void>((listening, failed) => tcp.once('error', failed).listen(port, '127.0.0.1', listening))
    const address = tcp.address()
    const chosen = typeof address === 'object' && address !== null ? address.port : port
    const udp = createSocket('udp4')
    udp.on('message', (bytes, from) => {
      const reply = this.#reply(bytes, 'udp')
      if (reply !== undefined) udp.send(reply, from.port, from.address)
    })
    await new Promise<void>((bound, failed) => udp.once('error', failed).bind(chosen, '127.0.0.1', bound))
    this.#tcp = tcp
    this.#udp = udp
    return chosen
  }

  async stop(): Promise<void> {
    this.#udp?.close()
    for (const socket of this.#open) socket.destroy()
    await new Promise<void>(closed => (this.#tcp === undefined ? closed() : this.#tcp.close(() => closed())))
  }

  /** Messages over TCP stand behind their length, any number on one connection. Source: RFC 1035, 4.2.2. */
  #serve(socket: Connection): void {
    let held = Buffer.alloc(0)
    this.#open.add(socket)
    socket.on('close', () => this.#open.delete(socket))
    socket.on('error', () => socket.destroy())
    socket.on('data', chunk => {
      held = Buffer.concat([held, chunk])
      while (held.length >= 2 && held.length >= 2 + held.readUInt16BE(0)) {
        const length = held.readUInt16BE(0)
        const reply = this.#reply(held.subarray(2, 2 + length), 'tcp')
        held = held.subarray(2 + length)
        if (reply === undefined) return socket.destroy()
        const head = Buffer.alloc(2)
        head.writeUInt16BE(reply.length)
        socket.write(Buffer.concat([head, reply]))
      }
    })
  }

  /** What is sent back; undefined for what is no request, which nobody may be made to answer. */
  #reply(bytes: Buffer, over: 'udp' | 'tcp'): Buffer | undefined {
    const isRequest = bytes.length >= 12 && (bytes.readUInt8(2) & 0x80) === 0
    if (!isRequest) return undefined
    const opcode = (bytes.readUInt8(2) >> 3) & 15
    const id = bytes.readUInt16BE(0)
    try {
      if (opcode === updateOpcode && !this.isOutside) return packet.encode(updated(this.zones, readUpdate(bytes)))
      if (opcode !== 0)
        return packet.encode(refusing({ type: 'query', id, flags: opcode << 11 }, rcodes.notImplemented))
      const query = packet.decode(bytes)
      const reply = this.answer(query)
      const whole = packet.encode(reply)
      if (over === 'tcp' || whole.length <= roomOf(query)) return whole
      return packet.encode({
        ...reply,
        flags: (reply.flags ?? 0) | packet.TRUNCATED_RESPONSE,
        answers: [],
        authorities: [],
      })
    } catch {
      return packet.encode(refusing({ type: 'query', id, flags: opcode << 11 }, rcodes.badFormat))
    }
  }
}

/** How much the asker can take in one datagram. */
function roomOf(query: Packet): number {
  const options = query.additionals?.find((each): each is OptAnswer => each.type === 'OPT')
  const wanted = (options as { readonly udpPayloadSize?: number } | undefined)?.udpPayloadSize ?? plainUdpBytes
  return Math.min(largestUdpBytes, Math.max(plainUdpBytes, wanted))
}
