import { byId, one, those, type Estate, type Share, type Snapshot, type System } from '@/core/estate'
import { showEarlierFilesIntent, type ShowEarlierFilesIntent as Intent } from '@/core/intents'
import type { Plan, PlanCheck } from '@/core/plan'
import type { ChangeKind } from '../../ChangeKind'
import { advise, answers, rule, there } from '../../parts/checks'
import { firstStep, itsSystem } from '../../parts/known'
import { lookInto } from '../../parts/look'
import { outlined } from '../../parts/outline'
import { prove, shownSnapshots, type Step } from './proof'

const words = (isShown: boolean | undefined) => (isShown === true ? 'shown' : 'hidden')

function plan(estate: Estate, { shareId, isShown }: Intent): Plan<Step> {
  const look = lookInto(estate)
  const share = look.one('shares', shareId)
  const system = look.one('systems', share?.systemId)
  const snapshots = shownSnapshots(estate, share)
  const directory = share?.snapshotDirectory
  return outlined<Step>(estate, {
    title: `${isShown ? 'Show' : 'Hide'} the snapshots of ${share?.name ?? 'a share'}`,
    checks: checksOf(share, system, snapshots, isShown),
    effects: [
      {
        figure: 'isShown',
        label: 'Hosts find snapshots',
        unit: 'words',
        before: words(directory?.isShown),
        after: isShown ? `in ${directory?.name ?? 'no directory'}` : words(false),
      },
      { figure: 'snapshots', label: 'Snapshots of it', unit: 'count', before: null, after: snapshots.length },
    ],
    undo: { possible: true, how: 'What was before is set again; no file is touched.' },
    steps:
      share === undefined
        ? []
        : [
            {
              words: `${isShown ? 'Show' : 'Hide'} them`,
              seconds: 0.4,
              step: {
                ...{ step: 'show', systemId: share.systemId, shareId: share.id, volumeId: share.volumeId },
                locator: share.locator,
                ...{ name: share.name, isShown, before: directory?.isShown === true },
              },
            },
          ],
    reads: look.reads,
    claims: share === undefined ? [] : [share.id],
    proof: isShown
      ? 'A host that may read it over NFS looks into the latest snapshots, reads a file there, and is refused a write.'
      : 'A host that may read it over NFS finds none of them.',
  })
}

function checksOf(
  share: Share | undefined,
  system: System | undefined,
  snapshots: readonly Snapshot[],
  isShown: boolean,
): readonly PlanCheck[] {
  return [
    there('share', share, each => `${each.name} is there.`, 'Choose a share.'),
    ...(system === undefined ? [] : [answers(system)]),
    ...(share === undefined ? [] : directoryChecks(share, snapshots, isShown)),
  ]
}

const directoryChecks = (
  { snapshotDirectory }: Share,
  snapshots: readonly Snapshot[],
  isShown: boolean,
): readonly PlanCheck[] => [
  rule(
    'has-directory',
    snapshotDirectory !== null,
    `Its system shows them in ${snapshotDirectory?.name ?? ''}.`,
    'Its system has no directory in which hosts could find snapshots.',
    { remedy: 'Bring files back from snapshots by a change.' },
  ),
  rule(
    'other',
    snapshotDirectory === null || snapshotDirectory.isShown !== isShown,
    'It is not so yet.',
    `They are ${words(isShown)} already.`,
    { field: 'isShown' },
  ),
  advise(
    'has-snapshots',
    !isShown || snapshots.length > 0,
    'There is something to be found.',
    'It has no snapshot yet: the directory is empty until one is taken.',
    { remedy: 'Put its volume under a class that takes them.' },
  ),
  advise(
    'earlier-rights',
    !isShown,
    'Nobody finds more than before.',
    'Files that were taken away, or whose rights were narrowed, are found there as they were.',
  ),
]

/** Whether hosts find the snapshots of a share in a directory of their own, and copy files back without asking. */
export const showEarlierFiles: ChangeKind<Intent, Step> = {
  ...showEarlierFilesIntent,
  needs: ({ shareId }, facts) => [one('shares', shareId), those('snapshots', 'volumeId', facts?.['volumeId'])],
  needsAlso: ({ shares }, { shareId }) => [those('snapshots', 'volumeId', byId(shares, shareId)?.volumeId)],
  plan,
  async runStep({ systemId, volumeId, locator, name, isShown, before }, _context, ports) {
    await (await ports.of(systemId, 'shares')).showSnapshots(locator, name, isShown)
    return { systemId, volumeId, before: `${before}` }
  },
  async undoStep({ systemId, locator, name, before }, _context, ports) {
    await (await ports.of(systemId, 'shares')).showSnapshots(locator, name, before)
    return undefined
  },
  prove: (_intent, made, _facts, ports) => prove(firstStep(made), ports),
  collects: itsSystem,
  settles: made => made.steps.map(({ step }) => ({ kind: 'shares', of: step, fields: ['snapshotDirectory'] })),
  reverse: ({ shareId }, facts) =>
    facts['before'] === undefined
      ? undefined
      : { kind: 'show-earlier-files', intent: { shareId, isShown: facts['before'] === 'true' } },
}
