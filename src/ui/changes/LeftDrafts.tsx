import { Link } from '../parts/Link'
import type { ChangeSummary } from '@/core/views'
import { Ago } from '../parts/Ago'

interface LeftDraftsProps {
  readonly drafts: readonly { readonly change: ChangeSummary; readonly href: string }[]
}

/** Drafts that somebody has left here, to go on with. */
export function LeftDrafts({ drafts }: LeftDraftsProps) {
  if (drafts.length === 0) return null
  return (
    <>
      <h3>
        Left as drafts <span>go on with one</span>
      </h3>
      {drafts.map(({ change, href }) => (
        <div key={change.id} className="flex justify-between gap-3 border-b border-rule-fine py-[5px]">
          <Link className="min-w-0 truncate no-underline hover:text-action" href={href} scroll={false}>
            {change.title}
          </Link>
          <span className="shrink-0 text-sm text-second">
            {change.editedBy}, <Ago at={change.madeAt} />
          </span>
        </div>
      ))}
    </>
  )
}
