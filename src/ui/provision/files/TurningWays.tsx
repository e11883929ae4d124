'use client'
import { useRouter } from 'next/navigation'
import {
  editsWords,
  smbEditsWords,
  smbTurnings,
  turningChanges,
  type FileOperation,
  type FileOwner,
  type FileRequest,
  type ShareRights,
  type SignedIn,
  type SmbRights,
  type Turning,
} from '@/core/access'
import { countWords } from '@/core/units'
import type { ShownChange, SharePage } from '@/core/views'
import { ask } from '../../api'
import { toast } from '../../parts/toast'

/** A way to turn the answer, as a line. */
interface Way {
  readonly words: string
  readonly reach: string
  /** What is drafted; undefined where it is not the share that is changed. */
  readonly intent: object | undefined
}

/** The smallest changes that would turn the answer; each of the share itself becomes a draft. */
function Ways({ shareId, ways }: { readonly shareId: string; readonly ways: readonly Way[] }) {
  const router = useRouter()
  const draft = async (intent: object) => {
    const answer = await ask<ShownChange>('POST', '/changes', { kind: 'set-share-rights', intent })
    if (!answer.ok) return void toast.error(answer.refusal.why)
    router.push(`/provision/shares?sel=${shareId}&draft=set-share-rights&change=${answer.value.id}`)
  }
  return (
    <>
      <h3>
        What would turn the answer <span>smallest first</span>
      </h3>
      {ways.length === 0 && <p className="mt-0 text-second">Nothing about the share alone.</p>}
      {ways.map(({ words, reach, intent }) => (
        <div key={words} className="grid grid-cols-[minmax(0,1fr)_auto] gap-x-3 border-b border-rule-fine py-[5px]">
          {intent === undefined ? (
            <span>{words}</span>
          ) : (
            <button
              type="button"
              className="textlink border-0 bg-transparent p-0 text-left"
              onClick={() => void draft(intent)}
            >
              {words}
            </button>
          )}
          <span className="text-second">{reach}</span>
        </div>
      ))}
    </>
  )
}

interface NfsWaysProps {
  readonly page: SharePage
  readonly rights: ShareRights
  readonly request: FileRequest
}

export function NfsWays({ page: { share }, rights, request }: NfsWaysProps) {
  const ways = turningChanges(rights, request).map((way): Way => {
    const { rules, root } = way.rights
    const isElsewhere = way.edits.some(({ of }) => of === 'member')
    return {
      words: editsWords(way.edits, rights.rules),
      reach: reachWords(way),
      intent: isElsewhere ? undefined : { ...rightsIn(share.id, root), rules, grants: share.grants },
    }
  })
  return <Ways shareId={share.id} ways={ways} />
}

/** What a draft says of a root directory. */
const rightsIn = (shareId: string, { uid, gid, mode, acl = [] }: FileOwner) => ({
  ...{ shareId, mode, acl },
  ownerUid: uid,
  ownerGid: gid,
})

function reachWords({ addresses, edits }: Turning): string {
  if (edits.some(({ of }) => of === 'member')) return 'wherever the group counts'
  if (edits.every(({ of }) => of === 'entry')) return 'for them alone'
  if (addresses === null) return 'for every host'
  return countWords(Number(addresses), 'host', 'hosts')
}

interface SmbWaysProps {
  readonly page: SharePage
  readonly rights: SmbRights
  readonly somebody: SignedIn
  readonly operation: FileOperation
  readonly name: string
}

export function SmbWays({ page: { share }, rights, somebody, operation, name }: SmbWaysProps) {
  const ways = smbTurnings(rights, somebody, operation, name).map(({ edits, rights: after }): Way => {
    const isElsewhere = edits.some(({ of }) => of === 'smb-member')
    const isOwn = edits.every(({ of }) => of === 'new-grant' || of === 'smb-entry')
    return {
      words: smbEditsWords(edits, rights.grants),
      reach: isElsewhere ? 'wherever the group counts' : isOwn ? 'for them alone' : 'for all whom it is for',
      intent: isElsewhere
        ? undefined
        : {
            ...rightsIn(share.id, after.root),
            rules: share.rules,
            grants: after.grants,
          },
    }
  })
  return <Ways shareId={share.id} ways={ways} />
}
