import { notFound } from 'next/navigation'
import { operationPath } from '@/app/api/v1/contract'
import { reader } from '@/app/server/guard'
import { onlyTexts } from '@/app/server/onlyTexts'
import { fieldsOf, isLocated, kindList, titleOf, type ObjectKind } from '@/core/estate'
import { isUuid } from '@/core/input'
import type { ObjectList } from '@/core/views'
import { countAtStart, countWords } from '@/core/units'
import { objectList } from '@/records/queries'
import { Page as Frame, SubSections, Title } from '@/ui/frame'
import { KindTable } from '@/ui/kinds'
import { kindMargin } from './kindMargin'
import { plain } from './plain'

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
  const query = new URLSearchParams({
    ...question.within,
    ...(question.filter === '' ? {} : { filter: question.filter }),
    ...(question.sort === undefined ? {} : { sort: question.sort }),
    ...(question.isDescending ? { descending: 'true' } : {}),
  })
  return (
    <Frame margin={await kindMargin(kind, params, first, question.within)}>
      <Title words={titleOf(kind)}>
        <SubSections of={parts} />
      </Title>
      <p className="sentence">
        <b>{countedWords(kind, first, question.filter !== '')}</b> {await concernWords(kind)}
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

function countedWords(kind: ObjectKind, { total, items }: ObjectList<object>, isFiltered: boolean): string {
  const { one, many } = kind.words
  if (total === 0) return isFiltered ? `No ${one} is so.` : `No ${one} is known.`
  const systems = new Set(items.flatMap(item => ('systemId' in item ? [item.systemId] : [])))
  const where = isLocated(kind) && total <= firstRows ? ` on ${countWords(systems.size, 'system', 'systems')}` : ''
  return `${countAtStart(total, one, many)}${where}.`
}

/** How many are as the kind says that a reader should know. */
async function concernWords({ name, list }: ObjectKind): Promise<string> {
  if (list?.concern === undefined) return ''
  const { field, is, words } = list.concern
  const { scope } = await reader()
  const asked = is === 'none' ? { without: field } : { within: { [field]: is } }
  const { total } = await objectList(scope, name, { ...asked, limit: 1 })
  return total === 0 ? '' : `${countAtStart(total, 'is', 'are')} ${words}.`
}
