import type { ReactNode } from 'react'
import { keptDraft } from '@/app/server/keptDraft'
import type { System } from '@/core/estate'
import type { Finding } from '@/core/findings'
import { intents, isDrawn } from '@/core/intents'
import { IntentForm } from '@/ui/drafts'

const aboutSystems = intents.filter(
  each => each.place === '/build/systems/{systemId}' && each.form !== undefined && !isDrawn(each),
)

/** The form of whatever is drafted about a system and is not drawn; undefined where that is nothing. */
export async function systemDraft(
  system: System,
  { draft, change }: { readonly draft?: string | undefined; readonly change?: string | undefined },
  finding: Finding | undefined,
): Promise<ReactNode | undefined> {
  if (draft === 'sign-exception' && finding !== undefined)
    return (
      <IntentForm
        kind={draft}
        title={`Let stand: ${finding.title}`}
        begin={{ findingKey: finding.key, findingTitle: finding.title, gravity: finding.gravity }}
        kept={await keptDraft(change, draft)}
      />
    )
  const about = aboutSystems.find(each => each.kind === draft)
  if (about === undefined) return undefined
  return (
    <IntentForm
      kind={about.kind}
      title={`${about.title}: ${system.name}`}
      begin={{ systemId: system.id }}
      name={system.clusterName ?? ''}
      kept={await keptDraft(change, about.kind)}
    />
  )
}
