import { Link } from '@/ui/parts/Link'
import { notFound } from 'next/navigation'
import { reader } from '@/app/server/guard'
import { onlyTexts } from '@/app/server/onlyTexts'
import { scheduleOf } from '@/core/classes'
import { isUuid } from '@/core/input'
import { ruleInWords } from '@/core/schedule'
import { spaceOf } from '@/core/snapshots'
import { countAtStart, formatBytes } from '@/core/units'
import type { VolumeCopies, VolumePage } from '@/core/views'
import { volumeCopies, volumePage } from '@/records/queries'
import { Page as Frame, SubSections, Title } from '@/ui/frame'
import { Bytes } from '@/ui/parts/Bytes'
import { keptWords, PromiseLines } from '@/ui/provision/classes'
import { SnapshotBoard } from '@/ui/provision/snapshots'
import { provisionParts } from '../../parts'
import { volumeMargin } from '../../volumeMargin'

export const metadata = { title: 'Volume' }

interface PageProps {
  readonly params: Promise<{ readonly id: string }>
  readonly searchParams: Promise<Readonly<Partial<Record<'draft' | 'change', string>>>>
}

/** A volume by itself: its promises, what it was, and what has been made of that. */
export default async function Page({ params, searchParams }: PageProps) {
  const { id } = await params
  const { draft, change } = await onlyTexts(searchParams)
  const { scope } = await reader()
  const page = isUuid(id) ? await volumePage(scope, id) : undefined
  if (page === undefined) notFound()
  const schedule = scheduleOf(page.volume, page.serviceClass ?? undefined)
  const copies = await volumeCopies(scope, id, schedule)
  return (
    <Frame
      margin={
        await volumeMargin({
          sel: id,
          isOwnPage: true,
          ...(draft === undefined ? {} : { draft }),
          ...(change === undefined ? {} : { change }),
        })
      }
    >
      <Title words={page.volume.name}>
        <SubSections of={provisionParts} />
      </Title>
      <Sentence page={page} copies={copies} />
      {copies.snapshots.length > 0 && (
        <SnapshotBoard volumeId={id} all={copies.snapshots} timeZone={schedule?.timeZone ?? 'UTC'} />
      )}
      <Promises page={page} />
      <Clones copies={copies} />
    </Frame>
  )
}

function Sentence({
  page: { volume, serviceClass },
  copies: { snapshots },
}: {
  readonly page: VolumePage
  readonly copies: VolumeCopies
}) {
  const space = spaceOf(snapshots.map(({ snapshot }) => snapshot))
  const going = snapshots.filter(({ snapshot }) => snapshot.goesAt !== null).length
  return (
    <p className="sentence">
      <b>
        {snapshots.length === 0
          ? `${volume.name} has no snapshot.`
          : `${countAtStart(snapshots.length, 'snapshot holds', 'snapshots hold')} ${space.isExact ? '' : 'at least '}${formatBytes(space.totalBytes)} that the volume itself no longer has.`}
      </b>{' '}
      {scheduleWords(volume, serviceClass)} {snapshots.length === 0 && 'One can be taken at any time.'}{' '}
      {going > 0 && `${countAtStart(going, 'is', 'are')} in holding.`}
    </p>
  )
}

/** What takes snapshots by a schedule: its own, or that of its class. */
function scheduleWords({ ownSchedule }: VolumePage['volume'], serviceClass: VolumePage['serviceClass']): string {
  if (ownSchedule !== null)
    return ownSchedule.snapshotRule === null
      ? 'By its own schedule none are taken.'
      : `One is taken ${ruleInWords(ownSchedule.snapshotRule)}, by its own schedule.`
  return serviceClass?.snapshotRule == null
    ? 'No class takes any by a schedule.'
    : `${serviceClass.name} takes them as they come due.`
}

const Promises = ({ page: { serviceClass, promises } }: { readonly page: VolumePage }) => (
  <>
    <h3>
      What is promised{' '}
      <span>{serviceClass === null ? 'no service class' : `${serviceClass.name} · ${keptWords(promises)}`}</span>
    </h3>
    {serviceClass === null ? (
      <p className="mt-0 text-second">
        It stands under no class, so nothing is promised of it. Choose it in the{' '}
        <Link className="textlink" href="/provision">
          list of volumes
        </Link>{' '}
        to put it under one.
      </p>
    ) : (
      <PromiseLines promises={promises} />
    )}
  </>
)

const Clones = ({ copies: { clones, snapshots } }: { readonly copies: VolumeCopies }) =>
  clones.length === 0 ? null : (
    <>
      <h3>
        Clones that share with it <span>what each has written for itself</span>
      </h3>
      <table className="plain">
        <tbody>
          {clones.map(clone => (
            <tr key={clone.id}>
              <td>
                <Link className="textlink" href={`/provision/volumes/${clone.id}`}>
                  {clone.name}
                </Link>
              </td>
              <td className="text-second">
                of {snapshots.find(({ snapshot }) => snapshot.id === clone.cloneOfId)?.snapshot.name}
              </td>
              <td className="number">
                <Bytes bytes={clone.writtenBytes} />
              </td>
              <td className="number">
                <Bytes bytes={clone.sizeBytes} />
              </td>
            </tr>
          ))}
        </tbody>
      </table>
    </>
  )
