import { Link } from '../../parts/Link'
import { upByController, type WaysSeen } from '@/core/views'
import { State, type Gravity } from '../../parts/State'

/** How grave it is: nothing is up; all that is up ends at one controller though there are several; all is well. */
function gravityOf(counts: ReturnType<typeof upByController>): Gravity {
  const up = counts.filter(count => count.up > 0)
  if (up.length === 0) return 'now'
  return up.length === 1 && counts.length > 1 ? 'soon' : 'fine'
}

/** The ways to one disk: by each controller how many are up. */
export function Ways({ seen }: { readonly seen: Pick<WaysSeen, 'ways'> }) {
  const counts = upByController(seen)
  if (counts.length === 0) return <span className="text-faint">not told</span>
  return (
    <State gravity={gravityOf(counts)}>
      {counts
        .map(({ controller, up, all }) => `${controller} ${up === all ? `${up} up` : `${up} of ${all} up`}`)
        .join(', ')}
    </State>
  )
}

/** What a host sees, and by which ways. */
export const DisksSeen = ({ seen }: { readonly seen: readonly WaysSeen[] }) => (
  <>
    <h3>
      Sees <span>as its agent says</span>
    </h3>
    {seen.length === 0 && <p className="mt-0 text-second">No disk of the estate.</p>}
    {seen.map(each => (
      <div key={`${each.naa}`} className="flex justify-between gap-3 py-[2px]">
        <span className="min-w-0 break-words">
          {each.disk === null ? (
            <span className="mono">{each.naa}</span>
          ) : (
            <Link
              className="textlink"
              href={each.disk.isVolume ? `/provision?sel=${each.disk.id}` : `/provision/snapshots?sel=${each.disk.id}`}
            >
              {each.disk.name}
            </Link>
          )}{' '}
          <span className="mono text-second">LUN {each.lun}</span>
        </span>
        <Ways seen={each} />
      </div>
    ))}
  </>
)
