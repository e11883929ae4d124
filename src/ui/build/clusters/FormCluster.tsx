'use client'
import { useMemo } from 'react'
import type { Drive, Node, System } from '@/core/estate'
import type { FormClusterIntent } from '@/core/intents'
import { unpacked, type ShownChange, type Packed } from '@/core/views'
import { IntentForm } from '../../drafts/IntentForm'
import type { Draft } from '../../drafts/useDraft'
import { useShownSketch } from '../../drafts/useShared'
import { Choice } from '../../parts/Choice'
import { NumberField } from '../../parts/NumberField'
import { useClusterChoice } from './ClusterChoice'
import { ClusterDrives } from './ClusterDrives'
import { newClusterIntent } from './newClusterIntent'
import { useSuggestedRoles } from './useSuggestedRoles'

interface FormClusterProps {
  readonly system: System
  readonly nodes: readonly Node[]
  readonly drives: Packed<Drive>
  readonly kept: ShownChange | undefined
}

/** Drafting a cluster: drives in the bays, roles, failure domain, layout and reserves, with all that follows from them. */
export const FormCluster = ({ system, nodes, drives, kept }: FormClusterProps) => (
  <IntentForm<FormClusterIntent>
    kind="form-cluster"
    title={`New cluster of ${system.name}`}
    begin={newClusterIntent(system.id)}
    isSketchBeside
    parts={{
      driveIds: draft => <NewClusterDrives draft={draft} nodes={nodes} drives={drives} />,
      scheme: draft => <Protection draft={draft} />,
    }}
    kept={kept}
  />
)

function NewClusterDrives({
  draft,
  nodes,
  drives,
}: Pick<FormClusterProps, 'nodes' | 'drives'> & { readonly draft: Draft<FormClusterIntent> }) {
  const all = useMemo(() => unpacked(drives), [drives])
  const { show } = useClusterChoice()
  const sketch = draft.plan?.sketch
  useShownSketch(sketch, 'cluster', show)
  const suggested = useSuggestedRoles(all)
  return <ClusterDrives draft={draft} nodes={nodes} drives={all} suggested={suggested} />
}

/** Copies or an erasure code, and how many of each. */
function Protection({ draft }: { readonly draft: Draft<FormClusterIntent> }) {
  const { value: scheme, error, onChange } = draft.field('scheme')
  return (
    <>
      <Choice
        label="Protection"
        value={scheme.kind}
        options={[
          { value: 'erasure', words: 'erasure code' },
          { value: 'copies', words: 'copies' },
        ]}
        onChange={kind => onChange(kind === 'copies' ? { kind, copies: 2 } : { kind, dataPieces: 2, parityPieces: 1 })}
      />
      <div className="grid grid-cols-2 gap-[10px]">
        {scheme.kind === 'copies' ? (
          <NumberField
            label="Copies"
            hint="2 to 4"
            value={scheme.copies}
            least={2}
            most={4}
            error={error}
            onChange={copies => onChange({ kind: 'copies', copies })}
          />
        ) : (
          <Pieces scheme={scheme} error={error} onChange={onChange} />
        )}
      </div>
    </>
  )
}

type Scheme = FormClusterIntent['scheme']

interface PiecesProps {
  readonly scheme: Extract<Scheme, { kind: 'erasure' }>
  readonly error: string | undefined
  readonly onChange: (scheme: Scheme) => void
}

const Pieces = ({ scheme, error, onChange }: PiecesProps) => (
  <>
    <NumberField
      label="Data pieces"
      hint="2 to 16"
      value={scheme.dataPieces}
      least={2}
      most={16}
      error={error}
      onChange={dataPieces => onChange({ ...scheme, dataPieces })}
    />
    <NumberField
      label="Losses to survive"
      hint="parity pieces"
      value={scheme.parityPieces}
      least={1}
      most={4}
      onChange={parityPieces => onChange({ ...scheme, parityPieces })}
    />
  </>
)
