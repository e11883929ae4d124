import { forgetMissingIntent, type ForgetMissingIntent as Intent } from '@/core/intents'
import { type Estate } from '@/core/estate'
import type { Plan } from '@/core/plan'
import type { ChangeKind } from '../../ChangeKind'
import { answers, must } from '../../parts/checks'
import { outlined } from '../../parts/outline'
import { lookInto } from '../../parts/look'

interface Step {
  readonly step: 'forget'
  readonly systemId: string
}

/** What somebody else has removed from a system stays on record as missing until an administrator says that it is gone for good. */
export const forgetMissing: ChangeKind<Intent, Step> = {
  ...forgetMissingIntent,
  needs: () => [],
  plan,
  async runStep({ systemId }, _, ports) {
    // Read once more: what stands there again is not forgotten.
    await ports.records.collect(systemId)
    return { forgotten: `${await ports.records.forgetMissing(systemId)}` }
  },
  undoStep: () => Promise.resolve('What was forgotten is taken in anew as soon as the system states it again.'),
  async prove({ systemId }, _, facts, ports) {
    const system = await ports.system(systemId)
    const stated = await system.inventory()
    const estate = await ports.estate()
    const poolsThere = new Set(stated.pools.map(pool => pool.locator))
    const left = estate.pools.filter(pool => pool.systemId === systemId && !poolsThere.has(pool.locator))
    return [
      {
        claim: 'The records hold nothing of it that it does not state',
        holds: left.length === 0 && (await ports.records.missingCount(systemId)) === 0,
        measured: { forgotten: facts['forgotten'] ?? '0', left: `${left.length}` },
      },
    ]
  },
  collects: ({ systemId }) => [systemId],
  reverse: () => undefined,
}

function plan(estate: Estate, intent: Intent): Plan<Step> {
  const look = lookInto(estate)
  const system = look.one('systems', intent.systemId)
  return outlined<Step>(estate, {
    title: `Forget what is missing of ${system?.name ?? 'a system'}`,
    checks: [
      ...(system === undefined
        ? [must('system', false, 'Choose a system.', { field: 'systemId' })]
        : [answers(system)]),
    ],
    oneWay: [
      'Holdings and mappings of what is forgotten are forgotten with it; what changes have done stays on record.',
    ],
    undo: { possible: false, how: 'What the system states again is taken in as something new.' },
    steps: [{ step: { step: 'forget', systemId: intent.systemId }, words: 'Take it out of the records', seconds: 0.5 }],
    reads: look.reads,
    claims: system === undefined ? [] : [`missing:${system.id}`],
    proof: 'The system is read again and held against the records: they hold nothing that it does not state.',
  })
}
