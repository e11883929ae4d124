'use client'
import { useState } from 'react'
import type { Site } from '@/core/estate'
import type { RegisterSystemIntent } from '@/core/intents'
import type { ShownChange } from '@/core/views'
import { formatBytes } from '@/core/units'
import { ask } from '../api'
import { IntentForm } from './IntentForm'
import { SystemLook } from './SystemLook'
import type { Draft } from './useDraft'

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

interface RegisterSystemProps {
  readonly sites: readonly Site[]
  readonly kept?: ShownChange | undefined
}

/** Registering a system: see who answers at its address, accept that, look at what it has, then decide. */
export const RegisterSystem = ({ sites, kept }: RegisterSystemProps) => (
  <IntentForm<RegisterSystemIntent>
    kind="register-system"
    title="Register a system"
    begin={{}}
    choices={{
      sites: [{ value: '', words: 'not said' }, ...sites.map(({ id, name }) => ({ value: id, words: name }))],
    }}
    parts={{ probeId: draft => <SystemFound draft={draft} /> }}
    kept={kept}
  />
)

function SystemFound({ draft }: { readonly draft: Draft<RegisterSystemIntent> }) {
  const [found, setFound] = useState<Found>()
  return (
    <>
      <SystemLook
        isFound={found !== undefined}
        forget={() => {
          setFound(undefined)
          if (draft.intent.probeId !== '') draft.set({ probeId: '' })
        }}
        look={async (identity, accepted, access) => {
          const answer = await ask<Found>('POST', '/probes', { address: identity.address, ...access, ...accepted })
          if (!answer.ok) return answer.refusal
          setFound(answer.value)
          draft.set({ probeId: answer.value.id, ...accepted })
          return undefined
        }}
      />
      {found !== undefined && <WhatWasFound found={found} />}
    </>
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
