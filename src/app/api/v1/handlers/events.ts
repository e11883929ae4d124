import type { Asked } from '@/app/server/answer'
import { listening } from '@/app/server/listening'
import { stillHolds, type Asker } from '@/app/server/session'
import type { Told } from '@/records'

const beatMilliseconds = 20_000
/** A browser opens one for each of its pages; somebody who opens more than this is not a browser. */
const mostStreams = 40
const open = new Map<string, Set<() => void>>()

/**
 * Server-sent events: a topic for whatever has changed in the records. A page that hears one reads anew what it shows. The stream
 * ends with the session or token by which it was asked for.
 */
export const events = async ({ who, request }: Asked): Promise<Response> => {
  let close = () => undefined as void
  const stream = new ReadableStream<Uint8Array>({
    start(controller) {
      close = follow(who, controller)
      request.signal.addEventListener('abort', close)
    },
    cancel: () => close(),
  })
  return new Response(stream, {
    headers: {
      'Content-Type': 'text/event-stream',
      'Cache-Control': 'no-cache, no-transform',
      'X-Accel-Buffering': 'no',
    },
  })
}

const encoder = new TextEncoder()

/** Tells a reader what is heard, as long as they may hear it. @returns what ends that */
function follow(who: Asker, controller: ReadableStreamDefaultController<Uint8Array>): () => void {
  const { heard } = listening()
  const send = (text: string) => {
    try {
      controller.enqueue(encoder.encode(text))
    } catch {
      close() // the reader has gone
    }
  }
  const judge = () =>
    stillHolds(who).then(
      holds => (holds ? undefined : close()),
      () => undefined, // the database is away: it is asked again with the next beat
    )
  const tell = (told: Told) => {
    if (told.topic !== 'access') return send(`data: ${JSON.stringify(told)}\n\n`)
    if (told.of === who.by.id) close()
  }
  const beat = setInterval(() => {
    send(': beat\n\n')
    void judge()
  }, beatMilliseconds)
  const close = () => {
    clearInterval(beat)
    heard.off('told', tell)
    forget(who, close)
    try {
      controller.close()
    } catch {
      // it was closed by its reader
    }
  }
  heard.on('told', tell)
  remember(who, close)
  send(': listening\n\n')
  return close
}

function remember({ by }: Asker, close: () => void): void {
  const own = open.get(by.id) ?? new Set()
  open.set(by.id, own.add(close))
  const [oldest] = own
  if (own.size > mostStreams) oldest?.()
}

function forget({ by }: Asker, close: () => void): void {
  const own = open.get(by.id)
  own?.delete(close)
  if (own?.size === 0) open.delete(by.id)
}
