import { byId, type Estate } from '@/core/estate'
import { removeRuleIntent, type RuleIntent as Intent } from '@/core/intents'
import type { Plan } from '@/core/plan'
import type { ChangeKind } from '../../ChangeKind'
import { there } from '../../parts/checks'
import { lookInto } from '../../parts/look'
import { outlined } from '../../parts/outline'

type Step = Readonly<{ step: 'remove'; ruleId: string }>

function plan(estate: Estate, intent: Intent): Plan<Step> {
  const look = lookInto(estate)
  const found = look.one('rules', intent.ruleId)
  return outlined<Step>(estate, {
    title: `Remove the rule ${found?.name ?? '…'}`,
    checks: [there('rule', found, each => `${each.name} is there.`, 'Choose the rule.')],
    effects: [
      {
        figure: 'rules',
        label: 'Rules',
        unit: 'count',
        before: estate.rules.length,
        after: estate.rules.length - (found === undefined ? 0 : 1),
      },
    ],
    undo: { possible: false, how: 'It can be defined again.' },
    steps:
      found === undefined
        ? []
        : [{ words: `Remove ${found.name}`, seconds: 0.1, step: { step: 'remove', ruleId: found.id } }],
    reads: look.reads,
    claims: found === undefined ? [] : [found.id],
    proof: 'The records are read again.',
  })
}

export const removeRule: ChangeKind<Intent, Step> = {
  ...removeRuleIntent,
  needs: () => [],
  plan,
  async runStep({ ruleId }, _context, ports) {
    await ports.records.dropRule(ruleId)
    return {}
  },
  undoStep: async () => 'The rule is removed.',
  async prove({ ruleId }, _plan, _facts, ports) {
    const found = byId((await ports.estate()).rules, ruleId)
    return [{ claim: 'The rule is gone', holds: found === undefined, measured: { kept: found?.name ?? 'nothing' } }]
  },
  collects: () => [],
  reverse: () => undefined,
}
