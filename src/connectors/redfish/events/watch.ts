import { createParser } from 'eventsource-parser'
import http from 'node:http'
import https from 'node:https'
import type { Ears } from '@/ports'
import { judgedAgent, urlWithin } from '../../http'
import type { Connection } from '../Connection'
import { countersIn } from '../metrics/read'
import { isMetricReport } from '../metrics/schema'
import { isEventRecord, isEventService } from './schema'

/** A report of some thousands of volumes is that long (characters). */
const longestEvent = 16_000_000

/**
 * Listens to a system's event stream and hands on every event, with the places that it names, and every metric report, until it is stopped
 * or the stream ends. The stream holds the same certificate as every other connection, and stays within the system's origin.
 * Source: DSP0266, server-sent events.
 */
export async function watch(
  connection: Connection,
  eventService: string | undefined,
  ears: Ears,
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
        const take = parsed(ears)
        response.on('data', (text: string) => {
          try {
            take(text)
          } catch (cause) {
            // Nothing that a system sends may end more than its own stream.
            response.destroy(cause as Error)
          }
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

/** The last of a part may be half of one. */
const lineEnd = /\r\n|\n|\r(?!$)/

/**
 * Reads a stream part by part. The parser is given one whole line at a time: it would look through what it has of a long line again with
 * every part that comes, and through all of a part with every line in it, so that a report of many volumes, or a system that sends nothing
 * but ends of lines, would take the whole processor.
 * @throws where an event goes on for longer than any should; comments within it count too
 */
function parsed(ears: Ears): (text: string) => void {
  let sinceEvent = 0
  const parser = createParser({
    onEvent: ({ data }) => {
      sinceEvent = 0
      hear(data, ears)
    },
  })
  let unended: string[] = []
  return text => {
    sinceEvent += text.length
    if (sinceEvent > longestEvent) throw new Error('An event of the stream has no end.')
    unended.push(text)
    if (!/[\r\n]/.test(text)) return
    const lines = unended.join('').split(lineEnd)
    unended = [lines.pop() ?? '']
    for (const line of lines) parser.feed(`${line}\n`)
  }
}

/** A report says what was counted; whatever else comes says that something has changed, even where it does not say what. */
function hear(data: string, ears: Ears): void {
  const record = jsonIn(data)
  if (isMetricReport(record)) ears.counted(countersIn(record.MetricValues))
  else
    ears.changed(
      isEventRecord(record) ? (record.Events ?? []).flatMap(event => event.OriginOfCondition?.['@odata.id'] ?? []) : [],
    )
}

function jsonIn(text: string): unknown {
  try {
    return JSON.parse(text)
  } catch {
    return undefined
  }
}
