'use client'
import { Link } from '../parts/Link'
import { useRouter } from 'next/navigation'
import type { ReactNode } from 'react'
import type { ConnectionPage, ConnectionTest } from '@/core/views'
import { Page as Frame, Title } from '../frame'
import { Ago } from '../parts/Ago'
import { Mark } from '../parts/State'
import { ServerLists } from '../table'
import { ConnectionLine } from './ConnectionLine'
import { ConnectionMargin } from './ConnectionMargin'
import { useEnds } from './useEnds'
import { ConnectionTable } from './ConnectionTable'
import { connectionGravity, connectionSaid } from './connectionWords'

interface SheetProps {
  readonly page: ConnectionPage
  readonly asked: {
    readonly hostId: string
    readonly shareId: string
    /** Which test is shown; undefined for the latest. */
    readonly testId: string | undefined
    /** With which it is compared; undefined for the one before it. */
    readonly beforeId: string | undefined
  }
  /** The other pages of this section. */
  readonly beside?: ReactNode
}

/** What a host found on its way to a share: as a sentence, as a line, hop by hop; beside it what it found before. */
export const ConnectionSheet = (props: SheetProps) => (
  <ServerLists>
    <Sheet {...props} />
  </ServerLists>
)

function Sheet({ page, asked, beside }: SheetProps) {
  const router = useRouter()
  const { tests, hosts, shares } = page
  const { ends, go } = useEnds({ host: asked.hostId, share: asked.shareId })
  const host = hosts.find(({ id }) => id === ends.host)
  const share = shares.find(({ id }) => id === ends.share)
  const at = Math.max(
    0,
    tests.findIndex(({ id }) => id === asked.testId),
  )
  const test = tests[at]
  const before = tests.slice(at + 1).find(({ id }) => asked.beforeId === undefined || id === asked.beforeId)
  return (
    <Frame margin={<ConnectionMargin {...{ page, host, share, test, go }} onTested={() => router.refresh()} />}>
      <Title words="Connection test">{beside}</Title>
      {test === undefined || host === undefined || share === undefined ? (
        <NotTried hosts={hosts} shares={shares} />
      ) : (
        <>
          <p className="sentence" role="status">
            <Outcome test={test} /> <b>{connectionSaid(test, host.name, share.name)}</b>
          </p>
          <ConnectionLine hops={test.hops} from={host.name} to={share.name} />
          <ConnectionTable test={test} before={before} />
        </>
      )}
      {tests.length > 1 && <Earlier tests={tests} shown={test} asked={asked} />}
      {page.latest.length > 0 && <Latest page={page} />}
    </Frame>
  )
}

const NotTried = ({ hosts, shares }: Pick<SheetProps['page'], 'hosts' | 'shares'>) => (
  <p className="sentence">
    {hosts.length === 0 ? (
      <b>No host with an agent is known that could try.</b>
    ) : shares.length === 0 ? (
      <b>There is no share to be reached yet.</b>
    ) : (
      <>
        <b>Nothing has been tried between these yet.</b> A host goes the whole way, from the name to a write, and leaves
        nothing behind.
      </>
    )}
  </p>
)

const Outcome = ({ test }: { readonly test: ConnectionTest }) => {
  const gravity = connectionGravity(test)
  return (
    <span className={{ fine: 'text-fine', soon: 'text-soon', now: 'text-now' }[gravity]}>
      <Mark gravity={gravity} size={11} />
    </span>
  )
}

const endOf = ({ hops }: ConnectionTest) => {
  const stop = hops.find(({ state }) => state === 'stops')
  if (stop?.hop === 'write') return 'may only read'
  return stop === undefined ? 'the whole way' : `ends at the ${stop.label.toLowerCase()}`
}

interface EarlierProps {
  readonly tests: readonly ConnectionTest[]
  readonly shown: ConnectionTest | undefined
  readonly asked: SheetProps['asked']
}

/** All tests of these two that are kept; each can be shown, with the one before it beside it. */
const Earlier = ({ tests, shown, asked }: EarlierProps) => (
  <>
    <h3>Of these two, the latest first</h3>
    <table className="plain rows">
      <tbody>
        {tests.map(each => (
          <tr key={each.id} aria-current={each.id === shown?.id}>
            <td className="w-[110px]">
              <Link
                className={each.id === shown?.id ? 'font-semibold no-underline' : 'textlink'}
                href={`?${new URLSearchParams({ host: asked.hostId, share: asked.shareId, test: each.id })}`}
                scroll={false}
              >
                <Ago at={each.at} />
              </Link>
            </td>
            <td className="w-[60px]">{each.protocol}</td>
            <td>
              {each.caller} <span className="text-second">by {each.madeBy}</span>
            </td>
            <td>
              <Outcome test={each} /> {endOf(each)}
            </td>
          </tr>
        ))}
      </tbody>
    </table>
  </>
)

/** What was tried last, of whichever host and share. */
function Latest({ page: { latest, hosts, shares } }: { readonly page: ConnectionPage }) {
  const nameIn = (list: readonly { readonly id: string; readonly name: string }[], id: string) =>
    list.find(each => each.id === id)?.name ?? 'one without an agent'
  const pairs = latest.filter(
    (each, index) => latest.findIndex(one => one.hostId === each.hostId && one.shareId === each.shareId) === index,
  )
  return (
    <>
      <h3>Tried last</h3>
      <table className="plain rows">
        <tbody>
          {pairs.map(each => (
            <tr key={each.id}>
              <td>
                <Link
                  className="textlink"
                  href={`?${new URLSearchParams({ host: each.hostId, share: each.shareId })}`}
                  scroll={false}
                >
                  {nameIn(hosts, each.hostId)} to {nameIn(shares, each.shareId)}
                </Link>
              </td>
              <td>{each.caller}</td>
              <td>
                <Outcome test={each} /> {endOf(each)}
              </td>
              <td className="text-second">
                <Ago at={each.at} />
              </td>
            </tr>
          ))}
        </tbody>
      </table>
    </>
  )
}
