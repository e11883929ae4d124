import { Link } from '../parts/Link'
import type { ChangeLine } from '@/core/views'
import { Ago } from '../parts/Ago'
import { ChangeState } from './ChangeState'

interface ChangeLinesProps {
  readonly changes: readonly ChangeLine[]
  /** What stands there where there is none. */
  readonly none?: string
}

/** Changes, a line each, that lead to what happened. */
export const ChangeLines = ({ changes, none }: ChangeLinesProps) => (
  <>
    {changes.map(({ id, title, state, at }) => (
      <div key={id} className="flex items-baseline justify-between gap-3 border-b border-rule-fine py-[5px]">
        <Link data-row href={`/changes/${id}`} className="min-w-0 truncate no-underline" data-hint={title}>
          {title}
        </Link>
        <span className="shrink-0 text-sm text-second">
          <ChangeState state={state} /> <Ago at={at} />
        </span>
      </div>
    ))}
    {changes.length === 0 && none !== undefined && <p className="mt-0 text-second">{none}</p>}
  </>
)
