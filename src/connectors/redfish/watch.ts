import http from 'node:http'
import https from 'node:https'
import type { Connection } from './Connection'

/**
 * Listens to a system's event stream and calls back on every event, until it is stopped or the stream ends.
 * Source: DSP0266, server-sent events.
 */
export async function watch(
  connection: Connection,
  eventService: string | undefined,
  changed: () => void,
  stop: AbortSignal,
): Promise<void> {
  if (eventService === undefined) return
  const headers = { ...(await connection.signedIn()), Accept: 'text/event-stream' }
  const url = new URL(`${eventService}/SSE`, connection.endpoint.address)
  await new Promise<void>(resolve => {
    const request = (url.protocol === 'https:' ? https : http).request(
      url,
      { headers, signal: stop, rejectUnauthorized: connection.endpoint.acceptedFingerprint === null },
      response => {
        if (response.statusCode !== 200) {
          response.destroy()
          resolve()
          return
        }
        response.setEncoding('utf8')
        response.on('data', (text: string) => {
          if (text.includes('data:')) changed()
        })
        response.on('close', resolve)
        response.on('error', () => resolve())
      },
    )
    // A stream that cannot be had is no fault: the collector reads at intervals all the same.
    request.on('error', () => resolve())
    request.end()
  })
}
