'use client'
import type { HostGroup, Volume } from '@/core/estate'
import type { ChangeRecord } from '@/core/views'
import { formatBytes } from '@/core/units'
import { Field } from '../parts/Field'
import { DraftFrame } from './DraftFrame'
import { echo } from './ProvisionVolume'
import { useDraft } from './useDraft'

interface VolumeDraftProps {
  readonly volume: Volume
  readonly kept?: ChangeRecord | undefined
}

export function MapVolume({ volume, groups, kept }: VolumeDraftProps & { readonly groups: readonly HostGroup[] }) {
  const draft = useDraft('map-volume', { volumeId: volume.id, hostGroupId: '' }, kept)
  return (
    <DraftFrame title={`Map ${volume.name}`} draft={draft}>
      <GroupField
        groups={groups}
        value={draft.intent.hostGroupId}
        error={draft.errorOf('hostGroupId')}
        onChange={hostGroupId => draft.set({ hostGroupId })}
      />
    </DraftFrame>
  )
}

export function UnmapVolume({ volume, groups, kept }: VolumeDraftProps & { readonly groups: readonly HostGroup[] }) {
  const draft = useDraft(
    'unmap-volume',
    { volumeId: volume.id, hostGroupId: groups.length === 1 ? (groups[0]?.id ?? '') : '' },
    kept,
  )
  return (
    <DraftFrame title={`Unmap ${volume.name}`} draft={draft}>
      <GroupField
        groups={groups}
        value={draft.intent.hostGroupId}
        error={draft.errorOf('hostGroupId')}
        onChange={hostGroupId => draft.set({ hostGroupId })}
      />
    </DraftFrame>
  )
}

export function ExpandVolume({ volume, kept }: VolumeDraftProps) {
  const draft = useDraft('expand-volume', { volumeId: volume.id, size: '' }, kept)
  return (
    <DraftFrame title={`Expand ${volume.name}`} draft={draft}>
      <Field
        label="New size"
        hint={echo(draft.intent.size) ?? `With its unit; more than ${formatBytes(volume.sizeBytes)}.`}
        error={draft.errorOf('size')}
      >
        {props => (
          <input
            {...props}
            className="field mono"
            value={draft.intent.size}
            onChange={event => draft.set({ size: event.target.value })}
            maxLength={80}
            spellCheck={false}
          />
        )}
      </Field>
    </DraftFrame>
  )
}

export function RemoveVolume({ volume, kept }: VolumeDraftProps) {
  const draft = useDraft('remove-volume', { volumeId: volume.id, confirmedName: '' }, kept)
  return (
    <DraftFrame title={`Remove ${volume.name}`} draft={draft} verb="Remove">
      <Field label="Its name, to say that you mean this one" hint={volume.name} error={draft.errorOf('confirmedName')}>
        {props => (
          <input
            {...props}
            className="field"
            value={draft.intent.confirmedName}
            onChange={event => draft.set({ confirmedName: event.target.value })}
            maxLength={255}
            spellCheck={false}
            autoComplete="off"
          />
        )}
      </Field>
    </DraftFrame>
  )
}

export function BringBackVolume({
  volume,
  groups,
  kept,
}: VolumeDraftProps & { readonly groups: readonly HostGroup[] }) {
  const draft = useDraft('bring-back-volume', { volumeId: volume.id, groupNames: [] as readonly string[] }, kept)
  const { groupNames } = draft.intent
  return (
    <DraftFrame title={`Bring back ${volume.name}`} draft={draft} verb="Bring back">
      <fieldset className="mb-3 border-0 p-0">
        <legend className="label">Groups that shall see it again</legend>
        {groups.map(group => (
          <label key={group.id} className="flex items-center gap-2 py-[2px]">
            <input
              type="checkbox"
              checked={groupNames.includes(group.name)}
              onChange={event =>
                draft.set({
                  groupNames: event.target.checked
                    ? [...groupNames, group.name]
                    : groupNames.filter(name => name !== group.name),
                })
              }
            />
            {group.name}
          </label>
        ))}
      </fieldset>
    </DraftFrame>
  )
}

export function RemovePool({
  systemId,
  poolId,
  name,
  kept,
}: {
  readonly systemId: string
  readonly poolId: string
  readonly name: string
  readonly kept?: ChangeRecord | undefined
}) {
  const draft = useDraft('remove-pool', { systemId, poolId }, kept)
  return (
    <DraftFrame title={`Remove pool ${name}`} draft={draft} verb="Remove">
      <p className="mt-0 text-second">Only an empty pool can be removed. Its drives are then free for another.</p>
    </DraftFrame>
  )
}

export function RegisterHost({
  groups,
  kept,
}: {
  readonly groups: readonly HostGroup[]
  readonly kept?: ChangeRecord | undefined
}) {
  const draft = useDraft('register-host', { agentAddress: '', groupName: '' }, kept)
  return (
    <DraftFrame title="Register a host" draft={draft} verb="Register">
      <Field
        label="Address of its agent"
        hint="Such as http://10.0.0.5:4300; it says which initiators the host has."
        error={draft.errorOf('agentAddress')}
      >
        {props => (
          <input
            {...props}
            className="field"
            value={draft.intent.agentAddress}
            onChange={event => draft.set({ agentAddress: event.target.value })}
            maxLength={500}
            spellCheck={false}
          />
        )}
      </Field>
      <Field
        label="Host group"
        hint="Hosts of a group see the same volumes. A new name makes a new group."
        error={draft.errorOf('groupName')}
      >
        {props => (
          <>
            <input
              {...props}
              list="host-groups"
              className="field"
              value={draft.intent.groupName}
              onChange={event => draft.set({ groupName: event.target.value })}
              maxLength={255}
              spellCheck={false}
            />
            <datalist id="host-groups">
              {groups.map(group => (
                <option key={group.id} value={group.name} />
              ))}
            </datalist>
          </>
        )}
      </Field>
    </DraftFrame>
  )
}

function GroupField({
  groups,
  value,
  error,
  onChange,
}: {
  readonly groups: readonly HostGroup[]
  readonly value: string
  readonly error: string | undefined
  readonly onChange: (id: string) => void
}) {
  return (
    <Field label="Host group" error={error}>
      {props => (
        <select {...props} className="field" value={value} onChange={event => onChange(event.target.value)}>
          <option value="">choose</option>
          {groups.map(group => (
            <option key={group.id} value={group.id}>
              {group.name}
            </option>
          ))}
        </select>
      )}
    </Field>
  )
}
