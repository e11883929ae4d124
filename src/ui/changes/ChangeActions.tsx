'use client'
import { useRouter } from 'next/navigation'
import { useState } from 'react'
import type { CodedRefusal } from '@/core/errors'
import type { ShownChange } from '@/core/views'
import { ask } from '../api'
import { Refusal } from '../parts/Refusal'

interface Action {
  readonly words: string
  readonly path: string
  readonly isQuiet?: true
}

interface ChangeActionsProps {
  readonly change: ShownChange
  readonly draftHref: string | undefined
  readonly canReverse: boolean
}

const undo: Action = { words: 'Undo what it has made', path: 'undo', isQuiet: true }

/** The same once more, on the estate as it is now. */
const again: Action = { words: 'Draft it again', path: 'again', isQuiet: true }

/** What can be asked for of a change in its state. */
function actionsOf({ state, isStopWanted }: ShownChange, canReverse: boolean): readonly Action[] {
  switch (state) {
    case 'draft':
    case 'checked':
      return [{ words: 'Carry out', path: 'carry-out' }]
    case 'running':
      return isStopWanted ? [] : [{ words: 'Stop at the next safe point', path: 'stop', isQuiet: true }]
    case 'stopped':
      return [{ words: 'Go on', path: 'resume' }, undo]
    case 'unproven':
      return [{ words: 'Prove it again', path: 'resume' }, undo]
    case 'proven':
      return [...(canReverse ? [{ words: 'Draft the reverse', path: 'reverse', isQuiet: true } as const] : []), again]
    default:
      return [again]
  }
}

/** What can be done with a change as it stands now. */
export function ChangeActions({ change, draftHref, canReverse }: ChangeActionsProps) {
  const { act, refusal, isBusy } = useAct(change)
  return (
    <div className="mt-3">
      <div className="flex flex-wrap gap-2">
        {draftHref !== undefined && (
          <a className="button quiet" href={draftHref}>
            Edit the draft
          </a>
        )}
        {actionsOf(change, canReverse).map(action => (
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

/** Asks for something of the change, and shows what came of it. */
function useAct(change: ShownChange) {
  const router = useRouter()
  const [refusal, setRefusal] = useState<CodedRefusal>()
  const [isBusy, setBusy] = useState(false)
  const act = async (path: string) => {
    setBusy(true)
    setRefusal(undefined)
    // What this page shows is what is carried out.
    const body = path === 'carry-out' ? { planDigest: change.planDigest } : undefined
    const answer =
      path === again.path
        ? await ask<ShownChange>('POST', '/changes', { kind: change.kind, intent: change.intent })
        : await ask<ShownChange>('POST', `/changes/${change.id}/${path}`, body)
    setBusy(false)
    if (!answer.ok) {
      setRefusal(answer.refusal)
      return router.refresh()
    }
    if (answer.value.id === change.id) router.refresh()
    else router.push(`/changes/${answer.value.id}`)
  }
  return { act, refusal, isBusy }
}
