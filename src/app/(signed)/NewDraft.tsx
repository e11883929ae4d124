import { Link } from '@/ui/parts/Link'
import type { ReactNode } from 'react'
import { reader } from '@/app/server/guard'
import { draftHref } from '@/app/server/keptDraft'
import { leftDraft } from '@/records/changes'

const uuids = /[0-9a-f]{8}(-[0-9a-f]{4}){3}-[0-9a-f]{12}/g

/**
 * Begins a draft here; where whoever asks has left one of the same kind about the same objects, goes on with that one.
 * @param href where another one is begun: its `draft` names the kind, ids in it the objects
 */
export async function NewDraft({ href, children }: { readonly href: string; readonly children: ReactNode }) {
  const { scope, who } = await reader()
  const kind = new URL(href, 'http://here.invalid').searchParams.get('draft') ?? ''
  const left = await leftDraft(scope, kind, who.name, href.match(uuids) ?? [])
  const goOn = left === undefined ? undefined : draftHref(left)
  const button = (to: string, words: ReactNode) => (
    <Link data-key="new" className="button" href={to}>
      {words} <kbd>n</kbd>
    </Link>
  )
  if (goOn === undefined) return button(href, children)
  return (
    <>
      {button(goOn, 'Go on with your draft')}
      <Link className="button quiet" href={href}>
        Begin another
      </Link>
    </>
  )
}
