import Link from 'next/link'
import { notFound } from 'next/navigation'
import { operationPath } from '@/app/api/v1/contract'
import { reader } from '@/app/server/guard'
import { onlyTexts } from '@/app/server/onlyTexts'
import { fieldsOf, isLocated, kindList, pageOf, titleOf, type ObjectKind } from '@/core/estate'
import { isUuid } from '@/core/input'
import type { ObjectList } from '@/core/views'
import { countAtStart, countWords } from '@/core/units'
import { objectById, objectList } from '@/records/queries'
import { Margin, Page as Frame, SubSections, Title } from '@/ui/frame'
import { KindTable, ObjectFacts } from '@/ui/kinds'

const firstRows = 200
type Params = Readonly<Record<string, string | undefined>>
interface KindPageProps {
  /** Where the list stands, as its kind says. */
  readonly place: string
  readonly parts: readonly { readonly href: string; readonly words: string }[]
  readonly searchParams: Promise<Params>
}

/** What stands in the address of a list, as its API takes it; what it does not know is left out. */
function questionOf(kind: ObjectKind, params: Params) {
  const fields = fieldsOf(kind)
  const sort = fields.find(({ field, type }) => field === params['sort'] && type !== 'json')?.field
  const within = Object.fromEntries(
    fields.flatMap(({ field, type }) => {
      const id = params[field]
      return type === 'uuid' && field !== 'id' && id !== undefined && isUuid(id) ? [[field, id]] : []
    }),
  )
  return {
    filter: (params['filter'] ?? '').slice(0, 120),
    isDescending: params['descending'] === 'true',
    within,
    ...(sort === undefined ? {} : { sort }),
  }
}

/** The page of a kind that says how its list looks: all of them, and the one that is selected in the margin. */
export async function KindPage({ place, parts, searchParams }: KindPageProps) {
  const params = await onlyTexts(searchParams)
  const { scope } = await reader()
  const kind = kindList.find(({ list }) => list?.place === place)
  if (kind?.list === undefined) notFound()
  const question = questionOf(kind, params)
  const first = await objectList(scope, kind.name, { ...question, limit: firstRows })
  const { concern } = kind.list
  const concerned =
    concern === undefined
      ? 0
      : (await objectList(scope, kind.name, { within: { [concern.field]: concern.is }, limit: 1 })).total
  const { one, many } = kind.words
  const systems = new Set(first.items.flatMap(item => ('systemId' in item ? [item.systemId] : [])))
  const query = new URLSearchParams({
    ...question.within,
    ...(question.filter === '' ? {} : { filter: question.filter }),
    ...(question.sort === undefined ? {} : { sort: question.sort }),
    ...(question.isDescending ? { descending: 'true' } : {}),
  })
  return (
    <Frame margin={await margin(kind, params['sel'], first, question.within)}>
      <Title words={titleOf(kind)}>
        <SubSections of={parts} />
      </Title>
      <p className="sentence">
        <b>
          {first.total === 0
            ? question.filter === ''
              ? `No ${one} is known.`
              : `No ${one} is so.`
            : `${countAtStart(first.total, one, many)}${isLocated(kind) && first.total <= firstRows ? ` on ${countWords(systems.size, 'system', 'systems')}` : ''}.`}
        </b>{' '}
        {concern !== undefined && concerned > 0 ? `${countAtStart(concerned, 'is', 'are')} ${concern.words}.` : ''}
      </p>
      <KindTable
        name={kind.name}
        path={operationPath(kind.name)}
        question={query.toString()}
        first={plain(first)}
        selected={params['sel']}
      />
    </Frame>
  )
}

/** As JSON has it: bytes as decimal text, which is what further pages bring. */
const plain = <T,>(value: T): T =>
  JSON.parse(JSON.stringify(value, (_, each: unknown) => (typeof each === 'bigint' ? `${each}` : each))) as T

async function margin(kind: ObjectKind, id: string | undefined, first: ObjectList<object>, within: object) {
  const { scope } = await reader()
  const found = id === undefined || !isUuid(id) ? undefined : await objectById(scope, kind.name, id)
  const counts = new Map<string, number>()
  for (const item of first.items)
    if ('systemId' in item) counts.set(String(item.systemId), (counts.get(String(item.systemId)) ?? 0) + 1)
  if (found === undefined)
    return (
      <Margin>
        <h2>By system</h2>
        <p className="mt-0 text-second">A {kind.words.one} that is chosen shows all that is known of it here.</p>
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
        {Object.keys(within).length > 0 && (
          <p>
            <Link className="textlink" href="?" scroll={false}>
              All {kind.words.many}
            </Link>
          </p>
        )}
      </Margin>
    )
  const systemId = found.references.find(each => each.field === 'systemId')
  const page = systemId === undefined ? undefined : pageOf(systemId.kind, { id: systemId.id, systemId: null })
  return (
    <Margin
      foot={
        page === undefined ? undefined : (
          <Link className="button quiet" href={page}>
            Its system
          </Link>
        )
      }
    >
      <h2>{found.title}</h2>
      {found.missingSince !== null && (
        <p className="advice">
          Its system has not stated it since {found.missingSince.slice(0, 16).replace('T', ' ')}.
        </p>
      )}
      <ObjectFacts name={kind.name} object={plain(found.object)} references={found.references} />
    </Margin>
  )
}
