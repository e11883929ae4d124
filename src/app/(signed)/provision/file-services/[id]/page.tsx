import { Link } from '@/ui/parts/Link'
import { notFound } from 'next/navigation'
import { plain } from '@/app/(signed)/plain'
import { reader } from '@/app/server/guard'
import { hasAgent, type FileService, type Share } from '@/core/estate'
import { isUuid } from '@/core/input'
import { countAtStart, countWords } from '@/core/units'
import { objects } from '@/records/objects'
import { Margin, Page as Frame, SubSections, Title } from '@/ui/frame'
import { State } from '@/ui/parts/State'
import { GrantsTable, TakeOver } from '@/ui/provision/files'
import { provisionParts } from '../../parts'

export const metadata = { title: 'File service' }

const mostHosts = 100
const shownShares = 20

/** Where a file service answers and what it serves; and how it takes over the name of an old server. */
export default async function Page({ params }: { readonly params: Promise<{ readonly id: string }> }) {
  const { id } = await params
  const { scope } = await reader()
  const [service] = isUuid(id) ? await objects(scope, 'fileServices', { where: { id } }) : []
  if (service === undefined) notFound()
  const shares = await objects(scope, 'shares', { where: { fileServiceId: id }, order: [['name', 'ASC']] })
  const hosts = (await objects(scope, 'hosts', { order: [['name', 'ASC']], limit: mostHosts })).filter(hasAgent)
  return (
    <Frame margin={<OldName />}>
      <Title words={service.name}>
        <SubSections of={provisionParts} />
      </Title>
      <Sentence service={service} shareCount={shares.length} />
      <Instances instances={service.instances} />
      {shares.length > 0 && <Shares shares={shares} />}
      {service.joinedTo !== null && <Grants service={service} />}
      <h3>
        The name of an old server <span>an alias, names for tickets, and the way back</span>
      </h3>
      <TakeOver
        service={service}
        shares={plain(shares)}
        hosts={hosts.map(({ id: hostId, name }) => ({ id: hostId, name }))}
      />
    </Frame>
  )
}

const OldName = () => (
  <Margin>
    <h2>An old name</h2>
    <p className="mt-0 text-second">
      Clients keep the name that they have: an alias leads it to this service, and tickets are given for it as well.
      Wendrel writes neither to name servers nor to directories; it writes the scripts, and a host shows what clients
      see before and after.
    </p>
  </Margin>
)

interface OfService {
  readonly service: FileService
}

function Sentence({ service, shareCount }: OfService & { readonly shareCount: number }) {
  const silent = service.instances.filter(({ standsOn }) => standsOn === null).length
  return (
    <p className="sentence">
      <b>
        {silent === 0
          ? 'It answers at each of its addresses'
          : `${countAtStart(silent, 'address does', 'addresses do')} not answer`}
        .
      </b>{' '}
      It serves {shareCount === 0 ? 'nothing yet' : countWords(shareCount, 'share', 'shares')}
      {service.joinedTo === null ? '.' : `, and people sign in by ${service.joinedTo}.`}
    </p>
  )
}

const Instances = ({ instances }: Pick<FileService, 'instances'>) => (
  <table className="plain rows">
    <thead>
      <tr>
        <th>Belongs on</th>
        <th>Address</th>
        <th>Answered by</th>
      </tr>
    </thead>
    <tbody>
      {instances.map(({ unit, address, standsOn }) => (
        <tr key={address}>
          <td className="font-semibold">{unit}</td>
          <td className="mono">{address}</td>
          <td>
            <State gravity={standsOn === unit ? 'fine' : standsOn === null ? 'now' : 'soon'}>
              {standsOn ?? 'nobody'}
            </State>
          </td>
        </tr>
      ))}
    </tbody>
  </table>
)

const Shares = ({ shares }: { readonly shares: readonly Share[] }) => (
  <p>
    <span className="text-second">Its shares:</span>{' '}
    {shares.slice(0, shownShares).map(each => (
      <span key={each.id}>
        <Link className="textlink" href={`/provision/shares/${each.id}`}>
          {each.name}
        </Link>{' '}
      </span>
    ))}
    {shares.length > shownShares && `and ${shares.length - shownShares} more`}
  </p>
)

const Grants = ({ service: { id, grants } }: OfService) => (
  <>
    <p className="mb-0">
      <Link className="textlink" href={`/provision/file-services?sel=${id}&draft=set-service-grants`}>
        set grants for all its shares
      </Link>
    </p>
    {grants.length > 0 && <GrantsTable grants={grants} isForAll />}
  </>
)
