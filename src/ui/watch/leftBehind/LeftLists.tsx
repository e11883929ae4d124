import { Link } from '../../parts/Link'
import { convertVolumeIntent, draftAddress, removeSnapshotsIntent, removeVolumeIntent } from '@/core/intents'
import type { LeftBehind, LeftLine, LeftList, LeftWhy } from '@/core/views'
import { RowLink, Table } from '../../parts/Table'
import { dateWords } from '../capacity'
import { bytesOf, listWords } from './leftWords'

/** What is drafted about each. */
const ways: Readonly<Record<LeftWhy, { readonly words: string; readonly href: (line: LeftLine) => string }>> = {
  unseen: { words: 'Remove it', href: ({ volumeId }) => draftAddress(removeVolumeIntent, { volumeId }) ?? '' },
  idle: { words: 'See its load', href: ({ volumeId }) => `/watch/performance?sel=${volumeId}` },
  'not growing': {
    words: 'Make it thin',
    href: ({ volumeId }) => draftAddress(convertVolumeIntent, { volumeId }) ?? '',
  },
  'without a rule': {
    words: 'Remove snapshots',
    href: ({ volumeId }) => draftAddress(removeSnapshotsIntent, { volumeId }) ?? '',
  },
}

/** A list for each reason, those that are empty in a line. */
export const LeftLists = ({ left }: { readonly left: LeftBehind }) => (
  <>
    {left.lists.map(list => (
      <section key={list.why} id={list.why.replaceAll(' ', '-')}>
        <h3>
          {listWords[list.why].title} <span>{headOf(list)}</span>
        </h3>
        {list.count === 0 ? (
          <p className="mt-0 text-sm text-second">{listWords[list.why].none}</p>
        ) : (
          <Table rows={list.lines} keyOf={({ id }) => id} columns={columnsOf(list.why)} />
        )}
      </section>
    ))}
  </>
)

function headOf({ bytes, count, lines }: LeftList): string {
  if (count === 0) return ''
  const shown = lines.length < count ? `, the largest ${lines.length} shown` : ''
  return `${count.toLocaleString('en')} with ${bytesOf(bytes)}${shown}`
}

const columnsOf = (why: LeftWhy) => [
  {
    head: why === 'without a rule' ? 'Snapshot' : 'Volume',
    cell: ({ name, snapshotName, volumeId }: LeftLine) => (
      <RowLink href={`/provision/volumes/${volumeId}`}>
        {snapshotName === null ? name : `${name} · ${snapshotName}`}
      </RowLink>
    ),
  },
  { head: 'Pool', cell: ({ poolName }: LeftLine) => poolName },
  {
    head: why === 'without a rule' ? 'Taken' : 'Since',
    cell: ({ since }: LeftLine) =>
      since === null ? <span className="text-second">as long as is known</span> : dateWords(Date.parse(since)),
  },
  { head: listWords[why].back, cell: ({ bytes }: LeftLine) => bytesOf(bytes), isNumber: true },
  {
    head: <span className="sr-only">What to do</span>,
    words: 'What to do',
    cell: (line: LeftLine) => (
      <Link className="textlink" href={ways[why].href(line)}>
        {ways[why].words}
      </Link>
    ),
    className: 'whitespace-nowrap text-right',
  },
]
