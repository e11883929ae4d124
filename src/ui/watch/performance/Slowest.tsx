import type { SlowLine } from '@/core/views'
import { State } from '../../parts/State'
import { RowLink, Table } from '../../parts/Table'
import { latencyWords, requestWords, throughputWords } from './loadWords'

/** The slowest volumes, those that miss their promise by most first. */
export const Slowest = ({
  lines,
  selected,
}: {
  readonly lines: readonly SlowLine[]
  readonly selected: string | undefined
}) => (
  <Table
    rows={lines}
    keyOf={({ id }) => id}
    isSelected={({ id }) => id === selected}
    columns={[
      { head: 'Volume', cell: ({ id, name }) => <RowLink href={`/watch/performance?sel=${id}`}>{name}</RowLink> },
      { head: 'Pool', cell: ({ poolName }) => poolName },
      { head: 'P95', cell: ({ p95Seconds }) => latencyWords(p95Seconds), isNumber: true },
      {
        head: 'Promised',
        cell: ({ promisedSeconds }) => (promisedSeconds === null ? '' : latencyWords(promisedSeconds)),
        isNumber: true,
      },
      { head: 'Requests', cell: ({ requestsPerSecond }) => requestWords(requestsPerSecond), isNumber: true },
      { head: 'Throughput', cell: ({ bytesPerSecond }) => throughputWords(bytesPerSecond), isNumber: true },
      { head: 'State', cell: line => <PromiseState line={line} />, className: 'whitespace-nowrap' },
    ]}
  />
)

function PromiseState({ line: { p95Seconds, promisedSeconds } }: { readonly line: SlowLine }) {
  if (promisedSeconds === null) return <span className="text-second">no promise</span>
  return p95Seconds > promisedSeconds ? (
    <State gravity="now">{(p95Seconds / promisedSeconds).toFixed(1)} × its promise</State>
  ) : (
    <State gravity="fine">kept</State>
  )
}
