import { answer } from '@/app/server/answer'
import { context } from '@/app/server/context'
import type { Told } from '@/records'

export const dynamic = 'force-dynamic'

const beatMilliseconds = 20_000

/** Server-sent events: a topic for whatever has changed in the records. A page that hears one reads anew what it shows. */
export const GET = answer('events', async ({ request }) => {
  const { heard } = context().listening
  const encoder = new TextEncoder()
  const stream = new ReadableStream<Uint8Array>({
    start(controller) {
      const send = (text: string) => {
        try {
          controller.enqueue(encoder.encode(text))
        } catch {
          close() // the reader has gone
        }
      }
      const tell = (told: Told) => send(`data: ${JSON.stringify(told)}\n\n`)
      const beat = setInterval(() => send(': beat\n\n'), beatMilliseconds)
      const close = () => {
        clearInterval(beat)
        heard.off('told', tell)
      }
      heard.on('told', tell)
      request.signal.addEventListener('abort', close)
      send(': listening\n\n')
    },
  })
  return new Response(stream, {
    headers: {
      'Content-Type': 'text/event-stream',
      'Cache-Control': 'no-cache, no-transform',
      'X-Accel-Buffering': 'no',
    },
  })
})
