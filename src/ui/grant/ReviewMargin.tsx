'use client'
import { Link } from '../parts/Link'
import { useRouter } from 'next/navigation'
import { useState } from 'react'
import { modeLetters, sinceReview, withoutLines } from '@/core/access'
import type { CodedRefusal } from '@/core/errors'
import { alteringIntent, draftAddress, setShareRightsIntent } from '@/core/intents'
import { countWords } from '@/core/units'
import type { Review, ReviewPage } from '@/core/views'
import { ask } from '../api'
import { Margin } from '../frame'
import { Ago } from '../parts/Ago'
import { Refusal } from '../parts/Refusal'
import { State } from '../parts/State'

const classes = ['owner', 'group', 'other'] as const

interface PageProps {
  readonly page: ReviewPage
}

/** What was decided before, and what of it has not come about. */
export function ReviewMargin({ page }: PageProps) {
  const [latest, ...earlier] = page.reviews
  if (latest === undefined)
    return (
      <Margin>
        <h2>Never looked at</h2>
        <p className="mt-0 text-second">Nobody has decided yet which rights of {page.share.name} stay.</p>
        <Beneath page={page} />
      </Margin>
    )
  const { added, gone, stillThere } = sinceReview(page.lines, latest.lines)
  return (
    <Margin foot={stillThere.length > 0 && <TakeAway page={page} keys={stillThere.map(({ key }) => key)} />}>
      <h2>Latest review</h2>
      <Kept review={latest} />
      <Lines title="Should go, and is still there" lines={stillThere} gravity="soon" />
      <Lines title="Given since" lines={added} gravity="soon" />
      <Lines title="Taken away since" lines={gone} gravity="note" />
      {stillThere.length + added.length + gone.length === 0 && <State gravity="fine">All is as it was decided.</State>}
      <Beneath page={page} />
      {earlier.length > 0 && <h3>Earlier</h3>}
      {earlier.map(review => (
        <Kept key={review.id} review={review} />
      ))}
    </Margin>
  )
}

/** What files let besides, which no review of a share decides. */
const Beneath = ({ page: { share } }: PageProps) => (
  <>
    <h3>What files let besides</h3>
    <table className="plain">
      <tbody>
        <tr>
          <td className="text-second">Root of the share</td>
          <td className="mono">
            {share.acl.length > 0
              ? 'its access list counts'
              : `${share.mode} ${classes.map(of => modeLetters(share.mode, of)).join(' ')}`}
          </td>
        </tr>
        <tr>
          <td className="text-second">Of uid, gid</td>
          <td className="mono">
            {share.ownerUid}, {share.ownerGid}
          </td>
        </tr>
      </tbody>
    </table>
    <p>
      <Link className="textlink" href={`/provision/shares/${share.id}`}>
        Its rules, and who can
      </Link>
    </p>
  </>
)

export function Kept({ review: { at, madeBy, note, lines } }: { readonly review: Review }) {
  const goes = lines.filter(({ verdict }) => verdict === 'goes').length
  return (
    <div className="border-b border-rule-fine py-[5px]">
      <Ago at={at} /> by {madeBy}:{' '}
      {goes === 0 ? 'all stays' : `${countWords(goes, 'right', 'rights')} of ${lines.length} to go`}
      {note !== '' && <div className="text-second">“{note}”</div>}
    </div>
  )
}

const Lines = ({
  title,
  lines,
  gravity,
}: {
  readonly title: string
  readonly lines: readonly { readonly key: string; readonly words: string }[]
  readonly gravity: 'soon' | 'note'
}) =>
  lines.length === 0 ? null : (
    <>
      <h3>{title}</h3>
      {lines.map(({ key, words }) => (
        <div key={key} className="py-[2px]">
          <State gravity={gravity}>{words}</State>
        </div>
      ))}
    </>
  )

/** What should go becomes a draft, which is checked, carried out and tried as any other. */
function TakeAway({ page: { share }, keys }: PageProps & { readonly keys: readonly string[] }) {
  const router = useRouter()
  const [refusal, setRefusal] = useState<CodedRefusal>()
  const draft = async () => {
    const intent = alteringIntent(setShareRightsIntent, { ...share, ...withoutLines(share, new Set(keys)) })
    const answer = await ask<{ readonly id: string }>('POST', '/changes', { kind: setShareRightsIntent.kind, intent })
    if (!answer.ok) return setRefusal(answer.refusal)
    router.push(draftAddress(setShareRightsIntent, intent, answer.value.id) ?? '/changes')
  }
  return (
    <>
      {refusal !== undefined && <Refusal refusal={refusal} />}
      <button type="button" className="button" onClick={() => void draft()}>
        Draft it away
      </button>
    </>
  )
}
