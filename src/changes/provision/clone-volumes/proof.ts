import { byId, canBeAsked } from '@/core/estate'
import type { CloneVolumesIntent as Intent } from '@/core/intents'
import type { Plan } from '@/core/plan'
import type { ChangePorts } from '@/ports'
import type { Evidence, Facts } from '../../ChangeKind'
import { sameBytes, whileShown } from '../../parts/copies'
import { initiatorsOf } from '../../parts/mapping'
import { statedMapping } from '../../parts/statedMapping'
import { placesOf, sourceOf, type CloneStep, type Step } from './steps'

/** Reads every clone again; where a host of the group can be asked, it compares the first and the last with the snapshot. */
export async function prove(intent: Intent, plan: Plan<Step>, facts: Facts, ports: ChangePorts): Promise<Evidence[]> {
  const steps = plan.steps.map(({ step }) => step).filter((step): step is CloneStep => step.step === 'clone')
  const [first] = steps
  if (first === undefined) return []
  const { systemId } = first
  const snapshots = await ports.of(systemId, 'snapshots')
  const volumes = await ports.of(systemId, 'volumes')
  const snapshot = await snapshots.at(sourceOf(first, facts).locator)
  const asked = steps.flatMap(step => {
    const places = placesOf(facts, step.batch)
    return step.names.map((name, index) => ({ name, place: places[index] ?? '' }))
  })
  const stated: Cloned['stated'][number][] = []
  let shared = 0
  for (const { name, place } of asked) {
    const seen = await volumes.at(place)
    if (seen?.name !== name || seen.sizeBytes !== snapshot?.sizeBytes || !seen.isReady) continue
    stated.push(seen)
    if (await snapshots.isShared(place)) shared += 1
  }
  const own = (await ports.estate()).volumes.filter(each => asked.some(({ place }) => place === each.locator))
  const evidence: Evidence[] = [
    {
      claim: 'The system states every clone, with its name and the size of its source',
      holds: asked.length > 0 && stated.length === asked.length,
      measured: {
        stated: `${stated.length} of ${asked.length}`,
        sharing: `${shared}`,
        writtenBytes: `${own.reduce((sum, each) => sum + each.writtenBytes, 0n)}`,
      },
    },
  ]
  return [...evidence, ...(await seenBy(intent, { systemId, snapshot, stated }, ports))]
}

interface Cloned {
  readonly systemId: string
  readonly snapshot: { readonly locator: string; readonly naa: string; readonly sizeBytes: bigint } | undefined
  readonly stated: readonly { readonly locator: string; readonly naa: string; readonly name: string }[]
}

async function seenBy(
  intent: Intent,
  { systemId, snapshot, stated }: Cloned,
  ports: ChangePorts,
): Promise<readonly Evidence[]> {
  const estate = await ports.estate()
  const group = byId(estate.hostGroups, intent.hostGroupId)
  const ends = [...new Set([stated[0], stated.at(-1)])].filter(each => each !== undefined)
  if (group === undefined || snapshot === undefined) return []
  const initiators = initiatorsOf(estate, group)
  const host = estate.hosts.filter(canBeAsked).find(each => each.hostGroupId === group.id)
  if (host === undefined) {
    const each: Evidence[] = []
    for (const { locator, name } of ends) {
      const evidence = await statedMapping(ports, systemId, locator, { name: group.name, initiators })
      each.push({ ...evidence, claim: `Of ${name}: ${evidence.claim}` })
    }
    return each
  }
  const shown = { systemId, snapshotLocator: snapshot.locator, groupName: group.name }
  return whileShown(ports, shown, initiators, `proof/${snapshot.naa}`, async targets => {
    const each: Evidence[] = []
    for (const { naa, name } of ends)
      each.push(
        await sameBytes(ports, host, targets, [naa, snapshot.naa], snapshot.sizeBytes, `${name} and the snapshot`),
      )
    return each
  })
}
