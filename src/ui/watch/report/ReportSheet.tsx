import type { ClassMonth, MonthReport, PoolMonth } from '@/core/views'
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
      columns={[
        { head: 'Pool', cell: ({ name }) => <b className="font-semibold">{name}</b> },
        { head: 'System', cell: ({ systemName }) => systemName },
        { head: 'For volumes', cell: ({ capacityBytes }) => bytes(capacityBytes), isNumber: true },
        { head: 'At its beginning', cell: ({ firstBytes }) => bytes(firstBytes), isNumber: true },
        { head: 'At its end', cell: ({ lastBytes }) => bytes(lastBytes), isNumber: true },
        { head: 'Growth', cell: growthOf, isNumber: true },
        {
          head: 'Full',
          cell: pool => (pool.lastBytes === null ? '' : `${(fillOf(pool) * 100).toFixed(0)}%`),
          isNumber: true,
        },
        {
          head: 'Limit in',
          cell: ({ daysToLimit }) => (daysToLimit === null ? 'not in sight' : countWords(daysToLimit, 'day', 'days')),
        },
      ]}
    />
    <h3>
      Promises of latency <span>by hours of volumes; those of snapshots, media and losses stand with each class</span>
    </h3>
    {report.classes.length === 0 ? (
      <p className="mt-0 text-second">No class promises latency.</p>
    ) : (
      <Table rows={report.classes} keyOf={({ id }) => id} columns={classColumns} />
    )}
    <h3>Work</h3>
    <table className="plain max-w-[420px]">
      <tbody>
        <tr>
          <td className="text-second">Changes carried out and proven</td>
          <td className="number">{report.changes.proven.toLocaleString('en')}</td>
        </tr>
        <tr>
          <td className="text-second">Changes that ended otherwise</td>
          <td className="number">{report.changes.others.toLocaleString('en')}</td>
        </tr>
        <tr>
          <td className="text-second">Findings that began</td>
          <td className="number">{report.findings.begun.toLocaleString('en')}</td>
        </tr>
        <tr>
          <td className="text-second">Findings that were cleared</td>
          <td className="number">{report.findings.cleared.toLocaleString('en')}</td>
        </tr>
        <tr>
          <td className="text-second">Findings that stood at its end</td>
          <td className="number">{report.findings.standing.toLocaleString('en')}</td>
        </tr>
      </tbody>
    </table>
  </>
)

const fillOf = ({ capacityBytes, lastBytes }: PoolMonth) => (capacityBytes === 0 ? 0 : (lastBytes ?? 0) / capacityBytes)
const growthOf = ({ firstBytes, lastBytes }: PoolMonth) =>
  firstBytes === null || lastBytes === null ? '' : signed(lastBytes - firstBytes)

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
