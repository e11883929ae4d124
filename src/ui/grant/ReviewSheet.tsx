'use client'
import { useRouter } from 'next/navigation'
import { useState } from 'react'
import { everybody, type ReviewLine } from '@/core/access'
import type { CodedRefusal } from '@/core/errors'
import { countWords } from '@/core/units'
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
  const router = useRouter()
  const [verdicts, setVerdicts] = useState<Readonly<Record<string, Verdict>>>({})
  const [note, setNote] = useState('')
  const [isBusy, setBusy] = useState(false)
  const [refusal, setRefusal] = useState<CodedRefusal>()
  const open = lines.filter(({ key }) => verdicts[key] === undefined).length
  const keep = async () => {
    setBusy(true)
    // What was decided of a right that is gone meanwhile is not sent: of those that are there each has to be.
    const asked = Object.fromEntries(
      lines.flatMap(({ key }) => (verdicts[key] === undefined ? [] : [[key, verdicts[key]]])),
    )
    const answer = await ask('POST', `/shares/${share.id}/reviews`, { note, verdicts: asked })
    setBusy(false)
    setRefusal(answer.ok ? undefined : answer.refusal)
    if (!answer.ok) return router.refresh()
    setVerdicts({})
    setNote('')
    toast.success('The review is kept.')
    router.refresh()
  }
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
            <tr key={line.key}>
              <td>
                <b className="font-semibold">{line.words}</b>
                <div className="text-sm text-second">
                  {line.of === 'grant' ? 'a grant, over SMB' : 'an export rule, over NFS'}
                </div>
              </td>
              <td data-head="Behind it" className="text-second">
                <BehindLine line={line} found={behind.find(({ who }) => who === line.who)} />
              </td>
              <td className="[&_.label]:sr-only">
                <Choice
                  label={line.words}
                  value={verdicts[line.key] ?? ''}
                  options={choices as readonly { readonly value: Verdict | ''; readonly words: string }[]}
                  onChange={verdict => {
                    if (verdict !== '') setVerdicts(was => ({ ...was, [line.key]: verdict }))
                  }}
                />
              </td>
            </tr>
          ))}
        </tbody>
      </table>
      {lines.length > 0 && (
        <div className="mt-3 max-w-[620px]">
          <NoteField
            hint="For whoever looks at it next; it may be left empty."
            rows={2}
            value={note}
            onChange={setNote}
          />
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
      )}
    </form>
  )
}

function BehindLine({ line, found }: { readonly line: ReviewLine; readonly found: Behind | undefined }) {
  if (line.of === 'rule') return <>whoever is on those hosts, as far as modes let them</>
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
