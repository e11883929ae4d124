'use client'
import { useRouter } from 'next/navigation'
import { useMemo, useState } from 'react'
import {
  editsWords,
  fileGates,
  turningChanges,
  type FileOperation,
  type FileRequest,
  type ShareRights,
  type Turning,
} from '@/core/access'
import type { ChangeRecord, SharePage } from '@/core/views'
import { countWords } from '@/core/units'
import { ask } from '../../api'
import { Margin } from '../../frame'
import { Choice } from '../../parts/Choice'
import { Mark } from '../../parts/State'
import { SelectField } from '../../parts/Select'
import { TextField } from '../../parts/TextField'
import { toast } from '../../parts/toast'
import { GateLines } from './GateLines'
import { quotaOf } from './quotaOf'

interface WhoCanProps {
  readonly page: SharePage
}

/** Somebody, as typed. */
interface Asked {
  readonly uid: string
  readonly groups: string
  readonly hostId: string
  readonly operation: FileOperation
}

const elsewhere = 'elsewhere'
const anyAddress = '192.0.2.1'
const idOf = (text: string) => (/^\d{1,10}$/.test(text.trim()) ? Number(text) : undefined)

/** Whether somebody may, from some host; every gate with what decided, and what would turn the answer. */
export function WhoCan({ page }: WhoCanProps) {
  const { share, service, hosts } = page
  const [asked, set] = useState<Asked>({
    uid: `${share.ownerUid}`,
    groups: `${share.ownerGid}`,
    hostId: hosts[0]?.id ?? elsewhere,
    operation: 'write',
  })
  const change = (part: Partial<Asked>) => set({ ...asked, ...part })
  const rights = useMemo<ShareRights>(
    () => ({ rules: share.rules, root: { uid: share.ownerUid, gid: share.ownerGid, mode: share.mode } }),
    [share],
  )
  const host = hosts.find(({ id }) => id === asked.hostId)
  const groups = asked.groups.split(/[\s,]+/).flatMap(each => idOf(each) ?? [])
  const uid = idOf(asked.uid)
  const request: FileRequest = {
    clientAddress: host?.addresses[0] ?? anyAddress,
    clientName: null,
    uid: uid ?? 65_534,
    gid: groups[0] ?? 65_534,
    groups: groups.slice(1),
    flavour: 'sys',
    operation: asked.operation,
  }
  const state = {
    name: share.name,
    addresses: service.instances.flatMap(({ address, standsOn }) => (standsOn === null ? [] : [address])),
    freeBytes: BigInt(share.sizeBytes) - BigInt(share.usedBytes),
    quotaOf: quotaOf(share),
  }
  const { allowed, gates } = fileGates(rights, state, request)
  const stop = gates.find(each => each.state === 'stops')
  return (
    <Margin>
      <h2>Who can</h2>
      <div className="grid grid-cols-2 gap-x-[10px]">
        <TextField
          label="uid"
          value={asked.uid}
          isMono
          error={uid === undefined ? 'A whole number.' : undefined}
          onChange={next => change({ uid: next })}
        />
        <TextField label="gid, other groups" value={asked.groups} isMono onChange={next => change({ groups: next })} />
        <SelectField
          label="From host"
          value={asked.hostId}
          options={[
            ...hosts.map(({ id, name, addresses }) => ({ value: id, words: `${name}  ${addresses[0] ?? ''}` })),
            { value: elsewhere, words: 'an address of no host' },
          ]}
          onChange={hostId => change({ hostId })}
        />
        <Choice
          label="Operation"
          value={asked.operation}
          options={[
            { value: 'read', words: 'read' },
            { value: 'write', words: 'write' },
          ]}
          onChange={operation => change({ operation })}
        />
      </div>
      <p className="sentence mt-2" role="status">
        <span className={allowed ? 'text-fine' : 'text-now'}>
          <Mark gravity={allowed ? 'fine' : 'now'} size={11} />
        </span>{' '}
        {allowed ? 'Yes: every gate lets it pass.' : `No. ${stop?.label ?? ''}: ${stop?.why ?? ''}.`}
      </p>
      <GateLines gates={gates} />
      <TurningWays page={page} rights={rights} request={request} />
      <Nearby rights={rights} state={state} request={request} hosts={hosts} />
    </Margin>
  )
}

