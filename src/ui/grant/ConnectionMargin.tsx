'use client'
import Link from 'next/link'
import { useRouter } from 'next/navigation'
import { useState } from 'react'
import { draftAddress, forwardNamesIntent } from '@/core/intents'
import type { CodedRefusal } from '@/core/errors'
import type { ChangeRecord, ConnectionPage, ConnectionTest } from '@/core/views'
import { ask } from '../api'
import { Margin } from '../frame'
import { PersonChoice, useSomebody } from '../people'
import { Choice } from '../parts/Choice'
import { Refusal } from '../parts/Refusal'
import { SelectField } from '../parts/Select'
import { TextField } from '../parts/TextField'
import { toast } from '../parts/toast'

interface MarginProps {
  readonly page: ConnectionPage
  readonly host: ConnectionPage['hosts'][number] | undefined
  readonly share: ConnectionPage['shares'][number] | undefined
  readonly test: ConnectionTest | undefined
  readonly go: (part: { readonly host?: string; readonly share?: string }) => void
  readonly onTested: () => void
}

const idOf = (text: string) => (/^\d{1,10}$/.test(text.trim()) ? Number(text) : undefined)

/** From where, to what and as whom; and what would lead there, where the way is barred. */
export function ConnectionMargin({ page: { hosts, shares, services }, host, share, test, go, onTested }: MarginProps) {
  const speaks = (family: string) => share?.protocols.some(each => each.startsWith(family)) === true
  const [over, setOver] = useState<'NFS' | 'SMB'>(speaks('SMB') && !speaks('NFS') ? 'SMB' : 'NFS')
  const [personId, choose] = useState('')
  const [uid, setUid] = useState('1000')
  const [gid, setGid] = useState('1000')
  const [isBusy, setBusy] = useState(false)
  const [refusal, setRefusal] = useState<CodedRefusal>()
  const somebody = useSomebody(personId)
  const [uidNumber, gidNumber] = [idOf(uid), idOf(gid)]
  const isNumbered = personId === '' && over === 'NFS'
  const isAsked =
    host !== undefined &&
    share !== undefined &&
    (isNumbered ? uidNumber !== undefined && gidNumber !== undefined : personId !== '')
  const run = async () => {
    setBusy(true)
    const numbers = { uid: uidNumber ?? 0, gid: gidNumber ?? 0 }
    const asked = { hostId: host?.id, shareId: share?.id, protocol: over, personId, ...numbers }
    const answer = await ask<ConnectionTest>('POST', '/connection-tests', asked)
    setBusy(false)
    setRefusal(answer.ok ? undefined : answer.refusal)
    if (answer.ok) onTested()
  }
  return (
    <Margin
      foot={
        <button type="button" className="button" disabled={!isAsked || isBusy} onClick={() => void run()}>
          {isBusy ? 'It goes the way …' : 'Test it now'}
        </button>
      }
    >
      <h2>From where, to what</h2>
      <SelectField
        label="Host"
        placeholder="choose"
        value={host?.id ?? ''}
        options={hosts.map(({ id, name, addresses }) => ({
          value: id,
          words: addresses.length === 0 ? name : `${name}, ${addresses.join(', ')}`,
        }))}
        onChange={id => go({ host: id })}
      />
      <SelectField
        label="Share"
        placeholder="choose"
        value={share?.id ?? ''}
        options={shares.map(({ id, name, fileServiceId }) => ({
          value: id,
          words: `${name} of ${services.find(each => each.id === fileServiceId)?.name ?? 'a file service'}`,
        }))}
        onChange={id => go({ share: id })}
      />
      <Choice
        label="Over"
        value={over}
        options={[
          { value: 'NFS', words: 'NFS' },
          { value: 'SMB', words: 'SMB' },
        ]}
        onChange={setOver}
      />
      <PersonChoice
        label="As"
        hint={over === 'SMB' ? 'A part of a name, as the directory has it.' : 'A part of a name, or numbers below.'}
        chosen={personId === '' ? '' : (somebody?.person.name ?? '…')}
        onChoose={found => choose(found?.id ?? '')}
      />
      {isNumbered && (
        <div className="grid grid-cols-2 gap-x-3">
          <TextField
            label="uid"
            isMono
            value={uid}
            error={uidNumber === undefined ? 'A whole number.' : undefined}
            onChange={setUid}
          />
          <TextField
            label="gid"
            isMono
            value={gid}
            error={gidNumber === undefined ? 'A whole number.' : undefined}
            onChange={setGid}
          />
        </div>
      )}
      {refusal !== undefined && <Refusal refusal={refusal} />}
      {test !== undefined && isByRights(test) && (
        <>
          <h3>What would lead there</h3>
          <p className="mt-0">
            The way is open; rights decide.{' '}
            <Link className="textlink" href={`/provision/shares/${test.shareId}`}>
              Which of them, and what would turn it
            </Link>
          </p>
        </>
      )}
      {test?.wayOut != null && host !== undefined && <Out hostId={host.id} wayOut={test.wayOut} />}
    </Margin>
  )
}

/** Whether it is rights that stop somebody, and not the way. */
const isByRights = ({ hops }: ConnectionTest) =>
  hops.some(({ hop, state }) => state === 'stops' && ['share', 'read', 'write'].includes(hop))

interface OutProps {
  readonly hostId: string
  readonly wayOut: NonNullable<ConnectionTest['wayOut']>
}

/** What would lead there; what a change can set becomes a draft. */
function Out({ hostId, wayOut: { words, forward } }: OutProps) {
  const router = useRouter()
  const draft = async () => {
    const intent = { hostId, domain: forward?.domain ?? '', server: forward?.server ?? '' }
    const answer = await ask<ChangeRecord>('POST', '/changes', { kind: forwardNamesIntent.kind, intent })
    if (!answer.ok) return void toast.error(answer.refusal.why)
    router.push(draftAddress(forwardNamesIntent, intent, answer.value.id) ?? '')
  }
  return (
    <>
      <h3>What would lead there</h3>
      <p className="mt-0 mb-3 break-words">{words}</p>
      {forward !== null && (
        <button type="button" className="button quiet" onClick={() => void draft()}>
          Draft the forwarder
        </button>
      )}
    </>
  )
}
