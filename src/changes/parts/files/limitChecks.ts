import { limitTroubles, readQuotas } from '@/core/filetree'
import type { Share } from '@/core/estate'
import type { PlanCheck } from '@/core/plan'
import { countAtStart, formatBytes } from '@/core/units'
import type { ShareLimitsWanted } from '@/ports'
import { advise, rule } from '../checks'

const shownTroubles = 5

/** That quotas and rules for kinds of files can be, and what of them is hardly meant. @param share that they are of, as it is now */
export function limitChecks(
  wanted: ShareLimitsWanted,
  share: Pick<Share, 'sizeBytes' | 'quotas' | 'quotaUsage'> | undefined,
): PlanCheck[] {
  const quotas = readQuotas(wanted.quotas)
  const troubles = limitTroubles(quotas, wanted.fileRules, share?.sizeBytes ?? 0n)
  const words = (of: 'quota' | 'file rule', level: 'must' | 'warn') =>
    troubles
      .filter(each => each.of === of && each.level === level)
      .slice(0, shownTroubles)
      .map(({ index, why }) => `${of === 'quota' ? 'Quota' : 'Rule'} ${index + 1}: ${why}`)
      .join(' ')
  const over = (share?.quotaUsage ?? []).flatMap(({ index, key, usedBytes }) => {
    const same = share?.quotas[index]
    const position = quotas.findIndex(each => each.path === same?.path && each.of === same.of && each.id === same.id)
    const hard = quotas[position]?.hardBytes ?? null
    return hard !== null && BigInt(usedBytes) > hard ? [`${key} holds ${formatBytes(BigInt(usedBytes))}`] : []
  })
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
    advise(
      'file-rules-meant',
      words('file rule', 'warn') === '',
      'None refuses everything.',
      words('file rule', 'warn'),
      { field: 'fileRules' },
    ),
    advise(
      'below-used',
      over.length === 0,
      'Nothing that is there stands above its new limit.',
      `${countAtStart(over.length, 'place stands', 'places stand')} above at once, and can be read but not written: ${over.slice(0, 3).join(', ')}.`,
      { field: 'quotas' },
    ),
  ]
}
