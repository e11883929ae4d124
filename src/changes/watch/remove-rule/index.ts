import { removeRuleIntent, type RuleIntent } from '@/core/intents'
import { removingOwn } from '../../parts/removingOwn'

export const removeRule = removingOwn<'rules', RuleIntent>(removeRuleIntent, {
  of: 'rules',
  idOf: ({ ruleId }) => ruleId,
  title: name => `Remove the rule ${name}`,
  effects: ({ rules }, found) => [
    {
      figure: 'rules',
      label: 'Rules',
      unit: 'count',
      before: rules.length,
      after: rules.length - (found === undefined ? 0 : 1),
    },
  ],
})
