import { byId, type Estate } from '@/core/estate'
import { keepPoolIntent, type KeepPoolIntent as Intent } from '@/core/intents'
import type { Plan } from '@/core/plan'
import type { ChangeKind } from '../../ChangeKind'
import { rule, there } from '../../parts/checks'
import { firstStep } from '../../parts/known'
import { lookInto } from '../../parts/look'
import { outlined } from '../../parts/outline'

type Step = Readonly<{ step: 'keep'; poolId: string; before: string | null; after: string | null }>

function plan(estate: Estate, intent: Intent): Plan<Step> {
  const look = lookInto(estate)
  const pool = look.one('pools', intent.poolId)
  const application = intent.application.trim()
  const after = application === '' ? null : application
  const words = after === null ? `Give ${pool?.name ?? 'a pool'} to all` : `Keep ${pool?.name ?? 'a pool'} for ${after}`
  return outlined<Step>(estate, {
    title: words,
    checks: [
      there('pool', pool, each => `${each.name} is there.`, 'Choose the pool.'),
      rule(
        'other',
        pool === undefined || pool.keptFor !== after,
        'It is not so yet.',
        after === null ? 'It is for all already.' : `It is kept for ${after} already.`,
        { field: 'application' },
      ),
    ],
    effects: [
      { figure: 'keptFor', label: 'Kept for', unit: 'words', before: pool?.keptFor ?? 'all', after: after ?? 'all' },
    ],
    undo: { possible: true, how: 'It can be given back as it was.' },
    steps:
      pool === undefined
        ? []
        : [{ words, seconds: 0.05, step: { step: 'keep', poolId: pool.id, before: pool.keptFor, after } }],
    reads: look.reads,
    claims: pool === undefined ? [] : [pool.id],
    proof: 'The records are read again.',
  })
}

export const keepPool: ChangeKind<Intent, Step> = {
  ...keepPoolIntent,
  needs: () => [],
  plan,
  async runStep({ poolId, before, after }, _context, ports) {
    await ports.records.keepPool(poolId, after)
    return { before: before ?? '' }
  },
  async undoStep({ poolId, before }, _context, ports) {
    await ports.records.keepPool(poolId, before)
    return undefined
  },
  async prove(_intent, made, _facts, ports) {
    const { after, poolId } = firstStep(made)
    const found = byId((await ports.estate()).pools, poolId)
    return [
      {
        claim: after === null ? 'The pool is for all' : `The pool is kept for ${after}`,
        holds: found !== undefined && found.keptFor === after,
        measured: { keptFor: found?.keptFor ?? 'all' },
      },
    ]
  },
  collects: () => [],
  reverse: ({ poolId }, facts) => ({ kind: 'keep-pool', intent: { poolId, application: facts['before'] ?? '' } }),
}
