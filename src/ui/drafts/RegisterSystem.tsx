'use client'
import { useState } from 'react'
import type { Site } from '@/core/estate'
import type { RegisterSystemIntent } from '@/core/intents'
import type { ChangeRecord } from '@/core/views'
import { formatBytes } from '@/core/units'
import { ask } from '../api'
import { TextField } from '../parts/TextField'
import { DraftFrame } from './DraftFrame'
import { SystemLook } from './SystemLook'
import { useDraft } from './useDraft'
import { SelectField } from '../parts/Select'

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

/** Registering a system: see who answers at its address, accept that, look at what it has, then decide. */
export function RegisterSystem({
  sites,
  kept,
}: {
  readonly sites: readonly Site[]
  readonly kept?: ChangeRecord | undefined
}) {
  const draft = useDraft<RegisterSystemIntent>('register-system', blank, kept)
  const [found, setFound] = useState<Found>()
  const { intent, set } = draft
  return (
    <DraftFrame title="Register a system" draft={draft} verb="Register">
      <SystemLook
        isFound={found !== undefined}
        forget={() => setFound(undefined)}
        look={async (identity, accepted, access) => {
          const answer = await ask<Found>('POST', '/probes', { address: identity.address, ...access, ...accepted })
          if (!answer.ok) return answer.refusal
          setFound(answer.value)
          set({ probeId: answer.value.id, ...accepted })
          return undefined
        }}
      />
      {found !== undefined && <WhatWasFound found={found} />}
      {(found !== undefined || kept !== undefined) && (
        <div className="mt-3 grid grid-cols-2 gap-[10px]">
          <TextField
            label="Name in the estate"
            hint={
              draft.plan?.suggestions?.['name'] === undefined
                ? 'Letters, digits, . _ -'
                : `Such as ${draft.plan.suggestions['name']}`
            }
            error={draft.errorOf('name')}
            value={intent.name}
            maxLength={255}
            onChange={value => set({ name: value })}
          />
          <SelectField
            label="Site"
            hint="Where it stands."
            value={intent.siteId}
            options={[{ value: '', words: 'not said' }, ...sites.map(({ id, name }) => ({ value: id, words: name }))]}
            onChange={siteId => set({ siteId })}
          />
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
