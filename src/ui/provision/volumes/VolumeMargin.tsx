import { Link } from '../../parts/Link'
import { limitsInWords, type Mapping, type Volume } from '@/core/estate'
import { linuxCommands } from '@/core/hosts'
import { ruleInWords } from '@/core/schedule'
import { countAtStart, formatBytes } from '@/core/units'
import type { VolumePage } from '@/core/views'
import { ChangeLines, HostCommands } from '../../changes'
import { Margin } from '../../frame'
import { Ago } from '../../parts/Ago'
import { Bytes } from '../../parts/Bytes'
import { Copied } from '../../parts/Copied'
import { More } from '../../parts/More'
import { State } from '../../parts/State'
import { keptWords, PromiseLines } from '../classes'
import { Ways } from '../hosts'

interface VolumeMarginProps {
  readonly page: VolumePage
  /** The sheet is the volume's own page: what stands there is not said again. */
  readonly isOwnPage?: boolean
  /** What can be drafted about the volume as it is now. */
  readonly offered: readonly {
    readonly kind: string
    readonly words: string
    readonly href: string
    readonly isRare: boolean
  }[]
}

/** A volume: where it comes from, its space, who sees it, and what has been done with it. */
export const VolumeMargin = ({ page, offered, isOwnPage = false }: VolumeMarginProps) => {
  const { volume, mappings, changes, targets } = page
  return (
    <Margin
      foot={
        <>
          {offered
            .filter(({ isRare }) => !isRare)
            .map(({ kind, words, href }) => (
              <Link key={kind} className="button quiet" href={href} scroll={false}>
                {words}
              </Link>
            ))}
          <More items={offered.filter(({ isRare }) => isRare)} />
        </>
      }
    >
      <h2 className="pr-12 break-words">{volume.name}</h2>
      <Origin page={page} />
      <div className="mt-1">
        <VolumeState page={page} />
      </div>
      <Space volume={volume} />
      {!isOwnPage && <Copies page={page} />}
      {!isOwnPage && page.serviceClass !== null && (
        <>
          <h3>
            {page.serviceClass.name} <span>{keptWords(page.promises)}</span>
          </h3>
          <PromiseLines promises={page.promises} />
        </>
      )}
      <SeenBy mappings={mappings} ways={page.ways} />
      {mappings.length > 0 && (
        <HostCommands commands={linuxCommands({ name: volume.name, naa: volume.naa, targets })} />
      )}
      <h3>Changes</h3>
      <ChangeLines changes={changes} />
    </Margin>
  )
}

/** Where it comes from. */
const Origin = ({ page: { volume, pool, system, partner } }: Pick<VolumeMarginProps, 'page'>) => (
  <div className="text-second">
    from{' '}
    <Link className="textlink" href={`/build/pools?sel=${pool.id}`}>
      {pool.name}
    </Link>{' '}
    on{' '}
    <Link className="textlink" href={`/build/systems/${system.id}`}>
      {system.name}
    </Link>
    , {volume.isThin ? 'thin' : 'thick'}
    {volume.application !== null && <>, for {volume.application}</>}
    {volume.isImage && <>; an image, of which clones are made</>}
    <Mirror mirror={volume.mirror} partner={partner} />
  </div>
)

const mirrorWords = {
  filling: 'is being filled',
  alike: 'holds the same',
  broken: 'is behind: the mirror is broken',
} as const

/** What of another system it is kept alike with. */
const Mirror = ({ mirror, partner }: { readonly mirror: Volume['mirror']; readonly partner: VolumePage['partner'] }) =>
  mirror === null ? null : (
    <div>
      {mirror.role === 'source' ? 'mirrored to ' : 'the mirror of what stands on '}
      {partner === null ? (
        (mirror.partner ?? 'another system')
      ) : (
        <Link className="textlink" href={`/build/systems/${partner.id}`}>
          {partner.name}
        </Link>
      )}
      {mirror.role === 'source' && `, which ${mirrorWords[mirror.state]}`}
    </div>
  )

