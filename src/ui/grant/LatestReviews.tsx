import { Link } from '../parts/Link'
import type { ReviewList } from '@/core/views'
import { Kept } from './ReviewMargin'

const most = 8

/** What was decided last, of whichever share. */
export function LatestReviews({ list }: { readonly list: ReviewList }) {
  const kept = list.shares.flatMap(({ share, latest }) => (latest === null ? [] : [{ share, review: latest }]))
  if (kept.length === 0)
    return (
      <p className="mt-0 text-second">
        None yet. Rights are given for a reason, and reasons pass: open a share and say of each right whether it stays.
        What is to go becomes a draft, and what is given afterwards is told.
      </p>
    )
  return [...kept]
    .sort((a, b) => Date.parse(b.review.at) - Date.parse(a.review.at))
    .slice(0, most)
    .map(({ share, review }) => (
      <div key={review.id} className="mb-1">
        <Link className="font-semibold no-underline" href={`/grant/reviews/${share.id}`}>
          {share.name}
        </Link>
        <Kept review={review} />
      </div>
    ))
}
