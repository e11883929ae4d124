import { Link } from '@/ui/parts/Link'
import { notFound } from 'next/navigation'
import { plain } from '@/app/(signed)/plain'
import { reader } from '@/app/server/guard'
import { allGrants, askingFrom, decidingRule, exportTable, ruleReach } from '@/core/access'
import { boardQuery, plainLane, type Board } from '@/core/board'
import { mountCommands, smbCommands } from '@/core/hosts'
import { isUuid } from '@/core/input'
import { countAtStart, countWords } from '@/core/units'
import type { SharePage } from '@/core/views'
import { estateNow } from '@/records/inventory'
import { sharePage } from '@/records/queries'
import { ChangeLines, HostCommands } from '@/ui/changes'
import { Page as Frame, SubSections, Title } from '@/ui/frame'
import { Bytes } from '@/ui/parts/Bytes'
import {
  AccessListTable,
  GrantsTable,
  LimitTable,
  QuotaTree,
  RootAfterRules,
  RulesTable,
  WhoCan,
} from '@/ui/provision/files'
import { provisionParts } from '../../parts'

export const metadata = { title: 'Share' }

/** A share: which hosts and who may use it, how it is mounted, and who can what and why. */
export default async function Page({ params }: { readonly params: Promise<{ readonly id: string }> }) {
  const { id } = await params
  const { scope } = await reader()
  const page = isUuid(id) ? await sharePage(scope, id) : undefined
  if (page === undefined) notFound()
  const { share, changes, hosts } = page
  const now = (await estateNow(scope)).getTime()
  return (
    <Frame margin={<WhoCan page={plain(page)} />}>
      <Title words={share.name}>
        <SubSections of={provisionParts} />
      </Title>
      <Sentence page={page} />
      <About page={page} />
      {speaks(share, 'NFS') && <RulesTable rules={share.rules} hosts={hosts} />}
      {speaks(share, 'SMB') && (
        <GrantsTable
          grants={share.grants}
          serviceGrants={share.serviceGrants}
          serviceHref={`/provision/file-services/${share.fileServiceId}`}
        />
      )}
      {share.acl.length > 0 && <AccessListTable acl={share.acl} ownerUid={share.ownerUid} ownerGid={share.ownerGid} />}
      {share.acl.length === 0 && speaks(share, 'NFS') && (
        <RootAfterRules rules={share.rules} root={{ uid: share.ownerUid, gid: share.ownerGid, mode: share.mode }} />
      )}
      <QuotaTree share={share} now={now} />
      <LimitTable share={share} />
      <HostCommands commands={speaks(share, 'NFS') ? commandsFor(page) : smbCommandsFor(page)} />
      {changes.length > 0 && (
        <>
          <h3>Changes</h3>
          <ChangeLines changes={changes} />
        </>
      )}
    </Frame>
  )
}

/** How it is exported and filled, and what leads on from it. */
function About({ page: { share, service, volume } }: { readonly page: SharePage }) {
  const { id, name, path, protocols, usedBytes, sizeBytes, snapshotDirectory } = share
  const ways = [
    ['its volume and snapshots', `/provision/volumes/${volume.id}`],
    ['set rights', `/provision/shares?sel=${id}&draft=set-share-rights`],
    ['set limits', `/provision/shares?sel=${id}&draft=set-share-limits`],
    ['try it as somebody', `/provision/shares?sel=${id}&draft=test-share`],
    ['its files', `/provision/shares/${id}/files`],
    ['how it grew', `/watch/board?${boardQuery(growthOf(id))}`],
    ...(snapshotDirectory === null
      ? []
      : [[earlierWords(snapshotDirectory), `/provision/shares?sel=${id}&draft=show-earlier-files`] as const]),
  ]
  return (
    <p className="mt-0 text-second">
      Exported as{' '}
      <span className="mono">{speaks(share, 'NFS') ? `${service.name}:${path}` : `//${service.name}/${name}`}</span> ·{' '}
      {protocols.map(each => each.replaceAll('_', '.')).join(', ')} · <Bytes bytes={usedBytes} /> of{' '}
      <Bytes bytes={sizeBytes} /> used
      {ways.map(([words, href]) => (
        <span key={href}>
          {' · '}
          <Link className="textlink" href={href}>
            {words}
          </Link>
        </span>
      ))}
    </p>
  )
}

const growthOf = (objectId: string): Board => ({
  lanes: [plainLane({ metric: 'written', objectId })],
  ...{ hours: 672, until: null, chosen: 0 },
})

const earlierWords = ({ name, isShown }: NonNullable<SharePage['share']['snapshotDirectory']>) =>
  isShown ? `earlier files in ${name}` : 'show earlier files'

/** How many may, and the rules that nobody meets. */
function Sentence({ page: { share, hosts, hostCount, missingSince, service } }: { readonly page: SharePage }) {
  const table = exportTable(share.rules)
  const accesses = hosts.map(host => {
    const index = decidingRule(table, askingFrom(host))
    return index === undefined ? 'none' : (share.rules[index]?.access ?? 'none')
  })
  const may = accesses.filter(access => access !== 'none').length
  const write = accesses.filter(access => access === 'rw').length
  if (!speaks(share, 'NFS'))
    return (
      <p className="sentence">
        <b>
          {allGrants(share).length === 0
            ? 'Nobody may use it: it has no grant.'
            : `${countAtStart(allGrants(share).length, 'grant says', 'grants say')} who may use it, wherever they sign in from.`}
        </b>{' '}
        {service.joinedTo === null && 'Its service belongs to no directory: nobody can sign in.'}
      </p>
    )
  const never = ruleReach(share.rules).flatMap(({ isNeverReached }, index) => (isNeverReached ? [index + 1] : []))
  const silent = service.instances.filter(({ standsOn }) => standsOn === null).length
  return (
    <p className="sentence">
      <b>
        {may === 0
          ? 'No host that is known may mount it.'
          : `${countAtStart(may, 'host', 'hosts')} of ${hostCount} may mount it; ${write === 0 ? 'none may write' : countWords(write, 'may write', 'may write')}.`}
      </b>{' '}
      {never.length > 0 && `Export rule ${never.join(', ')} ${never.length === 1 ? 'is' : 'are'} never reached. `}
      {silent > 0 &&
        `${countAtStart(silent, 'address', 'addresses')} of its service ${silent === 1 ? 'does' : 'do'} not answer. `}
      {missingSince !== null && `Its system has not stated it since ${missingSince.slice(0, 16).replace('T', ' ')}.`}
    </p>
  )
}

const speaks = ({ protocols }: SharePage['share'], family: string) => protocols.some(each => each.startsWith(family))

/** The realm of a directory, by its base: `dc=a,dc=b` is `a.b`. Source: RFC 2247. */
const realmOf = (baseDn: string) => [...baseDn.matchAll(/dc=([^,]+)/gi)].map(([, part]) => part).join('.')

const smbCommandsFor = ({ share, service }: SharePage) =>
  smbCommands({ server: service.name, name: share.name, realm: realmOf(service.joinedTo ?? '') })

function commandsFor({ share, service }: SharePage) {
  const open = share.rules.find(({ access }) => access !== 'none')
  return mountCommands({
    server: service.name,
    path: share.path,
    protocols: share.protocols,
    flavour: open?.flavours[0] ?? 'sys',
    isReadOnly: open?.access === 'ro' && !share.rules.some(({ access }) => access === 'rw'),
  })
}
