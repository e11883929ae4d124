'use client'
import { useMemo, useState } from 'react'
import {
  askingFrom,
  fileGates,
  smbGates,
  smbRightsOf,
  type FileOperation,
  type FileRequest,
  type ShareRights,
  type SignedIn,
} from '@/core/access'
import type { Principal } from '@/core/estate'
import type { SharePage } from '@/core/views'
import { Margin } from '../../frame'
import { PersonChoice, useSomebody } from '../../people'
import { Choice } from '../../parts/Choice'
import { Mark } from '../../parts/State'
import { SelectField } from '../../parts/Select'
import { TextField } from '../../parts/TextField'
import { ServerLists } from '../../table'
import { GateLines } from './GateLines'
import { Nearby } from './Nearby'
import { shareState } from './shareState'
import { NfsWays, SmbWays } from './TurningWays'

interface WhoCanProps {
  readonly page: SharePage
}

/** Somebody, as typed or as a directory has them. */
interface Asked {
  readonly personId: string
  readonly uid: string
  readonly groups: string
  readonly hostId: string
  readonly operation: FileOperation
  readonly over: 'NFS' | 'SMB'
}

const elsewhere = 'elsewhere'
const anyAddress = '192.0.2.1'
const nobodysId = 65_534
const idOf = (text: string) => (/^\d{1,10}$/.test(text.trim()) ? Number(text) : undefined)

/** Whether somebody may, from some host; every gate with what decided, and what would turn the answer. */
export const WhoCan = (props: WhoCanProps) => (
  <ServerLists>
    <Asking {...props} />
  </ServerLists>
)

function Asking({ page }: WhoCanProps) {
  const speaks = (family: string) => page.share.protocols.some(each => each.startsWith(family))
  const [asked, set] = useState(() => askedAtFirst(page, speaks('NFS')))
  const change = (part: Partial<Asked>) => set({ ...asked, ...part })
  const somebody = useSomebody(asked.personId)
  const state = shareState(page.share, page.service)
  return (
    <Margin>
      <h2>Who can</h2>
      <div className="grid grid-cols-2 gap-x-[10px]">
        {speaks('NFS') && speaks('SMB') && (
          <Choice label="Over" value={asked.over} options={ways} onChange={over => change({ over })} />
        )}
        <Choice
          label="Operation"
          value={asked.operation}
          options={operations}
          onChange={operation => change({ operation })}
        />
      </div>
      <PersonChoice
        label="Who"
        hint={
          asked.over === 'SMB' ? 'A part of a name, as the directory has it.' : 'A part of a name, or numbers below.'
        }
        chosen={asked.personId === '' ? '' : (somebody?.person.name ?? '…')}
        onChoose={found => change({ personId: found?.id ?? '' })}
      />
      {asked.over === 'NFS' ? (
        <OverNfs page={page} asked={asked} change={change} state={state} somebody={somebody} />
      ) : somebody === undefined ? (
        <p className="text-second">Choose somebody: over SMB people sign in by name.</p>
      ) : (
        <OverSmb page={page} operation={asked.operation} state={state} somebody={somebody} />
      )}
    </Margin>
  )
}

/** Its owner, from the first host. */
const askedAtFirst = ({ share, hosts }: SharePage, isNfs: boolean): Asked => ({
  personId: '',
  uid: `${share.ownerUid}`,
  groups: `${share.ownerGid}`,
  hostId: hosts[0]?.id ?? elsewhere,
  operation: 'write',
  over: isNfs ? 'NFS' : 'SMB',
})

const ways = [
  { value: 'NFS', words: 'NFS' },
  { value: 'SMB', words: 'SMB' },
] as const
const operations = [
  { value: 'read', words: 'read' },
  { value: 'write', words: 'write' },
] as const

interface OverProps {
  readonly page: SharePage
  readonly state: Parameters<typeof fileGates>[1]
}
type Found = { readonly person: Principal; readonly is: SignedIn }

interface OverNfsProps extends OverProps {
  readonly asked: Asked
  readonly change: (part: Partial<Asked>) => void
  readonly somebody: Found | undefined
}