function VolumeState({ page: { volume, missingSince } }: Pick<VolumeMarginProps, 'page'>) {
  if (missingSince !== null)
    return (
      <State gravity="now">
        its system has not stated it since <Ago at={missingSince} />
      </State>
    )
  if (volume.state === 'in use') return <State gravity="fine">in use</State>
  return (
    <State gravity="soon">
      in holding until {volume.holdingUntil?.slice(0, 16).replace('T', ' ')} by the systems’ clock
    </State>
  )
}

const Space = ({ volume }: { readonly volume: Volume }) => (
  <>
    <h3>Space</h3>
    <table className="plain">
      <tbody>
        <tr>
          <td className="text-second">Size</td>
          <td className="number">
            <Bytes bytes={volume.sizeBytes} /> = {formatBytes(volume.sizeBytes, 'decimal')}
          </td>
        </tr>
        <tr>
          <td className="text-second">Written</td>
          <td className="number">
            <Bytes bytes={volume.writtenBytes} />
          </td>
        </tr>
        {volume.limits !== null && (volume.limits.requestsPerSecond ?? volume.limits.bytesPerSecond) !== null && (
          <tr>
            <td className="text-second">At most, a second</td>
            <td className="number">{limitsInWords(volume.limits)}</td>
          </tr>
        )}
        <tr>
          <td className="text-second">WWN</td>
          <td className="number">
            <Copied text={volume.naa} />
          </td>
        </tr>
      </tbody>
    </table>
  </>
)

/** What it was, and of what it is a copy; the page of its own shows each. */
const Copies = ({ page: { volume, snapshotCount, cloneOf } }: Pick<VolumeMarginProps, 'page'>) => (
  <>
    <h3>Snapshots {volume.ownSchedule !== null && <span>{ownScheduleWords(volume.ownSchedule)}</span>}</h3>
    <div className="flex justify-between gap-3 py-[2px]">
      <span>{snapshotCount === 0 ? 'None.' : countAtStart(snapshotCount, 'snapshot', 'snapshots')}</span>
      <Link className="textlink" href={`/provision/volumes/${volume.id}`}>
        {snapshotCount === 0 ? 'The volume by itself' : 'Which rule keeps which'}
      </Link>
    </div>
    {cloneOf !== null && (
      <p className="my-1 text-second">
        A clone that still shares with{' '}
        {cloneOf.volumeId === null ? (
          cloneOf.name
        ) : (
          <Link className="textlink" href={`/provision/volumes/${cloneOf.volumeId}`}>
            {cloneOf.name}
          </Link>
        )}
        .
      </p>
    )}
  </>
)

const ownScheduleWords = ({ snapshotRule }: NonNullable<Volume['ownSchedule']>) =>
  snapshotRule === null ? 'by its own schedule none' : `${ruleInWords(snapshotRule)}, by its own schedule`

interface SeenByProps {
  readonly mappings: readonly Mapping[]
  readonly ways: VolumePage['ways']
}

const SeenBy = ({ mappings, ways }: SeenByProps) => (
  <>
    <h3>Seen by</h3>
    {mappings.length === 0 && <p className="mt-0 text-second">Nobody: it is mapped to no host group.</p>}
    {mappings.map(mapping => (
      <div key={mapping.id} className="py-[2px]">
        <div className="flex justify-between">
          <span>{mapping.groupName}</span>
          <span className="mono">LUN {mapping.lun}</span>
        </div>
        {ways
          .filter(each => each.hostGroupId === mapping.hostGroupId)
          .map(each => (
            <div key={each.hostId} className="flex justify-between gap-3 pl-3 text-second">
              <Link className="textlink" href={`/provision/hosts?sel=${each.hostId}`}>
                {each.hostName}
              </Link>
              <Ways seen={each} />
            </div>
          ))}
      </div>
    ))}
  </>
)
