import { csvFormatRows } from 'd3-dsv'
import { initiatorName } from './initiatorName'

const plain = (text: string) =>
  text
    .toLowerCase()
    .replace(/[^a-z0-9.-]+/g, '-')
    .replace(/^[-.]+|[-.]+$/g, '')
    .slice(0, 60)

/** What a name that logs in is likely called: what its owner has put behind the colon, else its kind and last four. */
function calledBy(initiator: string): string {
  const read = initiatorName(initiator)
  const own =
    'kind' in read && (read.kind === 'IQN' || read.kind === 'NQN') ? plain(initiator.split(':').at(-1) ?? '') : ''
  return own === '' ? `host-${plain(initiator.replaceAll(':', '')).slice(-4)}` : own
}

/**
 * A line that registers who logs in by a name, to be corrected by whoever knows the host.
 * @param group that a system has it in; undefined where it is in none
 */
export function suggestedLine(initiator: string, group: string | undefined): string {
  const called = calledBy(initiator)
  return csvFormatRows([[called, plain(group ?? '') || called, initiator]])
}
