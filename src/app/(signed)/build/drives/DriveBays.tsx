import { Link } from '@/ui/parts/Link'
import { reader } from '@/app/server/guard'
import { byId, type Enclosure, type Node, type System } from '@/core/estate'
import { isUuid } from '@/core/input'
import { countWords } from '@/core/units'
import { packed, type DriveCount } from '@/core/views'
import { drives as drivesOf, objectById } from '@/records/queries'
import { groupsOf } from '@/ui/build/bayField'
import { EstateBays } from '@/ui/build/intake'

/** More drives than this are drawn system by system. */
const mostTogether = 1000

interface DriveBaysProps {
  readonly params: {
    readonly drive?: string
    readonly system?: string
    readonly state?: string
    readonly kind?: string
  }
  readonly counts: readonly DriveCount[]
  readonly systems: readonly System[]
  readonly enclosures: readonly Enclosure[]
  readonly nodes: readonly Node[]
}

/** The bays of all systems, or, where they are too many to be seen, of one: that of the drive that is selected, or the one asked for. */
export async function DriveBays({ params, counts, systems, enclosures, nodes }: DriveBaysProps) {
  const { scope } = await reader()
  const areFew = counts.reduce((sum, each) => sum + each.count, 0) <= mostTogether
  const shown = areFew ? undefined : await systemShown(params, systems)
  const drives = await drivesOf(scope, shown?.id ?? null)
  const nodeOf = new Set(nodes.map(node => node.enclosureId))
  const groups = groupsOf(
    enclosures.filter(enclosure => shown === undefined || enclosure.systemId === shown.id),
    drives,
    ({ id, name, systemId }) => (nodeOf.has(id) ? name : `${byId(systems, systemId)?.name ?? ''}, ${name}`),
    own => countWords(own.length, 'drive', 'drives'),
  )
  const query = new URLSearchParams(
    Object.entries(params).filter(([name, value]) => name !== 'drive' && value !== undefined) as [string, string][],
  )
  return (
    <>
      <h3>
        {shown === undefined ? 'Bays across systems' : `Bays of ${shown.name}`}{' '}
        <span>the last four characters stand on every drive</span>
      </h3>
      {!areFew && <SystemChoice systems={systems} shown={shown} />}
      <EstateBays
        groups={groups.map(({ drives: _, ...group }) => group)}
        drives={packed(drives)}
        selected={params.drive}
        href={`/build/drives?${query.size === 0 ? '' : `${query}&`}`}
      />
    </>
  )
}

async function systemShown({ drive, system }: DriveBaysProps['params'], systems: readonly System[]) {
  const { scope } = await reader()
  const of = drive === undefined || !isUuid(drive) ? undefined : await objectById(scope, 'drives', drive)
  const systemId = of === undefined ? system : of.references.find(each => each.field === 'systemId')?.id
  return byId(systems, systemId) ?? systems[0]
}

interface SystemChoiceProps {
  readonly systems: readonly System[]
  readonly shown: System | undefined
}

const SystemChoice = ({ systems, shown }: SystemChoiceProps) => (
  <nav aria-label="Systems whose bays are shown" className="mb-2 flex max-h-[76px] flex-wrap gap-x-3 overflow-y-auto">
    {systems.map(({ id, name }) => (
      <Link
        key={id}
        scroll={false}
        href={`/build/drives?system=${id}`}
        className={id === shown?.id ? 'font-semibold no-underline' : 'text-second no-underline'}
      >
        {name}
      </Link>
    ))}
  </nav>
)
