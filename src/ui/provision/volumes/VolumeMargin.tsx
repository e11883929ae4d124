import Link from 'next/link'
import type { Mapping, Volume } from '@/core/estate'
import { linuxCommands } from '@/core/hosts'
import { formatBytes } from '@/core/units'
import type { VolumePage } from '@/core/views'
import { ChangeLines, HostCommands } from '../../changes'
import { Margin } from '../../frame'
import { Ago } from '../../parts/Ago'
import { Bytes } from '../../parts/Bytes'
import { Copied } from '../../parts/Copied'
import { State } from '../../parts/State'

interface VolumeMarginProps {
  readonly page: VolumePage
  /** What can be drafted about the volume as it is now. */
  readonly offered: readonly { readonly kind: string; readonly words: string }[]
}

/** A volume: where it comes from, its space, who sees it, and what has been done with it. */
export const VolumeMargin = ({ page, offered }: VolumeMarginProps) => {
  const { volume, pool, system, mappings, changes, targets } = page
  return (
    <Margin
      foot={offered.map(({ kind, words }) => (
        <Link key={kind} className="button quiet" href={`/provision?sel=${volume.id}&draft=${kind}`} scroll={false}>
          {words}
        </Link>
      ))}
    >
      <h2 className="pr-12 break-words">{volume.name}</h2>
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
      </div>
      <div className="mt-1">
        <VolumeState page={page} />
      </div>
      <Space volume={volume} />
      <SeenBy mappings={mappings} />
      {mappings.length > 0 && (
        <HostCommands commands={linuxCommands({ name: volume.name, naa: volume.naa, targets })} />
      )}
      <h3>Changes</h3>
      <ChangeLines changes={changes} />
    </Margin>
  )
}

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

const SeenBy = ({ mappings }: { readonly mappings: readonly Mapping[] }) => (
  <>
    <h3>Seen by</h3>
    {mappings.length === 0 && <p className="mt-0 text-second">Nobody: it is mapped to no host group.</p>}
    {mappings.map(mapping => (
      <div key={mapping.id} className="flex justify-between py-[2px]">
        <span>{mapping.groupName}</span>
        <span className="mono">LUN {mapping.lun}</span>
      </div>
    ))}
  </>
)
