import { redirect } from 'next/navigation'
import { draftAddress, intentNamed } from '@/core/intents'
import { shownChange, type ChangeSummary, type ShownChange } from '@/core/views'
import { changeById, changeSummaries } from '@/records/changes'
import { reader } from './guard'
import { isUuid } from '@/core/input'

/** The draft that an address names, if it is still one and of that kind. */
export async function keptDraft(id: string | undefined, kind: string): Promise<ShownChange | undefined> {
  if (id === undefined || !isUuid(id)) return undefined
  const change = await changeById((await reader()).scope, id)
  if (change?.kind !== kind) return undefined
  // What has been carried out is no draft any more: its old address leads to the change, also where a page was left behind there.
  if (change.state !== 'draft' && change.state !== 'checked') redirect(`/changes/${change.id}`)
  return shownChange(change)
}

/** Where a draft is edited; undefined for a change that is none. */
export function draftHref({
  id,
  kind,
  state,
  intent,
}: Pick<ShownChange, 'id' | 'kind' | 'state' | 'intent'>): string | undefined {
  const drafted = intentNamed(kind)
  return drafted === undefined || (state !== 'draft' && state !== 'checked')
    ? undefined
    : draftAddress(drafted, intent, id)
}

const mostDrafts = 6

/** Drafts that stand on pages below a path, the latest first, for whoever goes on with them. */
export async function draftsBelow(path: string): Promise<{ readonly change: ChangeSummary; readonly href: string }[]> {
  const { scope } = await reader()
  const drafts = await changeSummaries(scope, 50, { states: ['draft', 'checked'] })
  return drafts
    .flatMap(change => {
      const href = draftHref(change)
      return href === undefined || !href.startsWith(path) ? [] : [{ change, href }]
    })
    .slice(0, mostDrafts)
}
