'use client'
import { useRouter } from 'next/navigation'
import { useState } from 'react'
import type { CodedRefusal } from '@/core/errors'
import type { ChangeRecord } from '@/core/views'
import { ask } from '../api'
import { Refusal } from '../parts/Refusal'

interface Action {
  readonly words: string
  readonly path: string
  readonly isQuiet?: true
}

/** What can be done with a change as it stands now. */
export function ChangeActions({
  change,
  draftHref,
  canReverse,
}: {
  readonly change: ChangeRecord
  readonly draftHref: string | undefined
  readonly canReverse: boolean
}) {
  const router = useRouter()
  const [refusal, setRefusal] = useState<CodedRefusal>()
  const [isBusy, setBusy] = useState(false)
  const act = async (path: string) => {
    setBusy(true)
    setRefusal(undefined)
    // What this page shows is what is carried out.
    const body = path === 'carry-out' ? { planDigest: change.planDigest } : undefined
    const answer = await ask<ChangeRecord>('POST', `/changes/${change.id}/${path}`, body)
    setBusy(false)
    if (!answer.ok) {
      setRefusal(answer.refusal)
      return router.refresh()
    }
    if (answer.value.id === change.id) router.refresh()
    else router.push(`/changes/${answer.value.id}`)
  }
  const actions: readonly Action[] = [
    ...(change.state === 'draft' || change.state === 'checked' ? [{ words: 'Carry out', path: 'carry-out' }] : []),
    ...(change.state === 'running' && !change.isStopWanted
      ? [{ words: 'Stop at the next safe point', path: 'stop', isQuiet: true as const }]
      : []),
    ...(change.state === 'stopped'
      ? [
          { words: 'Go on', path: 'resume' },
          { words: 'Undo what it has made', path: 'undo', isQuiet: true as const },
        ]
      : []),
    ...(change.state === 'unproven'
      ? [
          { words: 'Prove it again', path: 'resume' },
          { words: 'Undo what it has made', path: 'undo', isQuiet: true as const },
        ]
      : []),
    ...(change.state === 'proven' && canReverse
      ? [{ words: 'Draft the reverse', path: 'reverse', isQuiet: true as const }]
      : []),
  ]
  return (
    <div className="mt-3">
      <div className="flex flex-wrap gap-2">
        {draftHref !== undefined && (
          <a className="button quiet" href={draftHref}>
            Edit the draft
          </a>
        )}
        {actions.map(action => (
          <button
            key={action.path}
            type="button"
            disabled={isBusy}
            className={action.isQuiet ? 'button quiet' : 'button'}
            {...(action.path === 'carry-out' ? { 'data-key': 'carry-out' } : {})}
            onClick={() => void act(action.path)}
          >
            {action.words}
          </button>
        ))}
        {change.isStopWanted && change.state === 'running' && (
          <span className="text-second">It stops at its next safe point.</span>
        )}
      </div>
      {refusal !== undefined && <Refusal refusal={refusal} />}
    </div>
  )
}
