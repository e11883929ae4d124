'use client'
import { useEffect } from 'react'
import type { Drive, Node, System } from '@/core/estate'
import type { FormClusterIntent } from '@/core/intents'
import type { ChangeRecord } from '@/core/views'
import { DraftFrame } from '../../drafts/DraftFrame'
import { useDraft } from '../../drafts/useDraft'
import { Choice } from '../../parts/Choice'
import { NameField } from '../../parts/NameField'
import { NumberField } from '../../parts/NumberField'
import { useClusterChoice } from './ClusterChoice'
import { DrivePicker } from './DrivePicker'
import { newClusterIntent } from './newClusterIntent'
import { Tick } from '../../parts/Checkbox'

/** Drafting a cluster: drives in the bays, roles, failure domain, layout and reserves, with all that follows from them. */
export function FormCluster({
  system,
  nodes,
  drives,
  kept,
}: {
  readonly system: System
  readonly nodes: readonly Node[]
  readonly drives: readonly Drive[]
  readonly kept: ChangeRecord | undefined
}) {
  const { chosen, choose, show } = useClusterChoice()
  const draft = useDraft<FormClusterIntent>('form-cluster', newClusterIntent(system.id), kept)
  const { intent, set, plan } = draft
  useEffect(() => {
    if (JSON.stringify(chosen) !== JSON.stringify(intent.driveIds)) set({ driveIds: chosen })
  }, [chosen, intent.driveIds, set])
  const sketch = plan?.sketch?.of === 'cluster' ? plan.sketch : undefined
  useEffect(() => show(sketch), [sketch, show])
  const suggestion = plan?.suggestions?.['name'] ?? ''
  const { scheme } = intent
  return (
    <DraftFrame title={`New cluster of ${system.name}`} draft={draft} isSketchBeside>
      <NameField
        hint="Letters, digits, . _ - ; its pool is called the same with -01."
        value={intent.name}
        suggestion={suggestion}
        error={draft.errorOf('name')}
        onChange={name => set({ name })}
      />
      <DrivePicker
        nodes={nodes}
        drives={drives.filter(drive => !drive.isBoot && drive.role === 'unassigned' && drive.state !== 'failed')}
        chosen={chosen}
        choose={choose}
        roles={intent.roles}
        setRoles={roles => set({ roles })}
        suggested={sketch?.roles ?? {}}
      />
      <Choice
        label="Failure domain"
        value={intent.domain}
        options={[
          { value: 'node', words: 'node' },
          { value: 'enclosure', words: 'enclosure' },
          { value: 'rack', words: 'rack' },
        ]}
        onChange={domain => set({ domain })}
      />
      <Choice
        label="Protection"
        value={scheme.kind}
        options={[
          { value: 'erasure', words: 'erasure code' },
          { value: 'copies', words: 'copies' },
        ]}
        onChange={kind =>
          set({ scheme: kind === 'copies' ? { kind, copies: 2 } : { kind, dataPieces: 2, parityPieces: 1 } })
        }
      />
      <div className="grid grid-cols-3 gap-[10px]">
        {scheme.kind === 'copies' ? (
          <NumberField
            label="Copies"
            hint="2 to 4"
            value={scheme.copies}
            least={2}
            most={4}
            error={draft.errorOf('scheme')}
            onChange={value => set({ scheme: { kind: 'copies', copies: value } })}
          />
        ) : (
          <>
            <NumberField
              label="Data pieces"
              hint="2 to 16"
              value={scheme.dataPieces}
              least={2}
              most={16}
              error={draft.errorOf('scheme')}
              onChange={value => set({ scheme: { ...scheme, dataPieces: value } })}
            />
            <NumberField
              label="Losses to survive"
              hint="parity pieces"
              value={scheme.parityPieces}
              least={1}
              most={4}
              onChange={value => set({ scheme: { ...scheme, parityPieces: value } })}
            />
          </>
        )}
        <NumberField
          label="Snapshot reserve"
          hint="% of usable"
          value={intent.snapshotSharePercent}
          least={0}
          most={50}
          onChange={value => set({ snapshotSharePercent: value })}
        />
      </div>
      <Tick
        className="mb-2"
        isOn={intent.keepsRebuildReserve}
        onChange={keepsRebuildReserve => set({ keepsRebuildReserve })}
      >
        Keep space free to heal after losing one domain
      </Tick>
    </DraftFrame>
  )
}
