import { Link } from '../../parts/Link'
import { connected, type Part } from '@/core/threads'
import type { ThreadPage } from '@/core/views'
import { arrange } from '@/core/findings'
import { countWords } from '@/core/units'
import { Margin } from '../../frame'
import { Mark, State } from '../../parts/State'

interface ThreadMarginProps {
  readonly page: ThreadPage
  readonly part: Part
}

const shown = 8

/** A part: how it stands, what explains it, what it carries and what it needs. */
export function ThreadMargin({ page, part }: ThreadMarginProps) {
  const { threads, states, findings } = page
  const state = states[part.key]
  const { carries, needs, keys } = connected(threads, part.key)
  const systems = new Set([...keys].flatMap(key => states[key]?.systemId ?? []))
  const causes = arrange(findings.filter(({ systemId }) => systems.has(systemId)).map(({ finding }) => finding))
  return (
    <Margin
      foot={
        state?.href == null ? undefined : (
          <Link className="button quiet" href={state.href}>
            Its page
          </Link>
        )
      }
    >
      <h2 className="pr-12 break-words">{part.name}</h2>
      {state !== undefined && <State gravity={state.gravity}>{state.words}</State>}
      <h3>
        What may explain it <span>what stands about its systems, causes first</span>
      </h3>
      {causes.length === 0 && <p className="mt-0 text-second">Nothing is found amiss where it stands.</p>}
      {causes.slice(0, shown).map(cause => (
        <Cause key={cause.finding.key} {...cause} />
      ))}
      <Parts title="What it carries" parts={carries} states={states} none="Nothing stands on it." />
      <Parts title="What it needs" parts={needs} states={states} none="It stands on nothing further." />
    </Margin>
  )
}

/** A finding, with what follows from it. */
const Cause = ({ finding, beneath }: ReturnType<typeof arrange>[number]) => (
  <div className="border-b border-rule-fine py-[5px]">
    <div className="flex items-baseline gap-[6px]">
      <Mark gravity={finding.gravity} />
      <b className="font-semibold">{finding.title}</b>
    </div>
    <div className="text-second">{finding.risk}</div>
    {beneath.map(each => (
      <div key={each.finding.key} className="pl-4 text-xs text-second">
        and so: {each.finding.title}
      </div>
    ))}
  </div>
)

interface PartsProps {
  readonly title: string
  readonly parts: readonly Part[]
  readonly states: ThreadPage['states']
  readonly none: string
}

const Parts = ({ title, parts, states, none }: PartsProps) => (
  <>
    <h3>{title}</h3>
    {parts.length === 0 && <p className="mt-0 text-second">{none}</p>}
    {parts.slice(0, shown).map(part => {
      const state = states[part.key]
      return (
        <div key={part.key} className="flex justify-between gap-3 border-b border-rule-fine py-[4px]">
          <Link className="textlink min-w-0 truncate" href={`?sel=${encodeURIComponent(part.key)}`} scroll={false}>
            {part.name}
          </Link>
          {state !== undefined && <State gravity={state.gravity}>{state.words}</State>}
        </div>
      )
    })}
    {parts.length > shown && <p className="text-second">and {countWords(parts.length - shown, 'more', 'more')}.</p>}
  </>
)
