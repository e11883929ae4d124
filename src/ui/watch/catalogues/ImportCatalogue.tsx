'use client'
import type { ShownChange } from '@/core/views'
import { IntentForm } from '../../drafts/IntentForm'

/** A firmware catalogue from a file: nothing is fetched. */
export const ImportCatalogue = ({ kept }: { readonly kept?: ShownChange | undefined }) => (
  <IntentForm kind="import-catalogue" title="Import a firmware catalogue" begin={{}} kept={kept} />
)
