import { those, type Estate } from '@/core/estate'
import { setApplicationIntent, type SetApplicationIntent as Intent } from '@/core/intents'
import type { Plan } from '@/core/plan'
import { countWords } from '@/core/units'
import type { ChangeKind } from '../../ChangeKind'
import { rule } from '../../parts/checks'
import { firstStep } from '../../parts/known'
import { lookInto } from '../../parts/look'
import { outlined } from '../../parts/outline'

type Step = Readonly<{ step: 'say'; application: string | null; before: Readonly<Record<string, string | null>> }>

function plan(estate: Estate, intent: Intent): Plan<Step> {
  const look = lookInto(estate)
  const volumes = look.some('volumes', intent.volumeIds)
  const given = intent.application.trim()
  const application = given === '' ? null : given
  const what = volumes.length === 1 ? (volumes[0]?.name ?? '') : countWords(volumes.length, 'volume', 'volumes')
  const words = application === null ? `Say that ${what} serve none` : `Say that ${what} serve ${application}`
  const served = [...new Set(volumes.map(each => each.application ?? 'none'))]
  return outlined<Step>(estate, {
    title: words,
    checks: [
      rule(
        'volumes',
        volumes.length > 0 && volumes.length === intent.volumeIds.length,
        'All of them are there.',
        volumes.length === 0 ? 'Choose the volumes.' : 'Some of them are not there any more.',
      ),
      rule(
        'other',
        volumes.some(each => each.application !== application),
        'It is not said of all of them yet.',
        'That is said of them already.',
        { field: 'application' },
      ),
    ],
    effects: [
      {
        figure: 'application',
        label: 'Application',
        unit: 'words',
        before: served.slice(0, 4).join(', '),
        after: application ?? 'none',
      },
    ],
    undo: { possible: true, how: 'What was said of each before can be said again.' },
    steps:
      volumes.length === 0
        ? []
        : [
            {
              words,
              seconds: 0.05,
              step: {
                step: 'say',
                application,
                before: Object.fromEntries(volumes.map(each => [each.id, each.application])),
              },
            },
          ],
    reads: look.reads,
    claims: volumes.map(({ id }) => id),
    proof: 'The records are read again.',
  })
}

export const setApplication: ChangeKind<Intent, Step> = {
  ...setApplicationIntent,
  needs: ({ volumeIds }) => [those('volumes', 'id', ...volumeIds)],
  plan,
  async runStep({ application, before }, _context, ports) {
    await ports.records.setApplication(Object.keys(before), application)
    return {}
  },
  async undoStep({ before }, _context, ports) {
    for (const [id, application] of Object.entries(before)) await ports.records.setApplication([id], application)
    return undefined
  },
  async prove(_intent, made, _facts, ports) {
    const { application, before } = firstStep(made)
    const said = (await ports.estate()).volumes.filter(each => each.id in before && each.application === application)
    const asked = Object.keys(before).length
    return [
      {
        claim: 'It is said of all of them',
        holds: said.length === asked,
        measured: { said: `${said.length}`, asked: `${asked}` },
      },
    ]
  },
  collects: () => [],
  reverse: () => undefined,
}
