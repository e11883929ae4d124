import { byId, one, type Estate, type Share } from '@/core/estate'
import { labelShareIntent, type LabelShareIntent as Intent } from '@/core/intents'
import type { Plan, PlanCheck } from '@/core/plan'
import type { ChangeKind } from '../../ChangeKind'
import { advise, rule, there } from '../../parts/checks'
import { labelChecks, labelsIn } from '../../parts/files/labels'
import type { ShareNotes } from '../../parts/files/shareExtras'
import { firstStep } from '../../parts/known'
import { lookInto } from '../../parts/look'
import { outlined } from '../../parts/outline'

type Step = Readonly<{ step: 'note'; shareId: string; to: ShareNotes; before: ShareNotes }>

const inWords = (labels: readonly string[]) => (labels.length === 0 ? 'none' : labels.join(', '))
const warning = (percent: number | null) => (percent === null ? 'as of all' : `from ${percent}%`)

function checksOf(share: Share | undefined, to: ShareNotes, before: ShareNotes): readonly PlanCheck[] {
  const used =
    share === undefined || share.sizeBytes === 0n ? 0 : (Number(share.usedBytes) / Number(share.sizeBytes)) * 100
  return [
    there('share', share, each => `${each.name} is there.`, 'Choose a share.'),
    labelChecks(to.labels),
    rule('other', JSON.stringify(to) !== JSON.stringify(before), 'It becomes another.', 'It is so already.'),
    advise(
      'warned-now',
      to.warnPercent === null || used < to.warnPercent,
      'It is not that full yet.',
      `It is ${Math.floor(used)}% full: it is warned of at once.`,
      { field: 'warnPercent' },
    ),
  ]
}

function plan(estate: Estate, intent: Intent): Plan<Step> {
  const look = lookInto(estate)
  const share = look.one('shares', intent.shareId)
  const to: ShareNotes = { labels: labelsIn(intent.labels), warnPercent: intent.warnPercent }
  const before: ShareNotes = { labels: share?.labels ?? [], warnPercent: share?.warnPercent ?? null }
  return outlined<Step>(estate, {
    title: `Label ${share?.name ?? 'a share'}`,
    checks: checksOf(share, to, before),
    effects: [
      { figure: 'labels', label: 'Labels', unit: 'words', before: inWords(before.labels), after: inWords(to.labels) },
      {
        figure: 'warnPercent',
        label: 'Warned of its fill',
        unit: 'words',
        before: warning(before.warnPercent),
        after: warning(to.warnPercent),
      },
    ],
    undo: { possible: true, how: 'What was said before can be said again.' },
    steps:
      share === undefined
        ? []
        : [{ words: 'Keep it with the share', seconds: 0.05, step: { step: 'note', shareId: share.id, to, before } }],
    reads: look.reads,
    claims: share === undefined ? [] : [share.id],
    proof: 'The records are read again.',
  })
}

export const labelShare: ChangeKind<Intent, Step> = {
  ...labelShareIntent,
  needs: ({ shareId }) => [one('shares', shareId)],
  plan,
  async runStep({ shareId, to }, _context, ports) {
    await ports.records.noteShare(shareId, to)
    return {}
  },
  async undoStep({ shareId, before }, _context, ports) {
    await ports.records.noteShare(shareId, before)
    return undefined
  },
  async prove({ shareId }, made, _facts, ports) {
    const { to } = firstStep(made)
    const share = byId((await ports.estate()).shares, shareId)
    return [
      {
        claim: 'The share has these labels, and is warned of from there',
        holds:
          share !== undefined && inWords(share.labels) === inWords(to.labels) && share.warnPercent === to.warnPercent,
        measured: { labels: inWords(share?.labels ?? []), warned: warning(share?.warnPercent ?? null) },
      },
    ]
  },
  collects: () => [],
  reverse: () => undefined,
}
