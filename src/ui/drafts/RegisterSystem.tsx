'use client'
import { useState } from 'react'
import type { CodedRefusal } from '@/core/errors'
import type { Site } from '@/core/estate'
import type { ChangeRecord } from '@/core/views'
import { formatBytes } from '@/core/units'
import { ask } from '../api'
import { Field } from '../parts/Field'
import { Refusal } from '../parts/Refusal'
import { State } from '../parts/State'
import { DraftFrame } from './DraftFrame'
import { useDraft } from './useDraft'

interface Found {
  readonly id: string
  readonly address: string
  readonly isEncrypted: boolean
  readonly certificateFingerprint: string | null
  readonly certificateTrouble: string | null
  readonly maker: string
  readonly model: string
  readonly serial: string
  readonly firmware: string | null
  readonly redfishVersion: string
  readonly controllers: number
  readonly enclosures: number
  readonly drives: readonly { readonly words: string; readonly count: number; readonly bytes: string }[]
  readonly pools: number
  readonly volumes: number
}

const blank = { probeId: '', name: '', siteId: '', isPlainHttpAccepted: false, acceptedFingerprint: '' }

/** Registering a system: look at its address first, then decide on what was found. */
export function RegisterSystem({
  sites,
  kept,
}: {
  readonly sites: readonly Site[]
  readonly kept?: ChangeRecord | undefined
}) {
  const draft = useDraft('register-system', blank, kept)
  const [address, setAddress] = useState('')
  const [userName, setUserName] = useState('')
  const [password, setPassword] = useState('')
  const [found, setFound] = useState<Found>()
  const [refusal, setRefusal] = useState<CodedRefusal>()
  const [isLooking, setLooking] = useState(false)
  const { intent, set } = draft

  const look = async () => {
    setLooking(true)
    setRefusal(undefined)
    const answer = await ask<Found>('POST', '/probes', { address, userName, password })
    setLooking(false)
    if (!answer.ok) return setRefusal(answer.refusal)
    setFound(answer.value)
    set({ probeId: answer.value.id, isPlainHttpAccepted: false, acceptedFingerprint: '' })
  }
  return (
    <DraftFrame title="Register a system" draft={draft} verb="Register">
      <form
        onSubmit={event => {
          event.preventDefault()
          void look()
        }}
      >
        <Field
          label="Management address"
          hint="Of its Redfish service, such as https://array.example. A bare name means HTTPS."
        >
          {props => (
            <input
              {...props}
              className="field"
              value={address}
              onChange={event => setAddress(event.target.value)}
              autoComplete="off"
              spellCheck={false}
              maxLength={500}
              required
            />
          )}
        </Field>
        <div className="grid grid-cols-2 gap-[10px]">
          <Field label="Name on the system">
            {props => (
              <input
                {...props}
                className="field"
                value={userName}
                onChange={event => setUserName(event.target.value)}
                autoComplete="off"
                maxLength={255}
                required
              />
            )}
          </Field>
          <Field label="Password">
            {props => (
              <input
                {...props}
                type="password"
                className="field"
                value={password}
                onChange={event => setPassword(event.target.value)}
                autoComplete="off"
                maxLength={500}
                required
              />
            )}
          </Field>
        </div>
        <button type="submit" className="button quiet" disabled={isLooking || address.trim() === ''}>
          {isLooking ? 'Looking' : 'Look at it'}
        </button>
      </form>
      {refusal !== undefined && <Refusal refusal={refusal} />}
      {found !== undefined && <WhatWasFound found={found} />}
      {found !== undefined && !found.isEncrypted && (
        <label className="advice flex items-start gap-2">
          <input
            type="checkbox"
            className="mt-[3px]"
            checked={intent.isPlainHttpAccepted}
            onChange={event => set({ isPlainHttpAccepted: event.target.checked })}
          />
          <span>Accept plain HTTP for this system. Its name, password and data can be read on the way.</span>
        </label>
      )}
      {found?.certificateTrouble != null && (
        <label className="advice flex items-start gap-2">
          <input
            type="checkbox"
            className="mt-[3px]"
            checked={intent.acceptedFingerprint !== ''}
            onChange={event =>
              set({ acceptedFingerprint: event.target.checked ? (found.certificateFingerprint ?? '') : '' })
            }
          />
          <span>
            Accept this certificate, which no known authority signed:{' '}
            <span className="mono break-all">{found.certificateFingerprint}</span>
          </span>
        </label>
      )}
      {(found !== undefined || kept !== undefined) && (
        <div className="mt-3 grid grid-cols-2 gap-[10px]">
          <Field
            label="Name in the estate"
            hint={
              draft.plan?.suggestions?.['name'] === undefined
                ? 'Letters, digits, . _ -'
                : `Such as ${draft.plan.suggestions['name']}`
            }
            error={draft.errorOf('name')}
          >
            {props => (
              <input
                {...props}
                className="field"
                value={intent.name}
                onChange={event => set({ name: event.target.value })}
                maxLength={255}
                spellCheck={false}
              />
            )}
          </Field>
          <Field label="Site" hint="Where it stands.">
            {props => (
              <select
                {...props}
                className="field"
                value={intent.siteId}
                onChange={event => set({ siteId: event.target.value })}
              >
                <option value="">not said</option>
                {sites.map(site => (
                  <option key={site.id} value={site.id}>
                    {site.name}
                  </option>
                ))}
              </select>
            )}
          </Field>
        </div>
      )}
    </DraftFrame>
  )
}

function WhatWasFound({ found }: { readonly found: Found }) {
  return (
    <>
      <h3>
        What was found <span>Redfish {found.redfishVersion}</span>
      </h3>
      <table className="plain">
        <tbody>
          <tr>
            <td className="text-second">System</td>
            <td>
              {found.maker} {found.model}, serial <span className="mono">{found.serial}</span>, firmware{' '}
              {found.firmware ?? 'not stated'}
            </td>
          </tr>
          <tr>
            <td className="text-second">Connection</td>
            <td>
              {found.isEncrypted ? (
                found.certificateTrouble === null ? (
                  <State gravity="fine">TLS, certificate trusted</State>
                ) : (
                  <State gravity="soon">TLS, certificate not trusted</State>
                )
              ) : (
                <State gravity="soon">plain HTTP</State>
              )}
            </td>
          </tr>
          <tr>
            <td className="text-second">Has</td>
            <td>
              {found.controllers} controllers, {found.enclosures} enclosure{found.enclosures === 1 ? '' : 's'},{' '}
              {found.pools} pools, {found.volumes} volumes
            </td>
          </tr>
          {found.drives.map(kind => (
            <tr key={kind.words}>
              <td className="text-second">Drives</td>
              <td>
                {kind.count} × {kind.words}, {formatBytes(BigInt(kind.bytes))} raw
              </td>
            </tr>
          ))}
        </tbody>
      </table>
    </>
  )
}
