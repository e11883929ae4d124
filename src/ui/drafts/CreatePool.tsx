'use client'
import { group } from 'd3-array'
import { useMemo } from 'react'
import { kindWords, type Drive, type System } from '@/core/estate'
import type { CreatePoolIntent } from '@/core/intents'
import { unpacked, type ShownChange, type Packed } from '@/core/views'
import { IntentForm } from './IntentForm'
import { newPoolIntent } from './newPoolIntent'
import { usePoolChoice } from './PoolChoice'
import type { Draft } from './useDraft'
import { useChosenDrives, useShownSketch } from './useShared'

interface CreatePoolProps {
  readonly system: System
  readonly drives: Packed<Drive>
  readonly kept?: ShownChange | undefined
}

/** Drafting a pool: drives by kind or by clicking bays, the layout, and what it gives while it is chosen. */
export const CreatePool = ({ system, drives, kept }: CreatePoolProps) => (
  <IntentForm<CreatePoolIntent>
    kind="create-pool"
    title={`New pool on ${system.name}`}
    begin={newPoolIntent(system.id)}
    parts={{ driveIds: draft => <PoolDrives draft={draft} drives={drives} /> }}
    kept={kept}
  />
)

/** Unassigned drives by kind, to be taken or given back at one stroke; single ones are chosen in the bays. */
function PoolDrives({ draft, drives }: Pick<CreatePoolProps, 'drives'> & { readonly draft: Draft<CreatePoolIntent> }) {
  const all = useMemo(() => unpacked(drives), [drives])
  const { chosen, choose, show } = usePoolChoice()
  useChosenDrives(draft, chosen)
  useShownSketch(draft.plan?.sketch, 'pool', show)
  const kinds = group(
    all.filter(each => each.role === 'unassigned' && each.state === 'fine'),
    kindWords,
  )
  return (
    <div className="mb-[9px]">
      <span className="label">Drives</span>
      {kinds.size === 0 && <div className="advice">No healthy drive of this system is unassigned.</div>}
      {[...kinds].map(([words, own]) => (
        <DriveKind key={words} words={words} own={own} chosen={chosen} choose={choose} />
      ))}
      <div className="hint">Or choose bays in the drawing, by pointer or keyboard; Shift goes on choosing.</div>
    </div>
  )
}

interface DriveKindProps {
  readonly words: string
  readonly own: readonly Drive[]
  readonly chosen: readonly string[]
  readonly choose: (ids: readonly string[]) => void
}

function DriveKind({ words, own, chosen, choose }: DriveKindProps) {
  const taken = own.filter(drive => chosen.includes(drive.id))
  const isAll = taken.length === own.length
  const others = chosen.filter(id => !own.some(drive => drive.id === id))
  return (
    <div className="flex items-center justify-between gap-2 border-b border-rule-fine py-1">
      <span>
        {words}: <b>{taken.length}</b> of {own.length} chosen
      </span>
      <button
        type="button"
        className="button quiet py-[2px]"
        onClick={() => choose(isAll ? others : [...others, ...own.map(drive => drive.id)])}
      >
        {isAll ? 'Take none' : `Take all ${own.length}`}
      </button>
    </div>
  )
}
