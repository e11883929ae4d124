'use client'
import { Link } from '../parts/Link'
import { useRouter } from 'next/navigation'
import { useState } from 'react'
import { draftAddress, forwardNamesIntent } from '@/core/intents'
import type { CodedRefusal } from '@/core/errors'
import type { ShownChange, ConnectionPage, ConnectionTest } from '@/core/views'
import { ask } from '../api'
import { Margin } from '../frame'
import { PersonChoice, useSomebody } from '../people'
import { Choice } from '../parts/Choice'
import { Refusal } from '../parts/Refusal'
import { SelectField } from '../parts/Select'
import { TextField } from '../parts/TextField'
import { toast } from '../parts/toast'
import type { Ends } from './useEnds'

interface MarginProps {
  readonly page: ConnectionPage
  readonly host: ConnectionPage['hosts'][number] | undefined
  readonly share: ConnectionPage['shares'][number] | undefined
  readonly test: ConnectionTest | undefined
  readonly go: (part: Partial<Ends>) => void
  readonly onTested: () => void
}

const idOf = (text: string) => (/^\d{1,10}$/.test(text.trim()) ? Number(text) : undefined)

/** From where, to what and as whom; and what would lead there, where the way is barred. */
export function ConnectionMargin({ page, host, share, test, go, onTested }: MarginProps) {
  const asked = useAsked(host, share)
  const [isBusy, setBusy] = useState(false)
  const ends = `${host?.id}/${share?.id}`
  const [refused, setRefused] = useState<{ readonly ends: string; readonly refusal: CodedRefusal }>()
  const refusal = refused?.ends === ends ? refused.refusal : undefined
  const run = async () => {
    setBusy(true)
    const answer = await ask<ConnectionTest>('POST', '/connection-tests', asked.request)
    setBusy(false)
    setRefused(answer.ok ? undefined : { ends, refusal: answer.refusal })
    if (answer.ok) onTested()
  }
  return (
    <Margin
      foot={
        <button type="button" className="button" disabled={!asked.isWhole || isBusy} onClick={() => void run()}>
          {isBusy ? 'It goes the way …' : 'Test it now'}
        </button>
      }
    >
      <h2>From where, to what</h2>
      <Ends {...{ page, host, share, go }} />
      <AsWhom asked={asked} />
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

/** Over which protocol and as whom, as it is filled in; what is asked for by it. */
function useAsked(host: MarginProps['host'], share: MarginProps['share']) {
  const speaks = (family: string) => share?.protocols.some(each => each.startsWith(family)) === true
  const [chosen, setOver] = useState<'NFS' | 'SMB'>()
  const over = chosen ?? (speaks('SMB') && !speaks('NFS') ? 'SMB' : 'NFS')
  const [personId, choose] = useState('')
  const [uid, setUid] = useState('1000')
  const [gid, setGid] = useState('1000')
  const isNumbered = personId === '' && over === 'NFS'
  const isSomebody = isNumbered ? idOf(uid) !== undefined && idOf(gid) !== undefined : personId !== ''
  return {
    ...{ over, setOver, personId, choose, uid, setUid, gid, setGid, isNumbered },
    isWhole: host !== undefined && share !== undefined && isSomebody,
    request: {
      ...{ hostId: host?.id, shareId: share?.id, protocol: over, personId },
      ...{ uid: idOf(uid) ?? 0, gid: idOf(gid) ?? 0 },
    },
  }
}

function Ends({ page, host, share, go }: Pick<MarginProps, 'page' | 'host' | 'share' | 'go'>) {
  const { hosts, shares, services } = page
  return (
    <>
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
    </>
  )
}

function AsWhom({ asked }: { readonly asked: ReturnType<typeof useAsked> }) {
  const somebody = useSomebody(asked.personId)
  const number = (label: string, value: string, onChange: (value: string) => void) => (
    <TextField
      {...{ label, value, onChange }}
      isMono
      error={idOf(value) === undefined ? 'A whole number.' : undefined}
    />
  )
  return (
    <>
      <Choice
        label="Over"
        value={asked.over}
        options={[
          { value: 'NFS', words: 'NFS' },
          { value: 'SMB', words: 'SMB' },
        ]}
        onChange={asked.setOver}
      />
      <PersonChoice
        label="As"
        hint={
          asked.over === 'SMB' ? 'A part of a name, as the directory has it.' : 'A part of a name, or numbers below.'
        }
        chosen={asked.personId === '' ? '' : (somebody?.person.name ?? '…')}
        onChoose={found => asked.choose(found?.id ?? '')}
      />
      {asked.isNumbered && (
        <div className="grid grid-cols-2 gap-x-3">
          {number('uid', asked.uid, asked.setUid)}
          {number('gid', asked.gid, asked.setGid)}
        </div>
      )}
    </>
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
    const answer = await ask<ShownChange>('POST', '/changes', { kind: forwardNamesIntent.kind, intent })
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
