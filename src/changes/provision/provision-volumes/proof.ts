import { canBeAsked } from '@/core/estate'
import type { ProvisionVolumesIntent as Intent } from '@/core/intents'
import type { Plan } from '@/core/plan'
import type { ChangePorts, VolumeSeen } from '@/ports'
import type { Evidence, Facts } from '../../ChangeKind'
import { lookFrom } from '../../parts/hostProof'
import { initiatorsOf } from '../../parts/mapping'
import { statedMapping } from '../../parts/statedMapping'
import { fact } from '../../parts/known'
import { placesIn, type Step } from './steps'

const shown = 5

interface Stated {
  readonly systemId: string
  readonly asked: string
  /** Undefined for one that is not there as it was asked for. */
  readonly volume: VolumeSeen | undefined
}

/** Every volume of a plan, as its system states it now. */
async function statedBy(plan: Plan<Step>, facts: Facts, ports: ChangePorts): Promise<readonly Stated[]> {
  const seen: Stated[] = []
  for (const { step } of plan.steps) {
    if (step.step !== 'create') continue
    const volumes = await ports.of(step.systemId, 'volumes')
    const places = placesIn(facts, step.batch)
    for (const [index, { name, sizeBytes }] of step.volumes.entries()) {
      const found = await volumes.at(places[index] ?? '')
      const isAsked = found?.name === name && `${found.sizeBytes}` === sizeBytes && found.isReady
      seen.push({ systemId: step.systemId, asked: name, volume: isAsked ? found : undefined })
    }
  }
  return seen
}

/** Reads every volume again, and asks a host of the group whether it finds all of them. */
export async function prove(_intent: Intent, plan: Plan<Step>, facts: Facts, ports: ChangePorts): Promise<Evidence[]> {
  const estate = await ports.estate()
  const seen = await statedBy(plan, facts, ports)
  const lacking = seen.filter(({ volume }) => volume === undefined).map(({ asked }) => asked)
  const stated: Evidence = {
    claim: 'Their systems state all of them, with the names and sizes that were asked for',
    holds: seen.length > 0 && lacking.length === 0,
    measured: {
      stated: `${seen.length - lacking.length} of ${seen.length}`,
      lacking: lacking.slice(0, shown).join(', ') || 'none',
    },
  }
  const grouped = await groupEvidence(plan, facts, ports)
  const map = plan.steps.map(each => each.step).find(step => step.step === 'map')
  const group = map === undefined ? undefined : estate.hostGroups.find(({ name }) => name === map.groupName)
  const host = estate.hosts.filter(canBeAsked).find(each => each.hostGroupId === group?.id)
  if (host === undefined) {
    if (group === undefined) return [stated, ...grouped]
    const named = { name: group.name, initiators: initiatorsOf(estate, group) }
    return [stated, ...grouped, await allMapped(seen, named, ports)]
  }
  const evidence: Evidence[] = [stated, ...grouped]
  for (const systemId of new Set(seen.map(each => each.systemId))) {
    const wanted = seen.flatMap(each =>
      each.systemId === systemId && each.volume !== undefined ? [each.volume.naa] : [],
    )
    const targets = await (await ports.of(systemId, 'mappings')).targets()
    const { agent } = await lookFrom(ports, host, targets, wanted[0] ?? '')
    const found = new Set((await agent.rescan()).map(({ naa }) => naa))
    const unseen = wanted.filter(naa => !found.has(naa))
    evidence.push({
      claim: `${host.name} finds all of them by their WWNs`,
      holds: wanted.length > 0 && unseen.length === 0,
      measured: {
        found: `${wanted.length - unseen.length} of ${wanted.length}`,
        unseen: unseen.slice(0, shown).join(', ') || 'none',
      },
    })
  }
  return evidence
}

/** That their systems state all mappings, where no host of the group could be asked. */
async function allMapped(
  seen: readonly Stated[],
  group: { readonly name: string; readonly initiators: readonly string[] },
  ports: ChangePorts,
): Promise<Evidence> {
  const each: Evidence[] = []
  for (const { systemId, volume } of seen)
    if (volume !== undefined) each.push(await statedMapping(ports, systemId, volume.locator, group))
  const holding = each.filter(({ holds }) => holds).length
  return {
    claim: `Their systems state that ${group.name} sees all of them; no host of it has an agent that could be asked`,
    holds: seen.length > 0 && holding === seen.length,
    measured: { mapped: `${holding} of ${seen.length}` },
  }
}

/** That the group which they form has all of them, and no other. */
async function groupEvidence(plan: Plan<Step>, facts: Facts, ports: ChangePorts): Promise<Evidence[]> {
  const step = plan.steps.map(each => each.step).find(each => each.step === 'group')
  if (step?.step !== 'group') return []
  const asked = new Set(step.batches.flatMap(batch => placesIn(facts, batch)))
  const seen = await (await ports.of(step.systemId, 'consistencyGroups')).at(fact(facts, 'groupLocator'))
  const stated = seen?.volumeLocators ?? []
  return [
    {
      claim: `The consistency group ${step.name} has all of them and no other`,
      holds: seen?.name === step.name && stated.length === asked.size && stated.every(each => asked.has(each)),
      measured: { asked: `${asked.size}`, stated: `${stated.length}` },
    },
  ]
}
