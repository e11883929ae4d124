import { RequestRefused } from '@/ports'
import type { RedfishRoot } from './service/schema'
import type { Session } from './session'

/** How many members are asked for at once, where the system can give a part. */
const pageMembers = 1000

interface Page {
  readonly Members: readonly unknown[]
  readonly 'Members@odata.count'?: number | null
}

/** Where a collection is read expanded, from some member on. */
export function pageFrom({ canSkip }: Session, path: string, from: number): string {
  const part = canSkip === true ? `&$top=${pageMembers}${from === 0 ? '' : `&$skip=${from}`}` : ''
  return `${path}?$expand=.${part}`
}

/** The page after one that was asked for by its length and does not say itself what follows. Source: DSP0266, $top and $skip. */
export function pageAfter(session: Session, path: string, page: Page, read: number): string | undefined {
  const isFull = session.canSkip === true && session.canExpand === true && page.Members.length === pageMembers
  return isFull && (page['Members@odata.count'] ?? Infinity) > read ? pageFrom(session, path, read) : undefined
}

/** In which ways a system can give members, as its root says. `.` asks for them without what hangs on their links. Source: DSP0266, $expand. */
export function waysOf({ ProtocolFeaturesSupported: features }: RedfishRoot): Pick<Session, 'canExpand' | 'canSkip'> {
  const expand = features?.ExpandQuery
  return {
    canExpand: expand?.NoLinks === true || expand?.ExpandAll === true,
    canSkip: features?.TopSkipQuery === true,
  }
}

/** The first page without expanding, where the system refuses it although it says that it can. */
export function unexpanded(at: string, cause: unknown): string | undefined {
  const isRefused = cause instanceof RequestRefused && (cause.status === 501 || cause.status === 400)
  const [path, asked] = at.split('?$expand=.')
  return isRefused && asked !== undefined && !asked.includes('$skip') ? path : undefined
}
