'use client'
import { useState } from 'react'
import type { CodedRefusal } from '@/core/errors'
import type { Identity } from '@/core/views'
import { ask } from '../api'
import { Copied } from '../parts/Copied'
import { TextField } from '../parts/TextField'
import { Refusal } from '../parts/Refusal'
import { State } from '../parts/State'
import { Tick } from '../parts/Checkbox'

interface Accepted {
  readonly isPlainHttpAccepted: boolean
  readonly acceptedFingerprint: string
}

interface SystemLookProps {
  readonly isFound: boolean
  readonly forget: () => void
  /** Looks at what the system has, which takes its password. @returns why it was refused */
  readonly look: (
    identity: Identity,
    accepted: Accepted,
    access: { readonly userName: string; readonly password: string },
  ) => Promise<CodedRefusal | undefined>
}

const nothingAccepted: Accepted = { isPlainHttpAccepted: false, acceptedFingerprint: '' }

/** The way to a system in two looks: who answers, and, once that was accepted, what it has. */
export function SystemLook({ isFound, forget, look }: SystemLookProps) {
  const [address, setAddress] = useState('')
  const [identity, setIdentity] = useState<Identity>()
  const [accepted, setAccepted] = useState(nothingAccepted)
  const [access, setAccess] = useState({ userName: '', password: '' })
  const [refusal, setRefusal] = useState<CodedRefusal>()
  const [isBusy, setBusy] = useState(false)
  const isTrusted = identity !== undefined && isAccepted(identity, accepted)

  const identify = async () => {
    setBusy(true)
    setRefusal(undefined)
    setIdentity(undefined)
    setAccepted(nothingAccepted)
    forget()
    const answer = await ask<Identity>('POST', '/identities', { address })
    setBusy(false)
    if (answer.ok) setIdentity(answer.value)
    else setRefusal(answer.refusal)
  }
  const lookAt = async () => {
    if (identity === undefined) return
    setBusy(true)
    setRefusal(await look(identity, accepted, access))
    setBusy(false)
  }
  return (
    <>
      <form
        onSubmit={event => {
          event.preventDefault()
          void identify()
        }}
      >
        <TextField
          label="Management address"
          hint="Of its Redfish service, such as https://array.example. A bare name means HTTPS. Nothing is told to it yet."
          value={address}
          maxLength={500}
          required
          onChange={value => {
            setAddress(value)
            setIdentity(undefined)
            forget()
          }}
        />
        {identity === undefined && (
          <button type="submit" className="button quiet" disabled={isBusy || address.trim() === ''}>
            {isBusy ? 'Asking' : 'See who answers'}
          </button>
        )}
      </form>
      {identity !== undefined && <WhoAnswers identity={identity} accepted={accepted} accept={setAccepted} />}
      {identity !== undefined && (
        <form
          onSubmit={event => {
            event.preventDefault()
            void lookAt()
          }}
        >
          <div className="mt-2 grid grid-cols-2 gap-[10px]">
            {(['userName', 'password'] as const).map(key => (
              <TextField
                key={key}
                label={key === 'userName' ? 'Name on the system' : 'Password'}
                type={key === 'password' ? 'password' : 'text'}
                value={access[key]}
                maxLength={key === 'password' ? 500 : 255}
                disabled={!isTrusted}
                required
                onChange={value => setAccess(was => ({ ...was, [key]: value }))}
              />
            ))}
          </div>
          <button type="submit" className="button quiet" disabled={isBusy || !isTrusted}>
            {isBusy ? 'Looking' : isFound ? 'Look again' : 'Look at it'}
          </button>
        </form>
      )}
      {refusal !== undefined && <Refusal refusal={refusal} />}
    </>
  )
}

function isAccepted(identity: Identity, accepted: Accepted): boolean {
  if (!identity.isEncrypted) return accepted.isPlainHttpAccepted
  return identity.certificateTrouble === null || accepted.acceptedFingerprint === identity.certificateFingerprint
}

function WhoAnswers({
  identity,
  accepted,
  accept,
}: {
  readonly identity: Identity
  readonly accepted: Accepted
  readonly accept: (accepted: Accepted) => void
}) {
  const { isEncrypted, certificateTrouble, certificateFingerprint } = identity
  return (
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
              {!isEncrypted ? (
                <State gravity="soon">plain HTTP</State>
              ) : certificateTrouble === null ? (
                <State gravity="fine">TLS, certificate trusted</State>
              ) : (
                <State gravity="soon">TLS, certificate not trusted</State>
              )}
            </td>
          </tr>
        </tbody>
      </table>
      {!isEncrypted && (
        <Tick
          className="advice"
          isOn={accepted.isPlainHttpAccepted}
          onChange={isPlainHttpAccepted => accept({ ...accepted, isPlainHttpAccepted })}
        >
          Accept plain HTTP for this system. Whatever is said to it, and its data, can be read on the way.
        </Tick>
      )}
      {isEncrypted && certificateTrouble !== null && (
        <Tick
          className="advice"
          isOn={accepted.acceptedFingerprint !== ''}
          onChange={isOn => accept({ ...accepted, acceptedFingerprint: isOn ? (certificateFingerprint ?? '') : '' })}
        >
          Accept this certificate, which no known authority signed:{' '}
          <span className="mono break-all">{certificateFingerprint}</span>
        </Tick>
      )}
    </>
  )
}
