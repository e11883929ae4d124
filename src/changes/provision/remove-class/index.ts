import { byId, one, those, type Estate } from '@/core/estate'
import { removeClassIntent, type RemoveClassIntent as Intent } from '@/core/intents'
import type { Plan } from '@/core/plan'
import { countWords } from '@/core/units'
import type { ChangeKind } from '../../ChangeKind'
import { advise, there } from '../../parts/checks'
import { lookInto } from '../../parts/look'
import { outlined } from '../../parts/outline'

type Step = Readonly<{ step: 'remove'; classId: string; volumeIds: readonly string[] }>

function plan(estate: Estate, intent: Intent): Plan<Step> {
  const look = lookInto(estate)
  const found = look.one('serviceClasses', intent.classId)
  const under = estate.volumes.filter(each => each.classId === found?.id)
  look.at('volumes', under)
  return outlined<Step>(estate, {
    title: `Remove the class ${found?.name ?? '…'}`,
    checks: [
      there('class', found, each => `${each.name} is there.`, 'Choose a class.', { field: 'classId' }),
      advise(
        'unused',
        under.length === 0,
        'No volume is under it.',
        `${countWords(under.length, 'volume is', 'volumes are')} under it: they are promised nothing afterwards, no snapshot is taken of them, and none is removed.`,
      ),
    ],
    effects: [{ figure: 'volumes', label: 'Volumes under it', unit: 'count', before: under.length, after: 0 }],
    undo: { possible: false, how: 'It can be defined again, and the volumes put under it.' },
    steps:
      found === undefined
        ? []
        : [
            {
              words: `Remove ${found.name}`,
              seconds: 0.1,
              step: { step: 'remove', classId: found.id, volumeIds: under.map(({ id }) => id) },
            },
          ],
    reads: look.reads,
    claims: found === undefined ? [] : [found.id],
    proof: 'The records are read again.',
  })
}

export const removeClass: ChangeKind<Intent, Step> = {
  ...removeClassIntent,
  needs: ({ classId }) => [one('serviceClasses', classId), those('volumes', 'classId', classId)],
  plan,
  async runStep(step, _context, ports) {
    await ports.records.dropClass(step.classId)
    return {}
  },
  undoStep: async () => 'The class is removed.',
  async prove({ classId }, _plan, _facts, ports) {
    const { serviceClasses, volumes } = await ports.estate()
    const left = volumes.filter(each => each.classId === classId).length
    return [
      {
        claim: 'The class is gone, and no volume is under it',
        holds: byId(serviceClasses, classId) === undefined && left === 0,
        measured: { volumesUnderIt: `${left}` },
      },
    ]
  },
  collects: () => [],
  reverse: () => undefined,
}
