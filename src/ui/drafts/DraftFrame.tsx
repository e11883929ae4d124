'use client'
import { useEffect, type ReactNode } from 'react'
import { Margin } from '../frame/Page'
import { Refusal } from '../parts/Refusal'
import { intentDifferences } from './intentDifferences'
import { PlanView } from './PlanView'
import { useSheetSketch } from './SheetSketch'
import type { Draft } from './useDraft'

interface DraftFrameProps<Intent> {
  readonly title: string
  readonly draft: Draft<Intent>
  readonly children: ReactNode
  readonly verb?: string
  /** What the plan draws stands on the sheet, not in the margin. */
  readonly isSketchBeside?: boolean
}

/** A draft in the margin: its fields, what they would do, and the foot with which it is carried out. */
export function DraftFrame<Intent>({
  title,
  draft,
  children,
  verb = 'Carry out',
  isSketchBeside = false,
}: DraftFrameProps<Intent>) {
  const { show } = useSheetSketch()
  const sketch = draft.plan?.sketch
  useEffect(() => {
    show(sketch)
    return () => show(undefined)
  }, [sketch, show])
  return (
    <Margin foot={<Foot draft={draft} verb={verb} />}>
      <h2 className="pr-12 break-words">{title}</h2>
      <div className="hint mb-3">Draft. Nothing has been changed yet.</div>
      {draft.foreign !== undefined && (
        <Foreign
          by={draft.foreign.editedBy}
          differences={intentDifferences(draft.intent, draft.foreign.intent)}
          settle={draft.settle}
        />
      )}
      {draft.differences.length > 0 && (
        <Told what="Meanwhile the estate has changed; this is the plan as it is now." lines={draft.differences} />
      )}
      {draft.refusal !== undefined && draft.differences.length === 0 && draft.foreign === undefined && (
        <Refusal refusal={draft.refusal} />
      )}
      {children}
      {draft.plan === undefined ? (
        <div className="mt-4 h-40 rounded-sm bg-rule-fine" aria-label="Computing" />
      ) : (
        <PlanView plan={draft.plan} isSketchBeside={isSketchBeside} />
      )}
    </Margin>
  )
}

interface FootProps {
  readonly draft: Pick<Draft<object>, 'isReady' | 'isBusy' | 'isKept' | 'carryOut' | 'discard'>
  readonly verb: string
}

const Foot = ({ draft: { isReady, isBusy, isKept, carryOut, discard }, verb }: FootProps) => (
  <>
    <button
      type="button"
      className="button"
      data-key="carry-out"
      disabled={!isReady || isBusy}
      onClick={() => void carryOut()}
    >
      {isBusy ? 'Carrying out' : verb} <kbd>⇧⏎</kbd>
    </button>
    <button type="button" className="button quiet" onClick={() => void discard()}>
      {isKept ? 'Discard' : 'Close'}
    </button>
    <span className="hint ml-auto">{isKept ? 'kept as a draft' : 'not kept yet'}</span>
  </>
)

interface ToldProps {
  readonly what: string
  readonly lines: readonly string[]
  readonly children?: ReactNode
}

const Told = ({ what, lines, children }: ToldProps) => (
  <div role="alert" className="refusal">
    <div className="font-semibold">{what}</div>
    <ul className="m-0 list-disc pl-4">
      {lines.map(words => (
        <li key={words} className="break-words">
          {words}
        </li>
      ))}
    </ul>
    {children}
  </div>
)

interface ForeignProps {
  readonly by: string
  readonly differences: readonly string[]
  readonly settle: Draft<object>['settle']
}

/** What somebody else has made of the draft meanwhile, and which of the two goes on. */
const Foreign = ({ by, differences, settle }: ForeignProps) => (
  <Told what={`${by} has altered this draft meanwhile.`} lines={differences}>
    <div className="mt-2 flex flex-wrap gap-2">
      <button type="button" className="button quiet" onClick={() => settle('theirs')}>
        Take it as it is there
      </button>
      <button type="button" className="button quiet" onClick={() => settle('mine')}>
        Keep what stands here
      </button>
    </div>
  </Told>
)
