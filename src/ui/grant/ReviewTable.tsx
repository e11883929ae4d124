import { sinceReview, type ReviewLine } from '@/core/access'
import { countAtStart, countWords } from '@/core/units'
import type { Review, ReviewList } from '@/core/views'
import { Ago } from '../parts/Ago'
import { State } from '../parts/State'
import { RowLink, Table } from '../parts/Table'

type Line = ReviewList['shares'][number]

/** Shares with what was decided of their rights last, those first that nobody has looked at. */
export function ReviewTable({ list }: { readonly list: ReviewList }) {
  const rows = [...list.shares].sort((a, b) => Date.parse(a.latest?.at ?? '0') - Date.parse(b.latest?.at ?? '0'))
  return (
    <Table
      rows={rows}
      keyOf={({ share }) => share.id}
      columns={[
        { head: 'Share', cell: ({ share }) => <RowLink href={`/grant/reviews/${share.id}`}>{share.name}</RowLink> },
        { head: 'Rights', cell: ({ lines }) => lines.length, isNumber: true },
        { head: 'Looked at', cell: ({ latest }) => (latest === null ? 'never' : <Ago at={latest.at} />) },
        { head: 'By', cell: ({ latest }) => latest?.madeBy },
        { head: 'Since then', cell: ({ lines, latest }) => <Since lines={lines} latest={latest} /> },
      ]}
    />
  )
}

function Since({ lines, latest }: Pick<Line, 'lines' | 'latest'>) {
  if (latest === null) return <State gravity="soon">nobody has decided</State>
  const words = sinceWords(lines, latest)
  return words === '' ? <State gravity="fine">as it was decided</State> : <State gravity="soon">{words}</State>
}

/** What is otherwise than was decided; empty where nothing is. */
function sinceWords(lines: readonly ReviewLine[], latest: Review): string {
  const { added, gone, stillThere } = sinceReview(lines, latest.lines)
  return [
    ...(stillThere.length === 0
      ? []
      : [`${countWords(stillThere.length, 'right', 'rights')} that should go still there`]),
    ...(added.length === 0 ? [] : [`${countWords(added.length, 'right', 'rights')} given since`]),
    ...(gone.length === 0 ? [] : [`${countWords(gone.length, 'right', 'rights')} taken away since`]),
  ].join(', ')
}

/** How much has been looked at. */
export function ReviewSentence({ list: { shares, shareCount } }: { readonly list: ReviewList }) {
  const never = shares.filter(({ latest }) => latest === null).length
  const otherwise = shares.filter(({ lines, latest }) => latest !== null && sinceWords(lines, latest) !== '').length
  return (
    <p className="sentence">
      <b>
        {shares.length === 0
          ? 'No share is there yet.'
          : never === 0
            ? 'Every share has been looked at.'
            : `${countAtStart(never, 'share was', 'shares were')} never looked at.`}
      </b>{' '}
      {otherwise > 0 && `Of ${countWords(otherwise, 'share', 'shares')} the rights are no longer as was decided. `}
      {shareCount > shares.length && `${countAtStart(shareCount - shares.length, 'share is', 'shares are')} left out. `}
      A review says of each right whether it stays or goes, and is kept with who decided.
    </p>
  )
}
