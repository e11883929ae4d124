'use client'
import Link from 'next/link'
import { useMemo, useState, type ReactNode } from 'react'
import { fileGates, rightsMatrix, smbRight, type FileRequest, type Right, type ShareRights } from '@/core/access'
import type { Share } from '@/core/estate'
import { countAtStart, countWords } from '@/core/units'
import type { GrantPage } from '@/core/views'
import { Margin, Page as Frame, Title } from '../frame'
import { PersonChoice, useSomebody } from '../people'
import { Choice } from '../parts/Choice'
import { Mark } from '../parts/State'
import { TextField } from '../parts/TextField'
import { GateLines, quotaOf } from '../provision/files'
import { ServerLists } from '../table'
import { RightMark, rightWords } from './RightMark'

const idOf = (text: string) => (/^\d{1,10}$/.test(text.trim()) ? Number(text) : undefined)
const rightsOf = ({ protocols, rules, ownerUid, ownerGid, mode }: Share): ShareRights => ({
  rules: protocols.some(each => each.startsWith('NFS')) ? rules : noRules,
  root: { uid: ownerUid, gid: ownerGid, mode },
})
const noRules: ShareRights['rules'] = []
const speaksSmb = ({ protocols }: Share) => protocols.some(each => each.startsWith('SMB'))
type Shown = 'all' | 'may' | 'differs'

interface MatrixProps {
  readonly page: GrantPage
  /** The other pages of this section. */
  readonly beside?: ReactNode
}

/** What somebody may do with every share from every host, and why: hosts below each other, shares beside each other. */
export const WhoCanMatrix = (props: MatrixProps) => (
  <ServerLists>
    <Matrix {...props} />
  </ServerLists>
)

function Matrix({ page, beside }: MatrixProps) {
  const { shares, hosts } = page
  const [uid, setUid] = useState('1000')
  const [groups, setGroups] = useState('1000')
  const [personId, choosePerson] = useState('')
  const somebody = useSomebody(personId)
  const [shown, show] = useState<Shown>('all')
  const [chosen, choose] = useState<{ readonly host: number; readonly share: number }>({ host: 0, share: 0 })
  const identity = useMemo(() => {
    if (somebody !== undefined) return { uid: somebody.is.uid, gid: somebody.is.gid, groups: somebody.is.groups }
    const ids = groups.split(/[\s,]+/).flatMap(each => idOf(each) ?? [])
    return { uid: idOf(uid) ?? 65_534, gid: ids[0] ?? 65_534, groups: ids.slice(1) }
  }, [uid, groups, somebody])
  const who = somebody?.person.name ?? `uid ${identity.uid}`
  const cells = useMemo(
    () =>
      rightsMatrix(
        shares.map(rightsOf),
        hosts.map(({ addresses }) => ({ clientAddress: addresses[0] ?? '', clientName: null })),
        identity,
      ),
    [shares, hosts, identity],
  )
  const rows = hosts.flatMap((host, index) => {
    const own = cells[index] ?? []
    const isShown =
      shown === 'all' ||
      (shown === 'may' ? own.some(({ right }) => right !== 'none') : new Set(own.map(({ right }) => right)).size > 1)
    return isShown ? [{ host, index, cells: own }] : []
  })
  const share = shares[chosen.share]
  const host = hosts[chosen.host]
  const all = cells.flat()
  return (
    <Frame
      margin={
        share === undefined || host === undefined ? (
          <Margin>
            <h2>Who can</h2>
            <p className="mt-0 text-second">
              There is nothing to be let do yet: a share, and a host whose address on the network is known.
            </p>
          </Margin>
        ) : (
          <Cell
            page={page}
            share={share}
            host={host}
            who={who}
            request={{ ...identity, clientAddress: host.addresses[0] ?? '', clientName: null, flavour: 'sys' }}
          />
        )
      }
    >
      <Title words="Grant">{beside}</Title>
      <Sentence page={page} rights={all.map(({ right }) => right)} who={who} />
      <div className="grid max-w-[820px] grid-cols-[220px_90px_150px_minmax(0,1fr)] items-start gap-x-3">
        <PersonChoice
          label="Who"
          chosen={personId === '' ? '' : (somebody?.person.name ?? '…')}
          onChoose={found => choosePerson(found?.id ?? '')}
        />
        <TextField
          label="uid"
          isMono
          value={somebody?.is.uid ?? uid}
          disabled={personId !== ''}
          error={idOf(uid) === undefined ? 'A whole number.' : undefined}
          onChange={setUid}
        />
        <TextField
          label="gid, other groups"
          isMono
          disabled={personId !== ''}
          value={somebody === undefined ? groups : [somebody.is.gid, ...somebody.is.groups].join(', ')}
          onChange={setGroups}
        />
        <Choice
          label="Hosts"
          value={shown}
          options={[
            { value: 'all', words: 'all' },
            { value: 'may', words: 'where allowed' },
            { value: 'differs', words: 'that differ' },
          ]}
          onChange={show}
        />
      </div>
      {shares.length > 0 && (
        <div className="overflow-x-auto">
          <table className="plain">
            <thead>
              <tr>
                <th>From</th>
                <th>Address</th>
                {shares.map(each => (
                  <th key={each.id} className="text-center">
                    <Link className="no-underline" href={`/provision/shares/${each.id}`}>
                      {each.name}
                    </Link>
                  </th>
                ))}
              </tr>
            </thead>
            <tbody>
              {somebody !== undefined && shares.some(each => speaksSmb(each)) && (
                <tr>
                  <td className="font-semibold">anywhere</td>
                  <td className="text-second">over SMB</td>
                  {shares.map(each => (
                    <td key={each.id} className="text-center">
                      {speaksSmb(each) ? (
                        <RightMark right={smbRight({ grants: each.grants, root: rightsOf(each).root }, somebody.is)} />
                      ) : (
                        <span className="text-second">–</span>
                      )}
                    </td>
                  ))}
                </tr>
              )}
              {rows.map(({ host: each, index, cells: own }) => (
                <tr key={each.id}>
                  <td className="font-semibold">{each.name}</td>
                  <td className="mono text-second">{each.addresses[0]}</td>
                  {own.map(({ right }, at) => (
                    <td key={shares[at]?.id} className="p-0 text-center">
                      <button
                        type="button"
                        aria-label={`${each.name}, ${shares[at]?.name ?? ''}: ${rightWords(right)}`}
                        aria-pressed={chosen.host === index && chosen.share === at}
                        className="w-full border border-transparent bg-transparent px-1 py-0 aria-pressed:border-action"
                        onClick={() => choose({ host: index, share: at })}
                      >
                        <RightMark right={right} />
                      </button>
                    </td>
                  ))}
                </tr>
              ))}
            </tbody>
          </table>
          {rows.length === 0 && <p className="text-second">No host is so.</p>}
        </div>
      )}
      <Legend />
    </Frame>
  )
}

