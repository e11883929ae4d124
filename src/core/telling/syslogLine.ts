import type { Message } from './message'

/** Facility 1 is the user's own; severities of RFC 5424, section 6.2.1. */
const facility = 1
const severities = { now: 2, soon: 4, note: 5 } as const
/** What a receiver must take, RFC 5426 section 3.2, with what IPv6 leaves of it: so long a line is whole everywhere. */
const mostBytes = 2048

/** Within a value of structured data. */
const escaped = (text: string) => text.replace(/["\\\]]/g, each => `\\${each}`)
/** Control characters end or split records at receivers that read by the line. */
const plain = (text: string) => text.replace(/[\u0000-\u001f\u007f]+/g, ' ')
/** Printable ASCII without spaces, as header fields are. */
const token = (text: string, most: number) =>
  plain(text)
    .replace(/[^\x21-\x7e]/g, '_')
    .slice(0, most) || '-'

/**
 * A message as a line of syslog. Source: RFC 5424; the example enterprise number of RFC 5612 stands in the name of its data.
 * @param host whose name stands in it
 * @returns UTF-8 text of at most 2,048 bytes; the message is cut, never its data
 */
export function syslogLine(message: Message, host: string, at: Date, id: string): string {
  const pri = facility * 8 + severities[message.gravity]
  const data = `[matter@32473 id="${id}" state="${message.state}" key="${escaped(plain(message.key).slice(0, 200))}" rule="${escaped(plain(message.rule).slice(0, 200))}"]`
  const head = `<${pri}>1 ${at.toISOString()} ${token(host, 255)} wendrel - ${token(message.state, 32)} ${data} \ufeff`
  const text = plain([message.subject, ...message.lines].join(' '))
  const room = mostBytes - new TextEncoder().encode(head).length
  return head + cut(text, room)
}

/** The beginning of a text that takes so many bytes at most, never half a character. */
function cut(text: string, bytes: number): string {
  const encoded = new TextEncoder().encode(text)
  if (encoded.length <= bytes) return text
  let end = Math.max(0, bytes)
  while (end > 0 && ((encoded[end] ?? 0) & 0xc0) === 0x80) end -= 1
  return new TextDecoder().decode(encoded.subarray(0, end))
}
