'use client'
import type { System } from '@/core/estate'
import type { ChangeRecord } from '@/core/views'
import { DraftFrame } from './DraftFrame'
import { useDraft } from './useDraft'

/** Says that what is missing of a system is gone for good. */
export function ForgetMissing({ system, kept }: { readonly system: System; readonly kept?: ChangeRecord | undefined }) {
  const draft = useDraft('forget-missing', { systemId: system.id }, kept)
  return (
    <DraftFrame title={`Forget what is missing of ${system.name}`} draft={draft} verb="Forget it">
      <p className="mt-0">
        Look at the system itself first. What it no longer states stays on record as missing until you say that it is
        gone for good; what it states again by then is kept.
      </p>
    </DraftFrame>
  )
}