const Legend = () => (
  <p className="flex flex-wrap items-center gap-x-5 text-second">
    {(['change', 'read', 'write only', 'none'] as const).map(right => (
      <span key={right} className="inline-flex items-center gap-1">
        <RightMark right={right} /> {rightWords(right)}
      </span>
    ))}
  </p>
)

function Sentence({
  page,
  rights,
  who,
}: {
  readonly page: GrantPage
  readonly rights: readonly Right[]
  readonly who: string
}) {
  const { shares, shareCount, hosts, hostCount } = page
  if (shareCount === 0)
    return (
      <p className="sentence">
        <b>No share is there yet.</b> One is provisioned from a file service.
      </p>
    )
  const change = rights.filter(right => right === 'change').length
  const read = rights.filter(right => right === 'read').length
  return (
    <p className="sentence">
      <b>
        {who} may change {waysOf(change)}, and read {waysOf(read)}.
      </b>{' '}
      There are {countWords(rights.length, 'way', 'ways')} from {countWords(hosts.length, 'host', 'hosts')} to{' '}
      {countWords(shares.length, 'share', 'shares')}.{' '}
      {shareCount > shares.length &&
        `${countAtStart(shareCount - shares.length, 'share stands', 'shares stand')} in their list only. `}
      {hostCount > hosts.length && `${countAtStart(hostCount - hosts.length, 'host is', 'hosts are')} left out. `}
      To administer Wendrel is no right on data.
    </p>
  )
}

const waysOf = (count: number) => (count === 0 ? 'nowhere' : `by ${countWords(count, 'way', 'ways')}`)

interface CellProps {
  readonly page: GrantPage
  readonly share: Share
  readonly host: GrantPage['hosts'][number]
  readonly request: Omit<FileRequest, 'operation'>
  readonly who: string
}

/** One of the ways: every gate for a write, and for a read where it differs. */
function Cell({ page: { services }, share, host, request, who }: CellProps) {
  const service = services.find(({ id }) => id === share.fileServiceId)
  const state = {
    name: share.name,
    protocols: share.protocols,
    addresses: (service?.instances ?? []).flatMap(({ address, standsOn }) => (standsOn === null ? [] : [address])),
    freeBytes: BigInt(share.sizeBytes) - BigInt(share.usedBytes),
    quotaOf: quotaOf(share),
  }
  const write = fileGates(rightsOf(share), state, { ...request, operation: 'write' })
  const read = fileGates(rightsOf(share), state, { ...request, operation: 'read' })
  const said = write.allowed
    ? read.allowed
      ? 'May change.'
      : 'May write, but not read.'
    : read.allowed
      ? 'May read. A write is refused.'
      : 'May nothing.'
  return (
    <Margin
      foot={
        <Link className="button" href={`/provision/shares/${share.id}`}>
          What would turn it
        </Link>
      }
    >
      <h2>
        {who} on {share.name}
      </h2>
      <p className="sentence mt-0">
        <span className={write.allowed ? 'text-fine' : read.allowed ? 'text-soon' : 'text-now'}>
          <Mark gravity={write.allowed ? 'fine' : read.allowed ? 'soon' : 'now'} size={11} />
        </span>{' '}
        <b>{said}</b> From {host.name}, {host.addresses[0]}.
      </p>
      <h3>Write</h3>
      <GateLines gates={write.gates} />
      <h3>Read</h3>
      <GateLines gates={read.gates} />
    </Margin>
  )
}
