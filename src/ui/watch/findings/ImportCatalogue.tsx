'use client'
import type { ImportCatalogueIntent } from '@/core/intents'
import type { ChangeRecord } from '@/core/views'
import { DraftFrame } from '../../drafts/DraftFrame'
import { useDraft } from '../../drafts/useDraft'
import { Field } from '../../parts/Field'

/** A firmware catalogue from a file: nothing is fetched. */
export function ImportCatalogue({ kept }: { readonly kept?: ChangeRecord | undefined }) {
  const draft = useDraft<ImportCatalogueIntent>('import-catalogue', { text: '' }, kept)
  return (
    <DraftFrame title="Import a firmware catalogue" draft={draft} verb="Import">
      <Field
        label="Catalogue file"
        hint="JSON, format wendrel-firmware-catalogue-1. It is read here; nothing goes to its maker."
        error={draft.errorOf('text')}
      >
        {props => (
          <input
            {...props}
            type="file"
            accept="application/json,.json"
            className="field h-auto"
            onChange={event => {
              const [file] = event.target.files ?? []
              if (file !== undefined) void file.text().then(text => draft.set({ text }))
            }}
          />
        )}
      </Field>
    </DraftFrame>
  )
}
