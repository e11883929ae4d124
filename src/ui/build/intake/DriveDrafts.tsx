'use client'
import { suffixOf, type Drive } from '@/core/estate'
import type { EraseDriveIntent, SetLocateLightIntent } from '@/core/intents'
import type { ChangeRecord } from '@/core/views'
import { DraftFrame } from '../../drafts/DraftFrame'
import { useDraft } from '../../drafts/useDraft'
import { Choice } from '../../parts/Choice'
import { TextField } from '../../parts/TextField'

/** Erasing what an earlier use has left; asks for what stands on the drive's label. */
export function EraseDrive({ drive, kept }: { readonly drive: Drive; readonly kept: ChangeRecord | undefined }) {
  const draft = useDraft<EraseDriveIntent>(
    'erase-drive',
    { systemId: drive.systemId, driveId: drive.id, lastFour: '', isWhole: false },
    kept,
  )
  return (
    <DraftFrame title={`Erase drive ${suffixOf(drive.serial)}`} draft={draft} verb="Erase">
      <Choice
        label="How much"
        value={draft.intent.isWhole ? 'whole' : 'heads'}
        options={[
          { value: 'heads', words: 'tables and heads' },
          { value: 'whole', words: 'every sector' },
        ]}
        onChange={value => draft.set({ isWhole: value === 'whole' })}
      />
      <TextField
        label="Last four characters of its serial number"
        hint="As they stand on its label and on the bay."
        error={draft.errorOf('lastFour')}
        maxLength={20}
        value={draft.intent.lastFour}
        isMono
        onChange={value => draft.set({ lastFour: value })}
      />
    </DraftFrame>
  )
}

/** Switching the lights of some drives of one system. */
export function SetLocateLight({
  drives,
  kept,
}: {
  readonly drives: readonly Drive[]
  readonly kept: ChangeRecord | undefined
}) {
  const [first] = drives
  const draft = useDraft<SetLocateLightIntent>(
    'set-locate-light',
    { systemId: first?.systemId ?? '', driveIds: drives.map(drive => drive.id), isOn: first?.isLit !== true },
    kept,
  )
  return (
    <DraftFrame
      title={
        drives.length === 1
          ? `Locate light of ${suffixOf(first?.serial ?? '')}`
          : `Locate lights of ${drives.length} drives`
      }
      draft={draft}
    >
      <Choice
        label="Light"
        value={draft.intent.isOn ? 'on' : 'off'}
        options={[
          { value: 'on', words: 'on' },
          { value: 'off', words: 'off' },
        ]}
        onChange={value => draft.set({ isOn: value === 'on' })}
      />
      {drives.length > 1 && (
        <p className="mono m-0 text-second">{drives.map(drive => suffixOf(drive.serial)).join(' ')}</p>
      )}
    </DraftFrame>
  )
}
