'use client'
import { useState } from 'react'
import type { CodedRefusal } from '@/core/errors'
import type { Identity } from '@/core/views'
import { ask } from '../api'
import { Copied } from '../parts/Copied'
import { TextField } from '../parts/TextField'
import { State } from '../parts/State'
import { Tick } from '../parts/Checkbox'
import { useEntries } from '../parts/useEntries'

interface Accepted {
  readonly isPlainHttpAccepted: boolean
  readonly acceptedFingerprint: string
}

interface Access {
  readonly userName: string
  readonly password: string
}

interface SystemLookProps {
  readonly isFound: boolean
  readonly forget: () => void
  /** Looks at what the system has, which takes its password. @returns why it was refused */
  readonly look: (identity: Identity, accepted: Accepted, access: Access) => Promise<CodedRefusal | undefined>
}

const nothingAccepted: Accepted = { isPlainHttpAccepted: false, acceptedFingerprint: '' }

/** The way to a system in two looks: who answers, and, once that was accepted, what it has. */
export function SystemLook({ isFound, forget, look }: SystemLookProps) {
  const [identity, setIdentity] = useState<Identity>()
  const [accepted, setAccepted] = useState(nothingAccepted)
  const again = () => {
    setIdentity(undefined)
    setAccepted(nothingAccepted)
    forget()
  }
  return (
    <>
      <AskIdentity isKnown={identity !== undefined} again={again} found={setIdentity} />
      {identity !== undefined && (
        <>
          <WhoAnswers identity={identity} accepted={accepted} accept={setAccepted} />
          <LookInside
            isTrusted={isAccepted(identity, accepted)}
            isFound={isFound}
            look={access => look(identity, accepted, access)}
          />
        </>
      )}
    </>
  )
}

interface AskIdentityProps {
  readonly isKnown: boolean
  /** Another address is another system: nothing of the first holds. */
  readonly again: () => void
  readonly found: (identity: Identity) => void
}

function AskIdentity({ isKnown, again, found }: AskIdentityProps) {
  const { given, entry, submit, told, isBusy } = useEntries({
    start: { address: '' },
    send: body => {
      again()
      return ask<Identity>('POST', '/identities', body)
    },
    sent: identity => found(identity),
  })
  const address = entry('address')
  return (
    <form onSubmit={submit}>
      <TextField
        label="Management address"
        hint="Of its Redfish service, such as https://array.example. A bare name means HTTPS. Nothing is told to it yet."
        maxLength={500}
        required
        value={address.value}
        onChange={value => {
          address.onChange(value)
          again()
        }}
      />
      {!isKnown && (
        <button type="submit" className="button quiet" disabled={isBusy || given.address.trim() === ''}>
          {isBusy ? 'Asking' : 'See who answers'}
        </button>
      )}
      {told}
    </form>
  )
}

interface LookInsideProps {
  readonly isTrusted: boolean
  readonly isFound: boolean
  readonly look: (access: Access) => Promise<CodedRefusal | undefined>
}

function LookInside({ isTrusted, isFound, look }: LookInsideProps) {
  const { entry, submit, told, isBusy } = useEntries({
    start: { userName: '', password: '' },
    send: async access => {
      const refusal = await look(access)
      return refusal === undefined ? { ok: true, value: undefined } : { ok: false, refusal }
    },
  })
  return (
    <form onSubmit={submit}>
      <div className="mt-2 grid grid-cols-2 gap-[10px]">
        <TextField label="Name on the system" maxLength={255} disabled={!isTrusted} required {...entry('userName')} />
        <TextField
          label="Password"
          type="password"
          maxLength={500}
          disabled={!isTrusted}
          required
          {...entry('password')}
        />
      </div>
      <button type="submit" className="button quiet" disabled={isBusy || !isTrusted}>
        {isBusy ? 'Looking' : isFound ? 'Look again' : 'Look at it'}
      </button>
      {told}
    </form>
  )
}

function isAccepted(identity: Identity, accepted: Accepted): boolean {
  if (!identity.isEncrypted) return accepted.isPlainHttpAccepted
  return identity.certificateTrouble === null || accepted.acceptedFingerprint === identity.certificateFingerprint
}

interface WhoAnswersProps {
  readonly identity: Identity
  readonly accepted: Accepted
  readonly accept: (accepted: Accepted) => void
}

const WhoAnswers = ({ identity, accepted, accept }: WhoAnswersProps) => (
  <>
    <h3>Who answers</h3>
    <table className="plain">
      <tbody>
        <tr>
          <td className="text-second">System</td>
          <td>{[identity.maker, identity.model].filter(Boolean).join(' ') || 'does not say'}</td>
        </tr>
        <tr>
          <td className="text-second">UUID</td>
          <td>{identity.uuid === null ? 'none' : <Copied text={identity.uuid} />}</td>
        </tr>
        <tr>
          <td className="text-second">Connection</td>
          <td>
            <ConnectionState identity={identity} />
          </td>
        </tr>
      </tbody>
    </table>
    <Acceptance identity={identity} accepted={accepted} accept={accept} />
  </>
)

function ConnectionState({ identity: { isEncrypted, certificateTrouble } }: Pick<WhoAnswersProps, 'identity'>) {
  if (!isEncrypted) return <State gravity="soon">plain HTTP</State>
  return certificateTrouble === null ? (
    <State gravity="fine">TLS, certificate trusted</State>
  ) : (
    <State gravity="soon">TLS, certificate not trusted</State>
  )
}

/** What has to be accepted before anything is told to the system. */
function Acceptance({ identity, accepted, accept }: WhoAnswersProps) {
  const { isEncrypted, certificateTrouble, certificateFingerprint } = identity
  if (!isEncrypted)
    return (
      <Tick
        className="advice"
        isOn={accepted.isPlainHttpAccepted}
        onChange={isPlainHttpAccepted => accept({ ...accepted, isPlainHttpAccepted })}
      >
        Accept plain HTTP for this system. Whatever is said to it, and its data, can be read on the way.
      </Tick>
    )
  if (certificateTrouble === null) return null
  return (
    <Tick
      className="advice"
      isOn={accepted.acceptedFingerprint !== ''}
      onChange={isOn => accept({ ...accepted, acceptedFingerprint: isOn ? (certificateFingerprint ?? '') : '' })}
    >
      Accept this certificate, which no known authority signed:{' '}
      <span className="mono break-all">{certificateFingerprint}</span>
    </Tick>
  )
}
