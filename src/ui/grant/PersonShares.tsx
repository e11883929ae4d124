import Link from 'next/link'
import {
  fileGates,
  nfsRights,
  rings,
  signedIn,
  smbGates,
  smbRight,
  type Gate,
  type Right,
  type SignedIn,
} from '@/core/access'
import type { Share } from '@/core/estate'
import { countAtStart, countWords } from '@/core/units'
import type { PersonPage } from '@/core/views'
import { quotaOf } from '../provision/files'
import { RightMark, rightWords } from './RightMark'
import { speaks } from './rightsOf'

interface PageProps {
  readonly page: PersonPage
}

const somebodyOf = ({ person, groups }: PersonPage) =>
  signedIn(person, new Map(groups.map(each => [each.durableId, each])))
const rootOf = ({ ownerUid, ownerGid, mode }: Share) => ({ uid: ownerUid, gid: ownerGid, mode })
const order: readonly Right[] = ['none', 'write only', 'read', 'change']
const widest = (rights: readonly Right[]): Right =>
  rights.reduce<Right>((most, right) => (order.indexOf(right) > order.indexOf(most) ? right : most), 'none')

/** What somebody may do with one share: over SMB from anywhere, over NFS from the hosts that are known. */
function lineOf(page: PersonPage, is: SignedIn, share: Share) {
  const hosts = page.hosts.map(({ address }) => ({ clientAddress: address, clientName: null }))
  const root = rootOf(share)
  const byHost = speaks(share, 'NFS') ? nfsRights({ rules: share.rules, root }, is, hosts) : []
  const overNfs = widest(byHost)
  const overSmb = speaks(share, 'SMB') ? smbRight({ grants: share.grants, root }, is) : undefined
  return {
    share,
    overSmb,
    overNfs: speaks(share, 'NFS') ? overNfs : undefined,
    hosts: byHost.filter(right => right !== 'none').length,
    why: whyOf(page, is, share, widest([overSmb ?? 'none', overNfs])),
  }
}

/** The gate that bars a write, or a read of whom nothing is let. */
function whyOf(page: PersonPage, is: SignedIn, share: Share, right: Right): string {
  const operation = right === 'none' ? ('read' as const) : ('write' as const)
  const service = page.services.find(({ id }) => id === share.fileServiceId)
  const state = {
    name: share.name,
    addresses: service?.addresses ?? [],
    joinedTo: service?.joinedTo ?? null,
    freeBytes: BigInt(share.sizeBytes) - BigInt(share.usedBytes),
    quotaOf: quotaOf(share),
  }
  const root = rootOf(share)
  const asked = (address: string) => ({
    ...{ clientAddress: address, clientName: null, uid: is.uid, gid: is.gid, groups: is.groups },
    ...{ flavour: 'sys' as const, operation },
  })
  const answers: readonly { readonly allowed: boolean; readonly gates: readonly Gate[] }[] = speaks(share, 'SMB')
    ? [smbGates({ grants: share.grants, root }, state, is, operation)]
    : page.hosts.map(({ address }) => fileGates({ rules: share.rules, root }, state, asked(address)))
  const allowed = answers.find(each => each.allowed)
  if (allowed !== undefined) return 'nothing: every gate lets a write pass'
  // Of several hosts the one from which it comes furthest.
  const [best] = [...answers].sort((a, b) => passed(b.gates) - passed(a.gates))
  const stop = best?.gates.find(each => each.state === 'stops')
  return stop === undefined
    ? 'no host is known that could reach it'
    : `${operation}: ${stop.label.toLowerCase()}, ${stop.why}`
}

const passed = (gates: readonly Gate[]) => gates.findIndex(each => each.state === 'stops')

