'use client'
import { kindOf, titleOf, type KindName, type ListColumn } from '@/core/estate'
import { Moment } from '../parts/Moment'
import { State } from '../parts/State'
import { ServerTable, type ServerColumn, type ServerPage } from '../table'
import { textOf } from './textOf'

/** An object as it comes to the browser: bytes as decimal text. */
type Row = Readonly<Record<string, unknown>>

interface KindTableProps {
  readonly name: KindName
  readonly path: string
  readonly question: string
  readonly first: ServerPage<Row>
  readonly selected: string | undefined
}

const tracks: Readonly<Record<NonNullable<ListColumn['as']>, string>> = {
  text: 'minmax(70px,0.8fr)',
  identifier: 'minmax(94px,0.8fr)',
  bytes: '84px',
  'bits a second': '64px',
  'up or down': '64px',
  count: '64px',
  instant: '132px',
  'name of': 'minmax(66px,0.7fr)',
  instances: 'minmax(120px,1fr)',
  rules: 'minmax(120px,1fr)',
}
const isNumber = (as: ListColumn['as']) => as === 'bytes' || as === 'bits a second' || as === 'count'

/** A column as the kind's list says; what is stated nowhere is a dash, not an empty cell. */
function columnOf({ field, words, as, isWide, isFolded }: ListColumn, index: number): ServerColumn<Row> {
  const text: ServerColumn<Row>['text'] = (row, nameOf) => textOf(row[field], as, nameOf)
  return {
    id: field,
    head: words,
    // The name stands first, and is what a row is known by.
    track:
      index === 0
        ? isWide === true
          ? 'minmax(230px,2fr)'
          : 'minmax(112px,1fr)'
        : isWide === true
          ? 'minmax(150px,3.2fr)'
          : tracks[as ?? 'text'],
    sort: field,
    text,
    cell: (row, nameOf) => {
      const said = text(row, nameOf)
      if (as === 'up or down') return <State gravity={row[field] === true ? 'fine' : 'soon'}>{said}</State>
      if (said === '') return <span className="text-faint">not stated</span>
      if (as === 'instant') return <Moment at={String(row[field])} />
      return as === 'identifier' ? <span className="mono">{said}</span> : said
    },
    isNumber: isNumber(as),
    ...(isFolded === true ? { isAtFirstHidden: true } : {}),
  }
}

/** All objects of a kind, in the columns that the kind itself says. */
export function KindTable({ name, path, question, first, selected }: KindTableProps) {
  const { words, list, order, search } = kindOf(name)
  return (
    <ServerTable
      label={titleOf(kindOf(name))}
      path={path}
      question={question}
      first={first}
      columns={(list?.columns ?? []).map(columnOf)}
      idOf={row => String(row['id'])}
      sortAtFirst={order.at(-1) ?? 'name'}
      selected={selected}
      {...(search === undefined ? {} : { filterWords: `Filter ${words.many}` })}
    />
  )
}
