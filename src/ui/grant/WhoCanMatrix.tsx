'use client'
import Link from 'next/link'
import { useMemo, useState, type ReactNode } from 'react'
import { rightsMatrix, smbRight, type Right } from '@/core/access'
import { countAtStart, countWords } from '@/core/units'
import type { GrantPage } from '@/core/views'
import { Margin, Page as Frame, Title } from '../frame'
import { PersonChoice, useSomebody } from '../people'
import { Choice } from '../parts/Choice'
import { TextField } from '../parts/TextField'
import { ServerLists } from '../table'
import { RightMark, rightWords } from './RightMark'
import { rightsOf, speaks } from './rightsOf'
import { WayMargin } from './WayMargin'

const idOf = (text: string) => (/^\d{1,10}$/.test(text.trim()) ? Number(text) : undefined)
type Shown = 'all' | 'may' | 'differs'

interface MatrixProps {
  readonly page: GrantPage
  /** The other pages of this section. */
  readonly beside?: ReactNode
}

/** A row: from a host over NFS, or over SMB, from wherever; a share that is not served so has no right there. */
interface Row {
  readonly host: GrantPage['hosts'][number] | undefined
  readonly rights: readonly (Right | undefined)[]
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
  const [shown, show] = useState<Shown>('all')
  const [chosen, choose] = useState<{ readonly hostId: string; readonly shareId: string }>()
  const somebody = useSomebody(personId)
  const identity = useMemo(() => {
    if (somebody !== undefined) return { uid: somebody.is.uid, gid: somebody.is.gid, groups: somebody.is.groups }
    const ids = groups.split(/[\s,]+/).flatMap(each => idOf(each) ?? [])
    return { uid: idOf(uid) ?? 65_534, gid: ids[0] ?? 65_534, groups: ids.slice(1) }
  }, [uid, groups, somebody])
  const all = useMemo(() => {
    const asked = hosts.map(({ addresses }) => ({ clientAddress: addresses[0] ?? '', clientName: null }))
    const cells = rightsMatrix(shares.map(rightsOf), asked, identity)
    const overSmb = shares.map(each =>
      somebody !== undefined && speaks(each, 'SMB')
        ? smbRight({ grants: each.grants, root: rightsOf(each).root }, somebody.is)
        : undefined,
    )
    const overNfs = hosts.map((host, index): Row => {
      const own = cells[index] ?? []
      return { host, rights: shares.map((each, at) => (speaks(each, 'NFS') ? own[at]?.right : undefined)) }
    })
    return overSmb.every(each => each === undefined) ? overNfs : [{ host: undefined, rights: overSmb }, ...overNfs]
  }, [shares, hosts, identity, somebody])
  const rows = all.filter(row => isShown(row, shown))
  const who = somebody?.person.name ?? `uid ${identity.uid}`
  const share = shares.find(({ id }) => id === chosen?.shareId) ?? shares[0]
  const row = all.find(({ host }) => chosen !== undefined && (host?.id ?? '') === chosen.hostId) ?? all[0]
  return (
    <Frame
      margin={
        share === undefined || row === undefined ? (
          <Margin>
            <h2>Who can</h2>
            <p className="mt-0 text-second">
              There is nothing to be let do yet: a share, and a host whose address on the network is known.
            </p>
          </Margin>
        ) : (
          <WayMargin
            services={page.services}
            {...{ share, who }}
            host={row.host}
            request={identity}
            somebody={somebody?.is}
          />
        )
      }
    >
      <Title words="Grant">{beside}</Title>
      <Sentence
        page={page}
        rights={all.flatMap(({ rights }) => rights.filter(right => right !== undefined))}
        who={who}
      />
      <div className="grid max-w-[820px] grid-cols-[220px_90px_150px_minmax(0,1fr)] items-start gap-x-3 max-sm:grid-cols-2">
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
          value={somebody === undefined ? groups : [...new Set([somebody.is.gid, ...somebody.is.groups])].join(', ')}
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
              {rows.map(each => (
                <tr key={each.host?.id ?? ''}>
                  <td className="font-semibold">{each.host?.name ?? 'anywhere'}</td>
                  <td className={each.host === undefined ? 'text-second' : 'mono text-second'}>
                    {each.host?.addresses[0] ?? 'over SMB'}
                  </td>
                  {shares.map(({ id, name }, at) => (
                    <td key={id} className="p-0 text-center">
                      <RightButton
                        right={each.rights[at]}
                        words={`${each.host?.name ?? 'over SMB'}, ${name}`}
                        isChosen={each === row && id === share?.id}
                        onChoose={() => choose({ hostId: each.host?.id ?? '', shareId: id })}
                      />
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

function isShown({ rights }: Row, shown: Shown): boolean {
  const own = rights.filter(right => right !== undefined)
  if (shown === 'may') return own.some(right => right !== 'none')
  return shown === 'all' || new Set(own).size > 1
}

interface RightButtonProps {
  readonly right: Right | undefined
  readonly words: string
  readonly isChosen: boolean
  readonly onChoose: () => void
}

const RightButton = ({ right, words, isChosen, onChoose }: RightButtonProps) =>
  right === undefined ? (
    <span className="text-second" title="not shared so">
      –
    </span>
  ) : (
    <button
      type="button"
      aria-label={`${words}: ${rightWords(right)}`}
      aria-pressed={isChosen}
      className="w-full border border-transparent bg-transparent px-1 py-0 aria-pressed:border-action"
      onClick={onChoose}
    >
      <RightMark right={right} />
    </button>
  )

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