/** Every share with what somebody may do with it, and why no more. */
export function PersonShares({ page }: PageProps) {
  if (page.person.sort === 'group') return <Members page={page} />
  const is = somebodyOf(page)
  const lines = page.shares.map(share => lineOf(page, is, share))
  return (
    <>
      <h3>
        Shares <span>over NFS from the {countWords(page.hosts.length, 'host', 'hosts')} whose address is known</span>
      </h3>
      {lines.length === 0 && <p className="mt-0 text-second">No share is there yet.</p>}
      {lines.length > 0 && (
        <table className="plain rows">
          <thead>
            <tr>
              <th>Share</th>
              <th className="text-center">Over SMB</th>
              <th className="text-center">Over NFS</th>
              <th>What stands before more</th>
            </tr>
          </thead>
          <tbody>
            {lines.map(({ share, overSmb, overNfs, hosts, why }) => (
              <tr key={share.id}>
                <td className="font-semibold">
                  <Link className="no-underline" href={`/provision/shares/${share.id}`}>
                    {share.name}
                  </Link>
                </td>
                <td data-head="Over SMB" className="text-center whitespace-nowrap">
                  {overSmb === undefined ? <span className="text-second">–</span> : <Marked right={overSmb} />}
                </td>
                <td data-head="Over NFS" className="text-center whitespace-nowrap">
                  {overNfs === undefined ? (
                    <span className="text-second">–</span>
                  ) : (
                    <>
                      <Marked right={overNfs} />{' '}
                      {overNfs !== 'none' && (
                        <span className="text-second">
                          from {hosts} of {page.hosts.length}
                        </span>
                      )}
                    </>
                  )}
                </td>
                <td data-head="Before more" className="text-second">
                  {why}
                </td>
              </tr>
            ))}
          </tbody>
        </table>
      )}
    </>
  )
}

const Marked = ({ right }: { readonly right: Right }) => (
  <>
    <RightMark right={right} /> {rightWords(right)}
  </>
)

function Members({ page: { members, memberCount } }: PageProps) {
  return (
    <>
      <h3>
        In it{' '}
        {memberCount > members.length && (
          <span>
            {members.length} of {memberCount}
          </span>
        )}
      </h3>
      <table className="plain rows">
        <tbody>
          {members.map(({ id, name, account, sort, isDisabled }) => (
            <tr key={id}>
              <td className="font-semibold">
                <Link className="no-underline" href={`/grant/people/${id}`}>
                  {name}
                </Link>
              </td>
              <td className="mono text-second">{sort === 'group' ? 'group' : account}</td>
              <td className="text-soon">{isDisabled ? 'cannot sign in' : ''}</td>
            </tr>
          ))}
          {members.length === 0 && (
            <tr>
              <td className="text-second">nobody</td>
            </tr>
          )}
        </tbody>
      </table>
    </>
  )
}

/** Groups that contain each other have the same people, which is hardly meant. */
function ringWords({ person, groups }: PersonPage): string {
  const all = new Map([...groups, person].map(each => [each.durableId, each]))
  const ring = rings(all).find(each => each.some(({ id }) => id === person.id))
  if (ring === undefined) return ''
  const others = ring.filter(({ id }) => id !== person.id).map(({ name }) => name)
  return others.length === 0
    ? 'It contains itself.'
    : `It and ${others.join(', ')} contain each other: who is in one is in all.`
}

/** How much somebody may, in a sentence. */
export function PersonSentence({ page }: PageProps) {
  const { person, shares, memberCount } = page
  const gone = person.goneSince === null ? '' : `Its directory has not had it since ${person.goneSince.slice(0, 10)}. `
  if (person.sort === 'group')
    return (
      <p className="sentence">
        <b>
          {memberCount === 0
            ? 'Nobody is in it.'
            : `${countAtStart(memberCount, 'member is', 'members are')} in it themselves.`}
        </b>{' '}
        {gone}
        {person.number === null && 'It has no gid: over NFS and in modes it counts for nothing. '}
        {ringWords(page)}
      </p>
    )
  const is = somebodyOf(page)
  const rights = shares
    .map(share => lineOf(page, is, share))
    .map(each => widest([each.overSmb ?? 'none', each.overNfs ?? 'none']))
  const change = rights.filter(right => right === 'change' || right === 'write only').length
  const read = rights.filter(right => right === 'read').length
  return (
    <p className="sentence">
      <b>
        {person.isDisabled
          ? 'That account cannot sign in.'
          : `May change ${countWords(change, 'share', 'shares')}, and read ${read === 0 ? 'no other' : countWords(read, 'other', 'others')}.`}
      </b>{' '}
      {gone}
      {person.number === null && 'It has no uid: to files it is nobody. '}
      To administer Wendrel is no right on data.
    </p>
  )
}