interface TurningWaysProps {
  readonly page: SharePage
  readonly rights: ShareRights
  readonly request: FileRequest
}

/** The smallest changes that would turn the answer; each of the share itself becomes a draft. */
function TurningWays({ page: { share }, rights, request }: TurningWaysProps) {
  const router = useRouter()
  const ways = turningChanges(rights, request)
  const draft = async ({ rights: { rules, root } }: Turning) => {
    const intent = { shareId: share.id, ownerUid: root.uid, ownerGid: root.gid, mode: root.mode, rules }
    const answer = await ask<ChangeRecord>('POST', '/changes', { kind: 'set-share-rights', intent })
    if (!answer.ok) return void toast.error(answer.refusal.why)
    router.push(`/provision/shares?sel=${share.id}&draft=set-share-rights&change=${answer.value.id}`)
  }
  return (
    <>
      <h3>
        What would turn the answer <span>smallest first</span>
      </h3>
      {ways.length === 0 && <p className="mt-0 text-second">Nothing about the share alone.</p>}
      {ways.map(way => {
        const words = editsWords(way.edits, rights.rules)
        const isElsewhere = way.edits.some(({ of }) => of === 'member')
        return (
          <div key={words} className="grid grid-cols-[minmax(0,1fr)_auto] gap-x-3 border-b border-rule-fine py-[5px]">
            {isElsewhere ? (
              <span>{words}</span>
            ) : (
              <button
                type="button"
                className="textlink border-0 bg-transparent p-0 text-left"
                onClick={() => void draft(way)}
              >
                {words}
              </button>
            )}
            <span className="text-second">{reachWords(way)}</span>
          </div>
        )
      })}
    </>
  )
}

function reachWords({ addresses, edits }: Turning): string {
  if (edits.some(({ of }) => of === 'member')) return 'wherever the group counts'
  if (addresses === null) return 'for every host'
  return countWords(Number(addresses), 'host', 'hosts')
}

interface NearbyProps {
  readonly rights: ShareRights
  readonly state: Parameters<typeof fileGates>[1]
  readonly request: FileRequest
  readonly hosts: SharePage['hosts']
}

const shownNearby = 4

/** The answer where one thing is otherwise. */
function Nearby({ rights, state, request, hosts }: NearbyProps) {
  const other = request.operation === 'read' ? 'write' : 'read'
  const cases = [
    { words: `${other}, from the same host`, asked: { ...request, operation: other } as FileRequest },
    { words: `${request.operation}, as root`, asked: { ...request, uid: 0, gid: 0, groups: [] } },
    ...hosts
      .filter(({ addresses }) => addresses[0] !== request.clientAddress)
      .slice(0, shownNearby)
      .map(({ name, addresses }) => ({
        words: `${request.operation}, from ${name}`,
        asked: { ...request, clientAddress: addresses[0] ?? '' },
      })),
  ]
  return (
    <>
      <h3>
        Answers nearby <span>one thing otherwise</span>
      </h3>
      <table className="plain">
        <tbody>
          {cases.map(({ words, asked }) => {
            const { allowed, gates } = fileGates(rights, state, asked)
            const stop = gates.find(each => each.state === 'stops')
            return (
              <tr key={words}>
                <td>{words}</td>
                <td className={`whitespace-nowrap ${allowed ? 'text-fine' : 'text-now'}`}>
                  <Mark gravity={allowed ? 'fine' : 'now'} /> {allowed ? 'yes' : 'no'}
                </td>
                <td className="text-second">{stop === undefined ? 'every gate passes' : stop.why}</td>
              </tr>
            )
          })}
        </tbody>
      </table>
    </>
  )
}
