import { reader } from '@/app/server/guard'
import { kindList, pageOf, titleOf, type ObjectKind } from '@/core/estate'
import { objectList } from '@/records/queries'
import { Link } from '@/ui/parts/Link'

const shownOfEach = 12

/** Objects of kinds that refer to this one: the volumes of a group, the snapshots of a volume. */
export async function Referring({ kind, id }: { readonly kind: ObjectKind; readonly id: string }) {
  const { scope } = await reader()
  const referring = kindList.flatMap(other =>
    other.search === undefined || other.page === undefined
      ? []
      : Object.entries(other.references).flatMap(([field, to]) => (to === kind.name ? [{ other, field }] : [])),
  )
  const lists = await Promise.all(
    referring.map(async ({ other, field }) => ({
      other,
      list: await objectList(scope, other.name, { within: { [field]: id }, limit: shownOfEach }),
    })),
  )
  return lists.map(({ other, list }) =>
    list.total === 0 ? null : (
      <div key={other.name}>
        <h3>
          {titleOf(other)}{' '}
          {list.total > shownOfEach && (
            <span>
              {shownOfEach} of {list.total}
            </span>
          )}
        </h3>
        {list.items.map(item => {
          const found = item as unknown as Readonly<Record<string, unknown>> & { readonly id: string }
          const systemId = typeof found['systemId'] === 'string' ? found['systemId'] : null
          return (
            <div key={found.id} className="border-b border-rule-fine py-[5px]">
              <Link className="no-underline" href={pageOf(other, { id: found.id, systemId }) ?? ''}>
                {String(found[other.search?.title ?? 'id'])}
              </Link>
            </div>
          )
        })}
      </div>
    ),
  )
}
