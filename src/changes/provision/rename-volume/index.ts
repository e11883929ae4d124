import { nameCheck, one, those, type Estate } from '@/core/estate'
import { renameVolumeIntent, type RenameVolumeIntent as Intent } from '@/core/intents'
import type { Plan } from '@/core/plan'
import type { ChangeKind } from '../../ChangeKind'
import { answers, rule } from '../../parts/checks'
import { itsSystem } from '../../parts/known'
import { outlined } from '../../parts/outline'
import { lookInto } from '../../parts/look'

type Step = Readonly<{ step: 'rename'; systemId: string; locator: string; naa: string; from: string; to: string }>

function plan(estate: Estate, intent: Intent): Plan<Step> {
  const look = lookInto(estate)
  const volume = look.one('volumes', intent.volumeId)
  const system = look.one('systems', volume?.systemId)
  const isTaken = estate.volumes.some(each => each.name === intent.name && each.id !== volume?.id)
  return outlined<Step>(estate, {
    title: `Rename ${volume?.name ?? 'a volume'}${intent.name === '' ? '' : ` to ${intent.name}`}`,
    checks: [
      rule('volume', volume?.state === 'in use', 'The volume is in use.', 'Choose a volume that is in use.'),
      ...(system === undefined ? [] : [answers(system)]),
      nameCheck(intent.name, 'the volume'),
      rule('new', intent.name !== volume?.name, 'It is another name.', 'It has that name already.', { field: 'name' }),
      rule('name-free', !isTaken, 'No other volume has it.', 'Another volume has that name.', { field: 'name' }),
    ],
    effects: [{ figure: 'name', label: 'Name', unit: 'words', before: volume?.name ?? null, after: intent.name }],
    undo: { possible: true, how: 'It can be given its old name again. Hosts know it by its WWN and notice nothing.' },
    steps:
      volume === undefined
        ? []
        : [
            {
              step: {
                step: 'rename',
                systemId: volume.systemId,
                locator: volume.locator,
                naa: volume.naa,
                from: volume.name,
                to: intent.name,
              },
              words: `Give it the name ${intent.name}`,
              seconds: 0.3,
            },
          ],
    reads: look.reads,
    claims: volume === undefined ? [] : [volume.id],
    proof: 'The system is asked for the name and the WWN of what stands there.',
  })
}

export const renameVolume: ChangeKind<Intent, Step> = {
  ...renameVolumeIntent,
  needs: ({ volumeId, name }) => [one('volumes', volumeId), those('volumes', 'name', name)],
  plan,
  async runStep({ systemId, locator, naa, from, to }, _context, ports) {
    await (await ports.of(systemId, 'volumes')).rename(locator, naa, to)
    return { systemId, from }
  },
  async undoStep({ systemId, locator, naa, from }, _context, ports) {
    await (await ports.of(systemId, 'volumes')).rename(locator, naa, from)
    return undefined
  },
  async prove(intent, made, _facts, ports) {
    const step = made.steps[0]?.step
    const seen = step === undefined ? undefined : await (await ports.of(step.systemId, 'volumes')).at(step.locator)
    return [
      {
        claim: `The system states ${intent.name} for the volume of this WWN`,
        holds: seen !== undefined && seen.name === intent.name && seen.naa === step?.naa,
        measured: { name: seen?.name ?? 'nothing', naa: seen?.naa ?? 'nothing' },
      },
    ]
  },
  collects: itsSystem,
  settles: made => made.steps.map(({ step }) => ({ kind: 'volumes', of: step, fields: ['name'] })),
  reverse: ({ volumeId }, facts) =>
    facts['from'] === undefined ? undefined : { kind: 'rename-volume', intent: { volumeId, name: facts['from'] } },
}