function OverNfs({ page, asked, change, state, somebody }: OverNfsProps) {
  const { share, hosts } = page
  const rights = useMemo<ShareRights>(
    () => ({
      rules: share.rules,
      root: { uid: share.ownerUid, gid: share.ownerGid, mode: share.mode, acl: share.acl },
    }),
    [share],
  )
  const request = requestOf(asked, hosts, somebody)
  const { allowed, gates } = fileGates(rights, state, request)
  return (
    <>
      <FromWhere asked={asked} change={change} hosts={hosts} />
      {somebody !== undefined && (
        <p className="mt-0 text-second">
          Counts as uid <span className="mono">{request.uid}</span>, gid <span className="mono">{request.gid}</span>,
          groups <span className="mono">{request.groups.join(', ') || 'none'}</span>.
        </p>
      )}
      <Answer allowed={allowed} gates={gates} />
      <NfsWays page={page} rights={rights} request={request} />
      <Nearby rights={rights} state={state} request={request} hosts={hosts} />
    </>
  )
}

/** What a host would ask in the name of whom. */
function requestOf(asked: Asked, hosts: SharePage['hosts'], somebody: Found | undefined): FileRequest {
  const host = hosts.find(({ id }) => id === asked.hostId)
  const groups = asked.groups.split(/[\s,]+/).flatMap(each => idOf(each) ?? [])
  return {
    ...askingFrom(host ?? { addresses: [anyAddress] }),
    uid: somebody?.is.uid ?? idOf(asked.uid) ?? nobodysId,
    gid: somebody?.is.gid ?? groups[0] ?? nobodysId,
    groups: somebody?.is.groups ?? groups.slice(1),
    flavour: 'sys',
    operation: asked.operation,
  }
}

interface FromWhereProps extends Pick<OverNfsProps, 'asked' | 'change'> {
  readonly hosts: SharePage['hosts']
}

/** By which numbers, as long as no person is chosen, and from which host. */
const FromWhere = ({ asked, change, hosts }: FromWhereProps) => (
  <div className="grid grid-cols-2 gap-x-[10px]">
    {asked.personId === '' && (
      <>
        <TextField
          label="uid"
          value={asked.uid}
          isMono
          error={idOf(asked.uid) === undefined ? 'A whole number.' : undefined}
          onChange={next => change({ uid: next })}
        />
        <TextField label="gid, other groups" value={asked.groups} isMono onChange={next => change({ groups: next })} />
      </>
    )}
    <SelectField
      label="From host"
      value={asked.hostId}
      options={[
        ...hosts.map(({ id, name, addresses }) => ({ value: id, words: `${name}  ${addresses[0] ?? ''}` })),
        { value: elsewhere, words: 'an address of no host' },
      ]}
      onChange={hostId => change({ hostId })}
    />
  </div>
)

interface OverSmbProps extends OverProps {
  readonly operation: FileOperation
  readonly somebody: Found
}

function OverSmb({ page, operation, state, somebody: { person, is } }: OverSmbProps) {
  const { share } = page
  const rights = smbRightsOf(share)
  const { allowed, gates } = smbGates(rights, state, is, operation)
  return (
    <>
      <Answer allowed={allowed} gates={gates} />
      <SmbWays page={page} rights={rights} somebody={is} operation={operation} name={person.name} />
    </>
  )
}

function Answer({ allowed, gates }: Pick<ReturnType<typeof fileGates>, 'allowed' | 'gates'>) {
  const stop = gates.find(each => each.state === 'stops')
  return (
    <>
      <p className="sentence mt-2" role="status">
        <span className={allowed ? 'text-fine' : 'text-now'}>
          <Mark gravity={allowed ? 'fine' : 'now'} size={11} />
        </span>{' '}
        {allowed ? 'Yes: every gate lets it pass.' : `No. ${stop?.label ?? ''}: ${stop?.why ?? ''}.`}
      </p>
      <GateLines gates={gates} />
    </>
  )
}
