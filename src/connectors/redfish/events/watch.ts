import http from 'node:http'
import https from 'node:https'
import { judgedAgent, urlWithin } from '../../http'
import type { Connection } from '../Connection'
import { isEventRecord, isEventService } from './schema'

const longestLine = 1_000_000

/**
 * Listens to a system's event stream and calls back on every event, with the places that it names, until it is stopped or the stream
 * ends. The stream holds the same certificate as every other connection, and stays within the system's origin.
 * Source: DSP0266, server-sent events.
 */
export async function watch(
  connection: Connection,
  eventService: string | undefined,
  changed: (origins: readonly string[]) => void,
  stop: AbortSignal,
): Promise<void> {
  if (eventService === undefined) return
  const { ServerSentEventUri } = await connection.read(eventService, isEventService)
  if (ServerSentEventUri === null || ServerSentEventUri === undefined) return
  const url = urlWithin(connection.endpoint, ServerSentEventUri)
  const headers = { ...(await connection.signedIn()), Accept: 'text/event-stream' }
  await new Promise<void>(resolve => {
    const request = (url.protocol === 'https:' ? https : http).request(
      url,
      { headers, signal: stop, agent: judgedAgent(connection.endpoint, 'own') },
      response => {
        if (response.statusCode !== 200) {
          response.destroy()
          resolve()
          return
        }
        response.setEncoding('utf8')
        let rest = ''
        response.on('data', (text: string) => {
          const lines = `${rest}${text}`.split(/\r?\n/)
          rest = lines.pop() ?? ''
          if (rest.length > longestLine) return response.destroy(new Error('A line of the stream has no end.'))
          for (const line of lines) if (line.startsWith('data:')) changed(originsIn(line.slice('data:'.length)))
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

/** Where what is told of has happened; nothing where the event does not say. */
function originsIn(data: string): string[] {
  try {
    const record: unknown = JSON.parse(data)
    if (!isEventRecord(record)) return []
    return (record.Events ?? []).flatMap(event => event.OriginOfCondition?.['@odata.id'] ?? [])
  } catch {
    return [] // it says that something has changed all the same
  }
}
