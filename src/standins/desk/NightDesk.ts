import dgram from 'node:dgram'
import type { EventEmitter } from 'node:events'
import net from 'node:net'
import { createHash, createHmac, timingSafeEqual } from 'node:crypto'
import Fastify, { type FastifyInstance } from 'fastify'
import { SMTPServer } from 'smtp-server'

/** What the desk has received, whatever way it came. */
export interface Received {
  readonly way: 'webhook' | 'mail' | 'syslog'
  readonly at: string
  /** The whole of it, as it came. */
  readonly text: string
  /** Of a webhook: whether its signature is good for the key that the desk has. */
  readonly isSigned?: boolean
  /** Of mail: whom it is to. */
  readonly to?: readonly string[]
}

export interface DeskPorts {
  readonly http: number
  readonly smtp: number
  readonly syslog: number
}

const most = 1000
const mostTries = 20

/** The museum's night desk: takes webhooks, mail and syslog, and says what it has received. */
export class NightDesk {
  readonly #received: Received[] = []
  #key = ''
  /** Requests that it still refuses, as a desk that is being restarted does. */
  #refusals = 0
  readonly #http: FastifyInstance = Fastify()
  readonly #smtp: SMTPServer
  #datagrams = this.#hearing()
  readonly #streams: net.Server

  constructor() {
    this.#http.addContentTypeParser('application/json', { parseAs: 'string' }, (_, body, done) => done(null, body))
    this.#http.post('/told', (request, reply) => {
      if (this.#refusals > 0) {
        this.#refusals -= 1
        return reply.code(503).send({ why: 'The desk is being restarted.' })
      }
      const text = String(request.body)
      const host = String(request.headers.host)
      this.#take({ way: 'webhook', text, isSigned: this.#isSigned(request.headers, text, `http://${host}/told`) })
      return reply.code(202).send({ taken: true })
    })
    this.#http.get('/received', () => ({ received: this.#received }))
    this.#http.put('/key', ({ body }) => {
      this.#key = String((JSON.parse(String(body)) as { key?: unknown }).key)
      return {}
    })
    this.#http.put('/refusals', ({ body }) => {
      this.#refusals = Number((JSON.parse(String(body)) as { count?: unknown }).count)
      return {}
    })
    this.#smtp = new SMTPServer({
      disabledCommands: ['AUTH', 'STARTTLS'],
      logger: false,
      onRcptTo: ({ address }, _session, done) =>
        done(address.startsWith('nobody@') ? new Error(`No mailbox ${address} is here.`) : undefined),
      onData: (stream, session, done) => {
        const parts: Buffer[] = []
        stream.on('data', (part: Buffer) => parts.push(part))
        stream.on('end', () => {
          this.#take({
            way: 'mail',
            text: Buffer.concat(parts).toString('utf8'),
            to: session.envelope.rcptTo.map(({ address }) => address),
          })
          done()
        })
      },
    })
    // What it says while it listens is heard by whoever waits for that; later a broken connection is no concern of the desk.
    this.#smtp.on('error', () => undefined)
    this.#streams = net.createServer(socket => this.#counted(socket))
  }

  get received(): readonly Received[] {
    return this.#received
  }

  set key(key: string) {
    this.#key = key
  }

  set refusals(count: number) {
    this.#refusals = count
  }

  async listen(ports: DeskPorts): Promise<DeskPorts> {
    await this.#http.listen({ host: '127.0.0.1', port: ports.http })
    const smtp = this.#smtp.server
    await opened(smtp, () => this.#smtp.listen(ports.smtp, '127.0.0.1'))
    const syslog = await this.#listenForSyslog(ports.syslog)
    return { http: portOf(this.#http.server.address()), smtp: portOf(smtp.address()), syslog }
  }

  /** On one number by datagrams and by streams, as syslog servers have; where the system chooses, until one is free for both. */
  async #listenForSyslog(wanted: number): Promise<number> {
    for (let tries = 1; ; tries += 1) {
      await opened(this.#streams, () => this.#streams.listen(wanted, '127.0.0.1'))
      const port = portOf(this.#streams.address())
      try {
        await opened(this.#datagrams, () => this.#datagrams.bind(port, '127.0.0.1'))
        return port
      } catch (cause) {
        if (wanted !== 0 || tries === mostTries) throw cause
        await new Promise<void>(resolve => this.#streams.close(() => resolve()))
        this.#datagrams.close()
        this.#datagrams = this.#hearing()
      }
    }
  }

  #hearing(): dgram.Socket {
    const socket = dgram.createSocket('udp4')
    socket.on('message', data => this.#take({ way: 'syslog', text: data.toString('utf8') }))
    return socket
  }

  async stop(): Promise<void> {
    await this.#http.close()
    await new Promise<void>(resolve => this.#smtp.close(resolve))
    this.#datagrams.close()
    this.#streams.close()
  }

  #take(received: Omit<Received, 'at'>): void {
    this.#received.push({ ...received, at: new Date().toISOString() })
    if (this.#received.length > most) this.#received.shift()
  }

  /** Messages with their length before each. Source: RFC 6587, octet counting. */
  #counted(socket: net.Socket): void {
    let held = Buffer.alloc(0)
    socket.on('error', () => undefined)
    socket.on('data', data => {
      held = Buffer.concat([held, data])
      for (;;) {
        const [head = '', count = ''] = /^(\d{1,6}) /.exec(held.subarray(0, 8).toString('latin1')) ?? []
        const end = head.length + Number(count)
        if (head === '' || held.length < end) return
        this.#take({ way: 'syslog', text: held.subarray(head.length, end).toString('utf8') })
        held = held.subarray(end)
      }
    })
  }

  /** Written by itself from RFC 9421 and RFC 9530: nothing of what signs is used here. */
  #isSigned(headers: Readonly<Record<string, string | string[] | undefined>>, body: string, target: string): boolean {
    const input = /^told=(\(.*)$/.exec(String(headers['signature-input']))?.[1]
    const given = /^told=:([A-Za-z0-9+/=]+):$/.exec(String(headers['signature']))?.[1]
    const digest = String(headers['content-digest'])
    if (input === undefined || given === undefined || this.#key === '') return false
    if (digest !== `sha-256=:${createHash('sha256').update(body).digest('base64')}:`) return false
    const names = [...input.matchAll(/"([^"]+)"/g)].map(([, name]) => name)
    const values: Readonly<Record<string, string>> = {
      '@method': 'POST',
      '@target-uri': target,
      'content-digest': digest,
    }
    const covered = names.slice(0, 3)
    const base = [...covered.map(name => `"${name}": ${values[name ?? ''] ?? ''}`), `"@signature-params": ${input}`]
    const wanted = createHmac('sha256', this.#key).update(base.join('\n')).digest()
    const had = Buffer.from(given, 'base64')
    return had.length === wanted.length && timingSafeEqual(had, wanted)
  }
}

/** Waits until something listens. @throws why it cannot */
function opened(server: EventEmitter, open: () => void): Promise<void> {
  return new Promise((resolve, reject) => {
    const failed = (cause: Error) => {
      server.off('listening', ready)
      reject(cause)
    }
    const ready = () => {
      server.off('error', failed)
      resolve()
    }
    server.once('error', failed)
    server.once('listening', ready)
    open()
  })
}

const portOf = (address: ReturnType<net.Server['address']>) =>
  typeof address === 'object' && address !== null ? address.port : 0
