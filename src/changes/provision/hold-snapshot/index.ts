import { byId, one, type Estate } from '@/core/estate'
import { holdSnapshotIntent, type HoldSnapshotIntent as Intent } from '@/core/intents'
import type { Plan } from '@/core/plan'
import type { ChangeKind } from '../../ChangeKind'
import { rule, there } from '../../parts/checks'
import { firstStep } from '../../parts/known'
import { lookInto } from '../../parts/look'
import { outlined } from '../../parts/outline'

type Step = Readonly<{ step: 'hold'; snapshotId: string; before: string | null; after: string | null }>
const leastReason = 5

function plan(estate: Estate, intent: Intent): Plan<Step> {
  const look = lookInto(estate)
  const snapshot = look.one('snapshots', intent.snapshotId)
  const reason = intent.reason.trim()
  const isReleased = reason === ''
  const before = snapshot?.heldReason ?? null
  return outlined<Step>(estate, {
    title: `${isReleased ? 'Release' : 'Hold'} ${snapshot?.name ?? 'a snapshot'}`,
    checks: [
      there('snapshot', snapshot, each => `${each.name} is there.`, 'Choose a snapshot.', { field: 'snapshotId' }),
      rule(
        'reason',
        isReleased ? before !== null : reason.length >= leastReason,
        isReleased ? 'It is held now, and will be released.' : 'A reason is given.',
        isReleased ? 'Say why it must stay.' : `Say why it must stay, in at least ${leastReason} characters.`,
        { field: 'reason' },
      ),
      rule('stays', snapshot?.goesAt == null, 'It is not on its way out.', 'It has been removed, and is in holding.', {
        remedy: 'Bring it back first.',
      }),
    ],
    effects: [{ figure: 'held', label: 'Held for', unit: 'words', before, after: isReleased ? null : reason }],
    undo: { possible: true, how: isReleased ? 'It can be held again.' : 'It can be released at any time.' },
    steps:
      snapshot === undefined
        ? []
        : [
            {
              words: isReleased ? 'Release it' : 'Hold it',
              seconds: 0.05,
              step: { step: 'hold', snapshotId: snapshot.id, before, after: isReleased ? null : reason },
            },
          ],
    reads: look.reads,
    claims: snapshot === undefined ? [] : [snapshot.id],
    proof: 'The record is read again.',
  })
}

export const holdSnapshot: ChangeKind<Intent, Step> = {
  ...holdSnapshotIntent,
  needs: ({ snapshotId }) => [one('snapshots', snapshotId)],
  plan,
  async runStep(step, _context, ports) {
    await ports.records.noteSnapshots([step.snapshotId], { heldReason: step.after })
    return { before: step.before ?? '' }
  },
  async undoStep(step, _context, ports) {
    await ports.records.noteSnapshots([step.snapshotId], { heldReason: step.before })
    return undefined
  },
  async prove(intent, plan, _facts, ports) {
    const { after } = firstStep(plan)
    const held = byId((await ports.estate()).snapshots, intent.snapshotId)?.heldReason
    return [
      {
        claim: after === null ? 'Nothing holds it' : 'It is held for that reason',
        holds: held === after,
        measured: { heldFor: held ?? 'nothing' },
      },
    ]
  },
  collects: () => [],
  reverse: ({ volumeId, snapshotId }, facts) => ({
    kind: 'hold-snapshot',
    intent: { volumeId, snapshotId, reason: facts['before'] ?? '' },
  }),
}
