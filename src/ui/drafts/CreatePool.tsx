'use client'
import { useEffect } from 'react'
import type { Drive, RaidSchemeText, System } from '@/core/estate'
import type { CreatePoolIntent } from '@/core/intents'
import type { ChangeRecord } from '@/core/views'
import { formatBytes } from '@/core/units'
import { Choice } from '../parts/Choice'
import { NameField } from '../parts/NameField'
import { NumberField } from '../parts/NumberField'
import { DraftFrame } from './DraftFrame'
import { newPoolIntent } from './newPoolIntent'
import { usePoolChoice } from './PoolChoice'
import { useDraft } from './useDraft'

const layouts = [
  { value: 'mirror-2', words: 'mirror 2', scheme: { kind: 'mirror', copies: 2 } },
  { value: 'mirror-3', words: 'mirror 3', scheme: { kind: 'mirror', copies: 3 } },
  { value: 'parity-1', words: 'parity 1', scheme: { kind: 'parity', parityDrives: 1 } },
  { value: 'parity-2', words: 'parity 2', scheme: { kind: 'parity', parityDrives: 2 } },
  { value: 'parity-3', words: 'parity 3', scheme: { kind: 'parity', parityDrives: 3 } },
] as const
const layoutOf = (scheme: RaidSchemeText) =>
  layouts.find(each => JSON.stringify(each.scheme) === JSON.stringify(scheme))?.value ?? 'parity-2'

/** Drafting a pool: drives by kind or by clicking bays, the layout, and what it gives while it is chosen. */
export function CreatePool({
  system,
  drives,
  kept,
}: {
  readonly system: System
  readonly drives: readonly Drive[]
  readonly kept?: ChangeRecord | undefined
}) {
  const choice = usePoolChoice()
  const draft = useDraft<CreatePoolIntent>('create-pool', newPoolIntent(system.id), kept)
  const { intent, set } = draft
  const { chosen, show } = choice
  useEffect(() => {
    if (JSON.stringify(chosen) !== JSON.stringify(intent.driveIds)) set({ driveIds: chosen })
  }, [chosen, intent.driveIds, set])
  const sketch = draft.plan?.sketch
  useEffect(() => show(sketch?.of === 'pool' ? sketch : undefined), [sketch, show])

  const suggestion = draft.plan?.suggestions?.['name'] ?? ''
  return (
    <DraftFrame title={`New pool on ${system.name}`} draft={draft} verb="Carry out">
      <NameField
        hint="Letters, digits, . _ - ; can't be changed on most systems."
        value={intent.name}
        suggestion={suggestion}
        error={draft.errorOf('name')}
        onChange={name => set({ name })}
      />
      <DriveKinds drives={drives} chosen={chosen} choose={choice.choose} />
      <Choice
        label="Layout"
        value={layoutOf(intent.scheme)}
        options={layouts}
        onChange={value => set({ scheme: layouts.find(each => each.value === value)?.scheme ?? intent.scheme })}
      />
      <div className="grid grid-cols-3 gap-[10px]">
        <NumberField
          label="Largest group"
          hint="drives"
          value={intent.maxGroupDrives}
          least={1}
          most={64}
          error={draft.errorOf('maxGroupDrives')}
          onChange={value => set({ maxGroupDrives: value })}
        />
        <NumberField
          label="Spares"
          hint="drives kept back"
          value={intent.spareCount}
          least={0}
          most={100}
          onChange={value => set({ spareCount: value })}
        />
        <NumberField
          label="Snapshot reserve"
          hint="% of usable"
          value={intent.snapshotSharePercent}
          least={0}
          most={50}
          onChange={value => set({ snapshotSharePercent: value })}
        />
      </div>
    </DraftFrame>
  )
}

/** Unassigned drives by kind, to be taken or given back at one stroke; single ones are chosen in the bays. */
function DriveKinds({
  drives,
  chosen,
  choose,
}: {
  readonly drives: readonly Drive[]
  readonly chosen: readonly string[]
  readonly choose: (ids: readonly string[]) => void
}) {
  const kinds = new Map<string, Drive[]>()
  for (const drive of drives.filter(each => each.role === 'unassigned' && each.state === 'fine')) {
    const words = `${formatBytes(drive.capacityBytes, 'decimal')} ${drive.protocol === 'NVMe' ? 'NVMe' : drive.media}`
    kinds.set(words, [...(kinds.get(words) ?? []), drive])
  }
  const isChosen = new Set(chosen)
  return (
    <div className="mb-[9px]">
      <span className="label">Drives</span>
      {kinds.size === 0 && <div className="advice">No healthy drive of this system is unassigned.</div>}
      {[...kinds].map(([words, own]) => {
        const taken = own.filter(drive => isChosen.has(drive.id))
        const isAll = taken.length === own.length
        const others = chosen.filter(id => !own.some(drive => drive.id === id))
        return (
          <div key={words} className="flex items-center justify-between gap-2 border-b border-rule-fine py-1">
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
      })}
      <div className="hint">Or choose bays in the drawing: click or Space; with Shift from the last one to this.</div>
    </div>
  )
}
