'use client'
import { Link } from '../parts/Link'
import { useRouter } from 'next/navigation'
import { useState } from 'react'
import { everybody, type ReviewLine } from '@/core/access'
import type { CodedRefusal } from '@/core/errors'
import { countAtStart, countWords } from '@/core/units'
import type { Behind, ReviewPage } from '@/core/views'
import { ask } from '../api'
import { Choice } from '../parts/Choice'
import { NoteField } from '../parts/NoteField'
import { Refusal } from '../parts/Refusal'
import { toast } from '../parts/toast'

type Verdict = 'stays' | 'goes'
const choices = [
  { value: 'stays', words: 'stays' },
  { value: 'goes', words: 'goes' },
] as const

/** Every right of a share, each to be decided: who it is for, who is behind that, and whether it stays. */
export function ReviewSheet({ page: { share, lines, behind } }: { readonly page: ReviewPage }) {
  const { verdicts, decide, keep, ...rest } = useReview(share.id, lines)
  const open = lines.filter(({ key }) => verdicts[key] === undefined).length
  return (
    <form
      onSubmit={event => {
        event.preventDefault()
        void keep()
      }}
    >
      <table className="plain rows">
        <thead>
          <tr>
            <th className="w-[36%]">Right</th>
            <th>Who is behind it</th>
            <th className="w-[150px]">Stays or goes</th>
          </tr>
        </thead>
        <tbody>
          {lines.map(line => (
            <LineRow
              key={line.key}
              line={line}
              found={behind.find(({ who }) => who === line.who)}
              verdict={verdicts[line.key]}
              decide={verdict => decide(line.key, verdict)}
            />
          ))}
        </tbody>
      </table>
      {share.serviceGrants.length > 0 && <OfService share={share} />}
      {lines.length > 0 && <Foot {...rest} open={open} />}
    </form>
  )
}

/** What has been decided so far, and keeping it. */
function useReview(shareId: string, lines: readonly ReviewLine[]) {
  const router = useRouter()
  const [verdicts, setVerdicts] = useState<Readonly<Record<string, Verdict>>>({})
  const [note, setNote] = useState('')
  const [isBusy, setBusy] = useState(false)
  const [refusal, setRefusal] = useState<CodedRefusal>()
  const decide = (key: string, verdict: Verdict) => setVerdicts(was => ({ ...was, [key]: verdict }))
  const keep = async () => {
    setBusy(true)
    // What was decided of a right that is gone meanwhile is not sent: of those that are there each has to be.
    const asked = Object.fromEntries(
      lines.flatMap(({ key }) => (verdicts[key] === undefined ? [] : [[key, verdicts[key]]])),
    )
    const answer = await ask('POST', `/shares/${shareId}/reviews`, { note, verdicts: asked })
    setBusy(false)
    setRefusal(answer.ok ? undefined : answer.refusal)
    if (!answer.ok) return router.refresh()
    setVerdicts({})
    setNote('')
    toast.success('The review is kept.')
    router.refresh()
  }
  return { verdicts, decide, keep, note, setNote, refusal, isBusy }
}

const OfService = ({ share: { serviceGrants, fileServiceId } }: Pick<ReviewPage, 'share'>) => (
  <p className="text-second">
    {countAtStart(serviceGrants.length, 'grant', 'grants')} of its whole file service{' '}
    {serviceGrants.length === 1 ? 'counts' : 'count'} for it as well:{' '}
    <Link className="textlink" href={`/provision/file-services/${fileServiceId}`}>
      they are set there
    </Link>
    .
  </p>
)

interface FootProps {
  readonly note: string
  readonly setNote: (note: string) => void
  readonly refusal: CodedRefusal | undefined
  /** How many are still to be decided. */
  readonly open: number
  readonly isBusy: boolean
}

const Foot = ({ note, setNote, refusal, open, isBusy }: FootProps) => (
  <div className="mt-3 max-w-[620px]">
    <NoteField hint="For whoever looks at it next; it may be left empty." rows={2} value={note} onChange={setNote} />
    {refusal !== undefined && <Refusal refusal={refusal} />}
    <div className="flex items-center gap-3">
      <button type="submit" className="button" disabled={open > 0 || isBusy}>
        Keep the review
      </button>
      <span className="text-second">
        {open > 0 && `${countWords(open, 'right is', 'rights are')} still to be decided`}
      </span>
    </div>
  </div>
)

interface LineRowProps {
  readonly line: ReviewLine
  readonly found: Behind | undefined
  readonly verdict: Verdict | undefined
  readonly decide: (verdict: Verdict) => void
}

const LineRow = ({ line, found, verdict, decide }: LineRowProps) => (
  <tr>
    <td>
      <b className="font-semibold">{line.words}</b>
      <div className="text-sm text-second">
        {line.of === 'grant' ? 'a grant, over SMB' : 'an export rule, over NFS'}
      </div>
    </td>
    <td data-head="Behind it" className="text-second">
      <BehindLine line={line} found={found} />
    </td>
    <td className="[&_.label]:sr-only">
      <Choice
        label={line.words}
        value={verdict ?? ''}
        options={choices as readonly { readonly value: Verdict | ''; readonly words: string }[]}
        onChange={chosen => {
          if (chosen !== '') decide(chosen)
        }}
      />
    </td>
  </tr>
)

function BehindLine({ line, found }: { readonly line: ReviewLine; readonly found: Behind | undefined }) {
  if (line.of === 'rule') return <>whoever is on those hosts, as far as modes let them</>
  if (line.of === 'entry') return <>whoever has that number, or is so to its root</>
  if (found === undefined) return <>nobody that a directory knows and lets sign in</>
  const { people, names } = found
  const more = people - names.length
  return (
    <>
      {line.who === everybody || people > 1 ? `${people.toLocaleString('en')} people: ` : ''}
      {names.join(', ')}
      {more > 0 && ` and ${more.toLocaleString('en')} more`}
    </>
  )
}
