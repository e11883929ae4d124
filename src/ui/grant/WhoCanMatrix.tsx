'use client'
import { useMemo, useState, type ReactNode } from 'react'
import { askingFrom, rightsMatrix, smbRight, smbRightsOf, type Right } from '@/core/access'
import { countAtStart, countWords } from '@/core/units'
import type { GrantPage } from '@/core/views'
import { Margin, Page as Frame, Title } from '../frame'
import { PersonChoice, useSomebody } from '../people'
import { Choice } from '../parts/Choice'
import { TextField } from '../parts/TextField'
import { ServerLists } from '../table'
import { Legend, RightsTable, type Chosen, type Row } from './RightsTable'
import { rightsOf, speaks } from './rightsOf'
import { WayMargin } from './WayMargin'

const idOf = (text: string) => (/^\d{1,10}$/.test(text.trim()) ? Number(text) : undefined)
type Shown = 'all' | 'may' | 'differs'

interface MatrixProps {
  readonly page: GrantPage
  /** The other pages of this section. */
  readonly beside?: ReactNode
}

type Somebody = NonNullable<ReturnType<typeof useSomebody>>['is']

/** What somebody may do with every share from every host, and why: hosts below each other, shares beside each other. */
export const WhoCanMatrix = (props: MatrixProps) => (
  <ServerLists>
    <Matrix {...props} />
  </ServerLists>
)

function Matrix({ page, beside }: MatrixProps) {
  const { shares } = page
  const [shown, show] = useState<Shown>('all')
  const [chosen, choose] = useState<Chosen>()
  const asked = useAsked()
  const { identity, somebody } = asked
  const all = useMemo(() => rowsFor(page, identity, somebody?.is), [page, identity, somebody])
  const who = somebody?.person.name ?? `uid ${identity.uid}`
  const share = shares.find(({ id }) => id === chosen?.shareId) ?? shares[0]
  const row = all.find(({ host }) => chosen !== undefined && (host?.id ?? '') === chosen.hostId) ?? all[0]
  return (
    <Frame
      margin={
        share === undefined || row === undefined ? (
          <Nothing />
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
      <Sentence page={page} rights={all.flatMap(({ rights }) => rights.flatMap(right => right ?? []))} who={who} />
      <WhoFields {...{ asked, shown, show }} />
      {shares.length > 0 && (
        <RightsTable
          shares={shares}
          rows={all.filter(each => isShown(each, shown))}
          isChosen={(each, shareId) => each === row && shareId === share?.id}
          onChoose={choose}
        />
      )}
      <Legend />
    </Frame>
  )
}

const Nothing = () => (
  <Margin>
    <h2>Who can</h2>
    <p className="mt-0 text-second">
      There is nothing to be let do yet: a share, and a host whose address on the network is known.
    </p>
  </Margin>
)

/** Whom the page is about: somebody of a directory, or numbers as they are typed. */
function useAsked() {
  const [uid, setUid] = useState('1000')
  const [groups, setGroups] = useState('1000')
  const [personId, choosePerson] = useState('')
  const somebody = useSomebody(personId)
  const identity = useMemo(() => {
    if (somebody !== undefined) return { uid: somebody.is.uid, gid: somebody.is.gid, groups: somebody.is.groups }
    const ids = groups.split(/[\s,]+/).flatMap(each => idOf(each) ?? [])
    return { uid: idOf(uid) ?? 65_534, gid: ids[0] ?? 65_534, groups: ids.slice(1) }
  }, [uid, groups, somebody])
  return { uid, setUid, groups, setGroups, personId, choosePerson, somebody, identity }
}
type Asked = ReturnType<typeof useAsked>

/** What somebody may: from each host over NFS, and in front of them over SMB where a share is served so. */
function rowsFor({ shares, hosts }: GrantPage, identity: Asked['identity'], is: Somebody | undefined): readonly Row[] {
  const asked = hosts.map(askingFrom)
  const cells = rightsMatrix(shares.map(rightsOf), asked, identity)
  const overSmb = shares.map(each =>
    is !== undefined && speaks(each, 'SMB') ? smbRight(smbRightsOf(each), is) : undefined,
  )
  const overNfs = hosts.map((host, index): Row => {
    const own = cells[index] ?? []
    return { host, rights: shares.map((each, at) => (speaks(each, 'NFS') ? own[at]?.right : undefined)) }
  })
  return overSmb.every(each => each === undefined) ? overNfs : [{ host: undefined, rights: overSmb }, ...overNfs]
}

interface WhoFieldsProps {
  readonly asked: Asked
  readonly shown: Shown
  readonly show: (shown: Shown) => void
}

function WhoFields({ asked, shown, show }: WhoFieldsProps) {
  const { uid, setUid, groups, setGroups, personId, choosePerson, somebody } = asked
  return (
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
  )
}

function isShown({ rights }: Row, shown: Shown): boolean {
  const own = rights.filter(right => right !== undefined)
  if (shown === 'may') return own.some(right => right !== 'none')
  return shown === 'all' || new Set(own).size > 1
}

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
