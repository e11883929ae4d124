import type { ClassMonth, MonthReport, PoolMonth, PromiseMonth, SnapshotMonth } from '@/core/views'
import { countWords, formatBytes } from '@/core/units'
import { Table } from '../../parts/Table'
import { State } from '../../parts/State'

const bytes = (value: number | null) => (value === null ? '' : formatBytes(BigInt(Math.round(value))))
const signed = (value: number) =>
  `${value < 0 ? '−' : value > 0 ? '+' : ''}${formatBytes(BigInt(Math.round(Math.abs(value))))}`

/** Capacity of every pool in the month, then how promises were kept, then what was done. */
export const ReportSheet = ({ report }: { readonly report: MonthReport }) => (
  <>
    <h3>
      Capacity <span>every pool, the fullest first</span>
    </h3>
    <Table
      rows={[...report.pools].sort((a, b) => fillOf(b) - fillOf(a))}
      keyOf={({ id }) => id}
      columns={poolColumns}
    />
    <Promises report={report} />
    <h3>Work</h3>
    <table className="plain max-w-[420px]">
      <tbody>
        {workOf(report).map(([words, count]) => (
          <tr key={words}>
            <td className="text-second">{words}</td>
            <td className="number">{count.toLocaleString('en')}</td>
          </tr>
        ))}
      </tbody>
    </table>
  </>
)

const Promises = ({ report: { classes, snapshots, promises } }: { readonly report: MonthReport }) => (
  <>
    <h3>
      Promises of latency <span>by hours of volumes</span>
    </h3>
    {classes.length === 0 ? (
      <p className="mt-0 text-second">No class promises latency.</p>
    ) : (
      <Table rows={classes} keyOf={({ id }) => id} columns={classColumns} />
    )}
    <h3>
      Promises of snapshots <span>by moments of volumes, once each is over</span>
    </h3>
    {snapshots.length === 0 ? (
      <p className="mt-0 text-second">None came due.</p>
    ) : (
      <Table rows={snapshots} keyOf={({ id }) => id} columns={snapshotColumns} />
    )}
    <h3>
      Other promises <span>by hours of volumes, each looked at once</span>
    </h3>
    {promises.length === 0 ? (
      <p className="mt-0 text-second">None was looked at.</p>
    ) : (
      <Table rows={promises} keyOf={({ id, promised }) => `${id}/${promised}`} columns={promiseColumns} />
    )}
  </>
)

const fillOf = ({ capacityBytes, lastBytes }: PoolMonth) => (capacityBytes === 0 ? 0 : (lastBytes ?? 0) / capacityBytes)
const growthOf = ({ firstBytes, lastBytes }: PoolMonth) =>
  firstBytes === null || lastBytes === null ? '' : signed(lastBytes - firstBytes)

const poolColumns = [
  { head: 'Pool', cell: ({ name }: PoolMonth) => <b className="font-semibold">{name}</b> },
  { head: 'System', cell: ({ systemName }: PoolMonth) => systemName },
  { head: 'For volumes', cell: ({ capacityBytes }: PoolMonth) => bytes(capacityBytes), isNumber: true },
  { head: 'At its beginning', cell: ({ firstBytes }: PoolMonth) => bytes(firstBytes), isNumber: true },
  { head: 'At its end', cell: ({ lastBytes }: PoolMonth) => bytes(lastBytes), isNumber: true },
  { head: 'Growth', cell: growthOf, isNumber: true },
  {
    head: 'Full',
    cell: (pool: PoolMonth) => (pool.lastBytes === null ? '' : `${(fillOf(pool) * 100).toFixed(0)}%`),
    isNumber: true,
  },
  {
    head: 'Limit in',
    cell: ({ daysToLimit }: PoolMonth) =>
      daysToLimit === null ? 'not in sight' : countWords(daysToLimit, 'day', 'days'),
  },
]

const workOf = ({ changes, findings }: MonthReport) =>
  [
    ['Changes carried out and proven', changes.proven],
    ['Changes that ended otherwise', changes.others],
    ['Findings that began', findings.begun],
    ['Findings that were cleared', findings.cleared],
    ['Findings that stood at its end', findings.standing],
  ] as const

/** A promise is of 95 of 100. */
const promisedShare = 0.95

const classColumns = [
  { head: 'Class', cell: ({ name }: ClassMonth) => <b className="font-semibold">{name}</b> },
  { head: 'Volumes', cell: ({ volumes }: ClassMonth) => volumes.toLocaleString('en'), isNumber: true },
  {
    head: 'Promised',
    cell: ({ promisedSeconds }: ClassMonth) => `${(promisedSeconds * 1000).toFixed(1)} ms`,
    isNumber: true,
  },
  { head: 'Hours measured', cell: ({ hours }: ClassMonth) => hours.toLocaleString('en'), isNumber: true },
  {
    head: 'Within',
    cell: ({ hours, hoursWithin }: ClassMonth) =>
      hours === 0 ? (
        <State gravity="unknown">not measured</State>
      ) : (
        <State gravity={hoursWithin / hours >= promisedShare ? 'fine' : 'now'}>
          {((hoursWithin / hours) * 100).toFixed(2)}%
        </State>
      ),
  },
]

const promiseColumns = [
  { head: 'Class', cell: ({ name }: PromiseMonth) => <b className="font-semibold">{name}</b> },
  { head: 'Promised', cell: ({ promised }: PromiseMonth) => promised },
  { head: 'Hours', cell: ({ hours }: PromiseMonth) => hours.toLocaleString('en'), isNumber: true },
  {
    head: 'Not kept',
    cell: ({ hours, hoursKept }: PromiseMonth) => (hours - hoursKept).toLocaleString('en'),
    isNumber: true,
  },
  { head: 'Kept', cell: ({ hours, hoursKept }: PromiseMonth) => <KeptShare of={hoursKept / hours} /> },
]

/** A promise is kept whole, or as far as 95 of 100, or not. */
const KeptShare = ({ of }: { readonly of: number }) => (
  <State gravity={of === 1 ? 'fine' : of >= promisedShare ? 'soon' : 'now'}>{(of * 100).toFixed(2)}%</State>
)

const snapshotColumns = [
  { head: 'Class', cell: ({ name }: SnapshotMonth) => <b className="font-semibold">{name}</b> },
  { head: 'A snapshot', cell: ({ rule }: SnapshotMonth) => rule },
  { head: 'Due', cell: ({ due }: SnapshotMonth) => due.toLocaleString('en'), isNumber: true },
  { head: 'Missed', cell: ({ due, taken }: SnapshotMonth) => (due - taken).toLocaleString('en'), isNumber: true },
  {
    head: 'Kept',
    cell: ({ due, taken }: SnapshotMonth) => <KeptShare of={taken / due} />,
  },
]
