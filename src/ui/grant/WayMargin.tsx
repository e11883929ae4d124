import { Link } from '../parts/Link'
import { askingFrom, fileGates, smbGates, smbRightsOf, type FileRequest, type Gate, type SignedIn } from '@/core/access'
import type { GrantPage } from '@/core/views'
import type { Share } from '@/core/estate'
import { Margin } from '../frame'
import { Mark } from '../parts/State'
import { GateLines, shareState } from '../provision/files'
import { rightsOf } from './rightsOf'

interface WayMarginProps {
  readonly services: GrantPage['services']
  readonly share: Share
  readonly who: string
  /** The host and its address; undefined over SMB, where it may be any. */
  readonly host: GrantPage['hosts'][number] | undefined
  readonly request: Omit<FileRequest, 'operation' | 'clientAddress' | 'clientName' | 'flavour'>
  readonly somebody: SignedIn | undefined
}

/** One of the ways: every gate for a write, and for a read. */
export function WayMargin(props: WayMarginProps) {
  const { share, who, host } = props
  const { write, read } = answersTo(props)
  return (
    <Margin
      foot={
        <>
          <Link className="button" href={`/provision/shares/${share.id}`}>
            What would turn it
          </Link>
          {host?.agentAddress != null && (
            <Link className="button quiet" href={`/grant/connections?host=${host.id}&share=${share.id}`}>
              Test the way
            </Link>
          )}
        </>
      }
    >
      <h2>
        {who} on {share.name}
      </h2>
      <p className="sentence mt-0">
        <span className={write.allowed ? 'text-fine' : read.allowed ? 'text-soon' : 'text-now'}>
          <Mark gravity={write.allowed ? 'fine' : read.allowed ? 'soon' : 'now'} size={11} />
        </span>{' '}
        <b>{saidOf(read.allowed, write.allowed)}</b>{' '}
        {host === undefined ? 'Over SMB, wherever from.' : `From ${host.name}, ${host.addresses[0] ?? ''}.`}
      </p>
      <h3>Write</h3>
      <GateLines gates={write.gates} />
      <h3>Read</h3>
      <GateLines gates={read.gates} />
    </Margin>
  )
}

interface Answer {
  readonly allowed: boolean
  readonly gates: readonly Gate[]
}

/** Every gate of a write, and of a read. */
function answersTo({ services, share, host, request, somebody }: WayMarginProps) {
  const service = services.find(({ id }) => id === share.fileServiceId)
  const state = shareState(share, service)
  const asked = (operation: 'read' | 'write'): Answer =>
    host === undefined && somebody !== undefined
      ? smbGates(smbRightsOf(share), state, somebody, operation)
      : fileGates(rightsOf(share), state, {
          ...request,
          ...askingFrom(host ?? { addresses: [] }),
          ...{ flavour: 'sys', operation },
        })
  return { write: asked('write'), read: asked('read') }
}

function saidOf(isRead: boolean, isWrite: boolean): string {
  if (isWrite) return isRead ? 'May change.' : 'May write, but not read.'
  return isRead ? 'May read. A write is refused.' : 'May nothing.'
}
