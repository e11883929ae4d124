import type { PromiseName } from '@/core/classes'
import { countWords } from '@/core/units'
import type { ClassKept } from '@/core/views'
import { Link } from '../../parts/Link'
import { RowLink, Table, type Column } from '../../parts/Table'
import { Gravest } from './Gravest'
import { gravestFirst, gravestOf } from './gravestOf'

const heads: Readonly<Record<PromiseName, string>> = {
  resilience: 'Resilience',
  media: 'Media',
  latency: 'Latency',
  snapshots: 'Snapshots',
  copy: 'Copy',
  headroom: 'Headroom',
}
const names = Object.keys(heads) as PromiseName[]

/** So many stand beside what else there is to see; all have a page of their own. */
const mostShown = 12

const gravityOf = ({ promises }: ClassKept) =>
  Math.min(...promises.map(({ counts }) => gravestFirst.indexOf(gravestOf(counts).state)))

/** A moment in words that are made at the server: what is loaded with Today is to be little. */
const hourWords = (at: string) =>
  `${new Date(at).toLocaleString('en-GB', { weekday: 'short', hour: '2-digit', minute: '2-digit', timeZone: 'UTC' }).replace(',', '')} UTC`

/** How one promise is kept. */
const column = (name: PromiseName): Column<ClassKept> => ({
  head: heads[name],
  cell: ({ promises }) => {
    const line = promises.find(({ promise }) => promise === name)
    return line === undefined ? (
      <span className="text-second">no promise</span>
    ) : (
      <span data-hint={line.promised}>
        <Gravest counts={line.counts} />
      </span>
    )
  },
  className: 'whitespace-nowrap',
})

interface PromiseTableProps {
  readonly classes: readonly ClassKept[]
  /** When they were looked at (ISO 8601, of the estate). */
  readonly lookedAt: string
}

/** A line for each class, the gravest first: how each of its promises is kept. What no class promises has no column. */
export function PromiseTable({ classes, lookedAt }: PromiseTableProps) {
  const volumes = classes.reduce((sum, each) => sum + each.volumes, 0)
  const promised = names.filter(name => classes.some(({ promises }) => promises.some(each => each.promise === name)))
  const shown = [...classes].sort((a, b) => gravityOf(a) - gravityOf(b)).slice(0, mostShown)
  return (
    <>
      <h3>
        Promises{' '}
        <span>
          {countWords(volumes, 'volume', 'volumes')} in {countWords(classes.length, 'service class', 'service classes')}
          , looked at {hourWords(lookedAt)}
        </span>
      </h3>
      <Table
        rows={shown}
        keyOf={({ id }) => id}
        columns={[
          {
            head: 'Service class',
            cell: ({ id, name }) => <RowLink href={`/provision/classes?sel=${id}`}>{name}</RowLink>,
          },
          { head: 'Volumes', cell: each => each.volumes.toLocaleString('en'), isNumber: true },
          ...promised.map(column),
        ]}
      />
      {shown.length < classes.length && (
        <Link className="textlink" href="/provision/classes">
          All {classes.length} classes
        </Link>
      )}
    </>
  )
}
