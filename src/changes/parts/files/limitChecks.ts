import { countsAlike, limitTroubles, readQuotas } from '@/core/filetree'
import type { Share } from '@/core/estate'
import type { SetShareLimitsIntent } from '@/core/intents'
import type { PlanCheck } from '@/core/plan'
import { countAtStart, formatBytes } from '@/core/units'
import type { ShareLimitsWanted } from '@/ports'
import { advise, rule } from '../checks'

const shownTroubles = 5

type Limited = Pick<Share, 'sizeBytes' | 'quotas' | 'quotaUsage'>

/** What is asked for as limits. */
interface LimitsAsked {
  readonly quotas?: SetShareLimitsIntent['quotas']
  readonly fileRules?: SetShareLimitsIntent['fileRules']
}

/** Limits as a system states them once they are set. */
export const limitsAsked = ({ quotas = [], fileRules = [] }: LimitsAsked): ShareLimitsWanted => ({
  quotas: quotas.map(({ project, ...each }) =>
    project === undefined ? each : { ...each, project: { name: project.name.trim(), alsoAt: [...project.alsoAt] } },
  ),
  fileRules: fileRules.map(each => ({ ...each, pattern: each.pattern.trim() })),
})

/** What holds more already than it would be let. */
const aboveAtOnce = ({ quotas: before, quotaUsage }: Limited, quotas: ReturnType<typeof readQuotas>) =>
  quotaUsage.flatMap(({ index, key, usedBytes }) => {
    const same = before[index]
    const hard = quotas.find(each => same !== undefined && countsAlike(each, same))?.hardBytes ?? null
    return hard !== null && BigInt(usedBytes) > hard ? [`${key} holds ${formatBytes(BigInt(usedBytes))}`] : []
  })

/** That quotas and rules for kinds of files can be, and what of them is hardly meant. @param share that they are of, as it is now */
export function limitChecks(wanted: ShareLimitsWanted, share: Limited | undefined): PlanCheck[] {
  const quotas = readQuotas(wanted.quotas)
  const troubles = limitTroubles(quotas, wanted.fileRules, share?.sizeBytes ?? 0n)
  const words = (of: 'quota' | 'file rule', level: 'must' | 'warn') =>
    troubles
      .filter(each => each.of === of && each.level === level)
      .slice(0, shownTroubles)
      .map(({ index, why }) => `${of === 'quota' ? 'Quota' : 'Rule'} ${index + 1}: ${why}`)
      .join(' ')
  const refusing = words('file rule', 'warn')
  const over = share === undefined ? [] : aboveAtOnce(share, quotas)
  return [
    rule('quotas', words('quota', 'must') === '', 'Each quota can be.', words('quota', 'must'), { field: 'quotas' }),
    advise('quotas-fit', words('quota', 'warn') === '', 'Each fits into the share.', words('quota', 'warn'), {
      field: 'quotas',
    }),
    rule(
      'file-rules',
      words('file rule', 'must') === '',
      'Each rule for a kind of file can be.',
      words('file rule', 'must'),
      { field: 'fileRules' },
    ),
    advise('file-rules-meant', refusing === '', 'None refuses everything.', refusing, { field: 'fileRules' }),
    advise(
      'below-used',
      over.length === 0,
      'Nothing that is there stands above its new limit.',
      `${countAtStart(over.length, 'place stands', 'places stand')} above at once, and can be read but not written: ${over.slice(0, 3).join(', ')}.`,
      { field: 'quotas' },
    ),
  ]
}
