import { Link } from '@/ui/parts/Link'
import type { ReactNode } from 'react'
import { choicesFor } from '@/app/server/choices'
import { reader } from '@/app/server/guard'
import { keptDraft } from '@/app/server/keptDraft'
import { pageOf, type ObjectKind } from '@/core/estate'
import { isUuid } from '@/core/input'
import { alteringIntent, draftAddress, intents, type IntentKind } from '@/core/intents'
import type { ObjectList, ObjectPage } from '@/core/views'
import { changesAbout } from '@/records/changes'
import { hostWays, objectById, unknownHosts } from '@/records/queries'
import { ChangeLines } from '@/ui/changes'
import { IntentForm, KeyedDraft } from '@/ui/drafts'
import { Margin } from '@/ui/frame'
import { ObjectFacts } from '@/ui/kinds'
import { DisksSeen, Unknown } from '@/ui/provision/hosts'
import { NewDraft } from './NewDraft'
import { plain } from './plain'
import { Referring } from './Referring'

type Params = Readonly<Record<string, string | undefined>>

/** What is drafted on a kind's page, the object that is selected, or how many there are by system. */
export async function kindMargin(kind: ObjectKind, params: Params, first: ObjectList<object>, within: object) {
  const { scope } = await reader()
  const drafted = [...begunHere(kind), ...aboutOne(kind)].find(each => each.kind === params['draft'])
  if (drafted !== undefined)
    return (
      <KeyedDraft id={params['change']} of={drafted.kind}>
        <IntentForm
          kind={drafted.kind}
          title={drafted.title}
          begin={await beginningOf(kind, drafted, params)}
          choices={await choicesFor(drafted)}
          kept={await keptDraft(params['change'], drafted.kind)}
        />
      </KeyedDraft>
    )
  const id = params['sel']
  const found = id === undefined || !isUuid(id) ? undefined : await objectById(scope, kind.name, id)
  return found === undefined ? (
    <Unselected kind={kind} first={first} isWithin={Object.keys(within).length > 0}>
      {kind.name === 'hosts' && <Unknown unknown={await unknownHosts(scope)} />}
    </Unselected>
  ) : (
    <ObjectMargin kind={kind} found={found} />
  )
}

/** The field of an intent that names the object which is selected where it is drafted: `/place?sel={field}`. */
const selectedField = ({ place }: IntentKind) => /\?sel=\{(\w+)\}$/.exec(place ?? '')?.[1]
const beginOf = (intent: IntentKind, selected: string | undefined) => {
  const field = selectedField(intent)
  if (field === undefined || selected === undefined || !isUuid(selected)) return {}
  const { properties } = intent.intentSchema as {
    readonly properties: Readonly<Record<string, { readonly type?: unknown }>>
  }
  return { [field]: properties[field]?.type === 'array' ? [selected] : selected }
}
const mostLetters = 4000
/** What the link to a draft has filled in. */
const filledIn = ({ filledByLink = [] }: IntentKind, params: Params) =>
  Object.fromEntries(
    filledByLink.flatMap(field => {
      const text = params[field]
      return text === undefined ? [] : [[field, text.slice(0, mostLetters)]]
    }),
  )
/** What a draft begins with: what is altered as it is now, else that it is about what is selected. */
async function beginningOf(kind: ObjectKind, drafted: IntentKind, params: Params) {
  const selected = params['sel']
  if (drafted.alters === undefined || selected === undefined || !isUuid(selected))
    return { ...drafted.start, ...beginOf(drafted, selected), ...filledIn(drafted, params) }
  const found = await objectById((await reader()).scope, kind.name, selected)
  return found === undefined ? {} : alteringIntent(drafted, plain(found.object))
}

/** Kinds of changes that are drafted beside one of a kind, on the kind's own page. */
const aboutOne = ({ list }: ObjectKind) =>
  list === undefined
    ? []
    : intents.filter(each => each.offer !== undefined && each.place?.startsWith(`${list.place}?sel=`) === true)

/** Kinds of changes that are begun on a kind's own page. */
const begunHere = ({ list }: ObjectKind) => intents.filter(each => each.place === list?.place)

