import { byId, one, type Estate } from '@/core/estate'
import { keepAsImageIntent, releaseImageIntent, type ImageIntent as Intent } from '@/core/intents'
import type { Plan } from '@/core/plan'
import type { ChangeKind } from '../../ChangeKind'
import { rule } from '../../parts/checks'
import { inUse } from '../../parts/inUse'
import { lookInto } from '../../parts/look'
import { outlined } from '../../parts/outline'

type Step = Readonly<{ step: 'say'; volumeId: string; isImage: boolean }>

const unseen = (mappings: Estate['mappings']) =>
  rule(
    'unseen',
    mappings.length === 0,
    'No host sees it.',
    `${mappings.map(({ groupName }) => groupName).join(', ')} could write it: unmap it first.`,
  )

function plan(estate: Estate, intent: Intent, isImage: boolean): Plan<Step> {
  const look = lookInto(estate)
  const volume = look.one('volumes', intent.volumeId)
  const mappings = estate.mappings.filter(each => each.volumeId === volume?.id)
  const name = volume?.name ?? 'a volume'
  const words = isImage ? `Keep ${name} as an image` : `Make a volume of the image ${name}`
  return outlined<Step>(estate, {
    title: words,
    checks: [
      inUse(volume, each => `${each.name} is in use.`),
      rule(
        'other',
        volume === undefined || volume.isImage !== isImage,
        'It is not so yet.',
        isImage ? 'It is an image already.' : 'It is no image.',
      ),
      ...(isImage ? [unseen(mappings)] : []),
    ],
    effects: [
      {
        figure: 'isImage',
        label: 'It is',
        unit: 'words',
        before: isImage ? 'a volume' : 'an image',
        after: isImage ? 'an image' : 'a volume',
      },
    ],
    undo: { possible: true, how: 'It can be made what it was again.' },
    steps: volume === undefined ? [] : [{ words, seconds: 0.05, step: { step: 'say', volumeId: volume.id, isImage } }],
    reads: look.reads,
    claims: volume === undefined ? [] : [volume.id],
    proof: 'The records are read again, and the system is asked that nobody sees it.',
  })
}

const kindOf = (isImage: boolean): Omit<ChangeKind<Intent, Step>, 'kind' | 'title' | 'intentSchema'> => ({
  needs: ({ volumeId }) => [one('volumes', volumeId)],
  plan: (estate, intent) => plan(estate, intent, isImage),
  async runStep(step, _context, ports) {
    await ports.records.setImage(step.volumeId, step.isImage)
    return {}
  },
  async undoStep(step, _context, ports) {
    await ports.records.setImage(step.volumeId, !step.isImage)
    return undefined
  },
  async prove({ volumeId }, _plan, _facts, ports) {
    const volume = byId((await ports.estate()).volumes, volumeId)
    const said = {
      claim: isImage ? 'The records hold it as an image' : 'The records hold it as a volume',
      holds: volume?.isImage === isImage,
      measured: { image: `${volume?.isImage ?? 'not there'}` },
    }
    if (volume === undefined || !isImage) return [said]
    const mapped = await (await ports.of(volume.systemId, 'mappings')).of(volume.locator)
    return [
      said,
      {
        claim: 'The system shows it to nobody who could write it',
        holds: mapped.length === 0,
        measured: { mappedTo: mapped.map(({ groupName }) => groupName).join(', ') || 'nobody' },
      },
    ]
  },
  collects: () => [],
  reverse: intent => ({ kind: isImage ? 'release-image' : 'keep-as-image', intent }),
})

export const keepAsImage: ChangeKind<Intent, Step> = { ...keepAsImageIntent, ...kindOf(true) }
export const releaseImage: ChangeKind<Intent, Step> = { ...releaseImageIntent, ...kindOf(false) }
