import { Link } from '../parts/Link'
import { fieldsOf, kindOf, pageOf, type KindName } from '@/core/estate'
import type { ObjectPage } from '@/core/views'
import { Copied } from '../parts/Copied'
import { textOf } from './textOf'

interface ObjectFactsProps {
  readonly name: KindName
  readonly object: ObjectPage['object']
  readonly references: ObjectPage['references']
}

/** A field's name as words: `speedBitsPerSecond` is `Speed bits per second`. */
const inWords = (field: string) => {
  const words = field.replace(/Id$/, '').replace(/([A-Z])/g, letter => ` ${letter.toLowerCase()}`)
  return `${words[0]?.toUpperCase() ?? ''}${words.slice(1)}`
}
/** What says nothing to a reader. */
const inner: ReadonlySet<string> = new Set(['id', 'revision', 'locator'])

/** Everything that is known of an object; identifiers are copied by a click, what it refers to is a link. */
export function ObjectFacts({ name, object, references }: ObjectFactsProps) {
  const kind = kindOf(name)
  const words = new Map<string, { readonly words: string; readonly as?: Parameters<typeof textOf>[1] }>(
    kind.list?.columns.map(column => [column.field, column]) ?? [],
  )
  return (
    <table className="plain mt-2">
      <tbody>
        {fieldsOf(kind)
          .filter(({ field }) => !inner.has(field))
          .map(({ field, type }) => {
            const reference = references.find(each => each.field === field)
            const href =
              reference === undefined ? undefined : pageOf(reference.kind, { id: reference.id, systemId: null })
            const column = words.get(field)
            const said = textOf(
              object[field],
              column?.as ?? (type === 'bytes' ? 'bytes' : undefined),
              () => reference?.name,
            )
            return <FactLine key={field} field={field} column={column} reference={reference} href={href} said={said} />
          })}
      </tbody>
    </table>
  )
}

interface FactLineProps {
  readonly field: string
  readonly column: { readonly words: string } | undefined
  readonly reference: ObjectPage['references'][number] | undefined
  readonly href: string | undefined
  readonly said: string
}

const FactLine = ({ field, column, reference, href, said }: FactLineProps) => (
  <tr>
    <td className="text-second">{column?.words ?? inWords(field)}</td>
    <td>
      {reference !== undefined && href !== undefined ? (
        <Link className="textlink" href={href}>
          {reference.name}
        </Link>
      ) : said === '' ? (
        <span className="text-faint">not stated</span>
      ) : (
        <Copied text={said} />
      )}
    </td>
  </tr>
)