interface UnselectedProps {
  readonly kind: ObjectKind
  readonly first: ObjectList<object>
  readonly isWithin: boolean
  readonly children: ReactNode
}

/** How many there are of each system. */
function bySystem(items: readonly object[]): ReadonlyMap<string, number> {
  const counts = new Map<string, number>()
  for (const item of items)
    if ('systemId' in item) counts.set(String(item.systemId), (counts.get(String(item.systemId)) ?? 0) + 1)
  return counts
}

function Unselected({ kind, first, isWithin, children }: UnselectedProps) {
  const counts = bySystem(first.items)
  const begun = begunHere(kind)
  const foot = begun.map(each => (
    <NewDraft key={each.kind} href={draftAddress(each, {}) ?? ''}>
      {each.title}
    </NewDraft>
  ))
  return (
    <Margin {...(foot.length === 0 ? {} : { foot })}>
      <h2>{counts.size > 0 ? 'By system' : `About ${kind.words.many}`}</h2>
      <p className="mt-0 text-second">
        {kind.list?.about} A {kind.words.one} that is chosen shows all that is known of it here.
      </p>
      <table className="plain">
        <tbody>
          {[...counts].map(([systemId, count]) => (
            <tr key={systemId}>
              <td>
                <Link className="textlink" href={`?systemId=${systemId}`} scroll={false}>
                  {first.names[systemId] ?? ''}
                </Link>
              </td>
              <td className="number">{count}</td>
            </tr>
          ))}
        </tbody>
      </table>
      {isWithin && (
        <p>
          <Link className="textlink" href="?" scroll={false}>
            All {kind.words.many}
          </Link>
        </p>
      )}
      {children}
    </Margin>
  )
}

interface OfferedProps {
  readonly kind: ObjectKind
  readonly id: string
  readonly systemPage: string | undefined
  /** The page that shows it by itself, where that is not its list. */
  readonly ownPage: string | undefined
}

/** What can be drafted about an object, and the way to its system. */
const Offered = ({ kind, id, systemPage: page, ownPage: own }: OfferedProps) => (
  <>
    {own !== undefined && (
      <Link className="button" href={own}>
        Open it
      </Link>
    )}
    {begunHere(kind)
      .filter(({ alters }) => alters !== undefined)
      .map(each => (
        <Link
          key={each.kind}
          className="button"
          href={`${kind.list?.place ?? ''}?sel=${id}&draft=${each.kind}`}
          scroll={false}
        >
          Alter
        </Link>
      ))}
    {aboutOne(kind).map(each => (
      <Link key={each.kind} className="button quiet" href={draftAddress(each, beginOf(each, id)) ?? ''} scroll={false}>
        {each.offer?.words ?? each.title}
      </Link>
    ))}
    {page !== undefined && (
      <Link className="button quiet" href={page}>
        Its system
      </Link>
    )}
  </>
)

async function ObjectMargin({ kind, found }: { readonly kind: ObjectKind; readonly found: ObjectPage }) {
  const { scope } = await reader()
  const system = found.references.find(each => each.field === 'systemId')
  const page = system === undefined ? undefined : pageOf(system.kind, { id: system.id, systemId: null })
  const id = String((found.object as { readonly id: unknown }).id)
  const changes = await changesAbout(scope, id, 6)
  const shown = pageOf(kind, { id, systemId: null })
  const ownPage = shown === undefined || shown.includes('?') ? undefined : shown
  return (
    <Margin foot={<Offered kind={kind} id={id} systemPage={page} ownPage={ownPage} />}>
      <h2>{found.title}</h2>
      {found.missingSince !== null && (
        <p className="advice">
          Its system has not stated it since {found.missingSince.slice(0, 16).replace('T', ' ')}.
        </p>
      )}
      <ObjectFacts name={kind.name} object={plain(found.object)} references={found.references} />
      {kind.name === 'hosts' && <DisksSeen seen={await hostWays(scope, { hostId: id })} />}
      <Referring kind={kind} id={id} />
      {changes.length > 0 && (
        <>
          <h3>Changes</h3>
          <ChangeLines changes={changes} />
        </>
      )}
    </Margin>
  )
}
