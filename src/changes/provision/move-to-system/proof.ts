import { byId, canBeAsked } from '@/core/estate'
import type { MoveToSystemIntent as Intent } from '@/core/intents'
import type { Plan } from '@/core/plan'
import type { ChangePorts } from '@/ports'
import type { Evidence, Facts } from '../../ChangeKind'
import { lookFrom } from '../../parts/hostProof'
import { fact } from '../../parts/known'
import type { Ends, MirrorStep } from '../../parts/mirrors'
import { farSums, type CompareStep, type Step, type SwitchStep } from './steps'

/** Asks both systems where it stands, its hosts by which ways they see it, and the one that compared before whether it reads the same. */
export async function prove(intent: Intent, plan: Plan<Step>, facts: Facts, ports: ChangePorts): Promise<Evidence[]> {
  const steps = plan.steps.map(each => each.step)
  const mirror = steps.find((step): step is MirrorStep => step.step === 'mirror')
  const compared = steps.find((step): step is CompareStep => step.step === 'compare')
  const switched = steps.find((step): step is SwitchStep => step.step === 'switch')
  if (mirror === undefined || switched === undefined) return []
  // Read first: what the host is shown for it is forgotten as it looks for the volume afterwards.
  const same = compared === undefined ? [] : [await readsTheSame(compared, facts, ports)]
  return [
    await standsThere(intent, mirror, facts, ports),
    await leftHere(mirror, facts, ports),
    ...(await seenThere(intent, switched, ports)),
    ...same,
  ]
}

async function standsThere(
  { volumeId }: Intent,
  step: MirrorStep,
  facts: Facts,
  ports: ChangePorts,
): Promise<Evidence> {
  const locator = fact(facts, 'toLocator')
  const stated = await (await ports.of(step.toSystemId, 'volumes')).at(locator)
  const mirror = await (await ports.of(step.toSystemId, 'mirrors')).of(locator)
  const known = byId((await ports.estate()).volumes, volumeId)
  return {
    claim: 'Its new system states it in its pool, under its own WWN and with its size, mirrored to nobody',
    holds:
      stated?.naa === step.naa &&
      stated.poolLocator === step.poolLocator &&
      stated.isReady &&
      stated.sizeBytes === known?.sizeBytes &&
      known.systemId === step.toSystemId &&
      mirror === undefined,
    measured: {
      pool: stated?.poolLocator ?? 'nothing',
      wwn: stated?.naa ?? 'nothing',
      bytes: `${stated?.sizeBytes ?? 'nothing'}`,
      mirror: mirror?.state ?? 'none',
    },
  }
}

async function leftHere({ systemId, volumeLocator, naa }: Ends, facts: Facts, ports: ChangePorts): Promise<Evidence> {
  const former = await (await ports.of(systemId, 'volumes')).at(volumeLocator)
  const mapped = await (await ports.of(systemId, 'mappings')).of(volumeLocator)
  return {
    claim: 'Its old system keeps what it was under another WWN, and shows it to nobody',
    holds: former !== undefined && former.naa !== naa && former.naa === facts['formerNaa'] && mapped.length === 0,
    measured: {
      wwn: former?.naa ?? 'nothing',
      shownTo: mapped.map(({ groupName }) => groupName).join(', ') || 'nobody',
    },
  }
}

/** That each host sees it with its size, and by ways to its new system only. */
async function seenThere({ volumeId }: Intent, step: SwitchStep, ports: ChangePorts): Promise<Evidence[]> {
  const { hosts, volumes } = await ports.estate()
  const targets = await (await ports.of(step.toSystemId, 'mappings')).targets()
  const sizeBytes = byId(volumes, volumeId)?.sizeBytes
  const asked = hosts.filter(canBeAsked).filter(each => step.hosts.some(one => one.agentAddress === each.agentAddress))
  return Promise.all(
    asked.map(async host => {
      const { device } = await lookFrom(ports, host, targets, step.naa)
      const ways = device?.paths ?? []
      const up = ways.filter(each => each.isUp && targets.includes(each.target)).length
      const elsewhere = ways.filter(each => !targets.includes(each.target)).length
      return {
        claim: `${host.name} sees it with its full size, by ways to its new system only`,
        holds: device !== undefined && device.sizeBytes === sizeBytes && up > 0 && elsewhere === 0,
        measured: {
          wwn: step.naa,
          seenBytes: `${device?.sizeBytes ?? 'nothing'}`,
          waysUp: `${up} of ${ways.length}`,
          waysElsewhere: `${elsewhere}`,
        },
      }
    }),
  )
}

async function readsTheSame(step: CompareStep, facts: Facts, ports: ChangePorts): Promise<Evidence> {
  const before = fact(facts, 'sums').split(' ')
  const after = await farSums(step, facts, ports)
  const differ = before.filter((sum, index) => sum !== after[index]).length
  return {
    claim: `${step.host.name} reads from its new system what the old one held at that instant`,
    holds: before.length > 0 && before.length === after.length && differ === 0,
    measured: {
      comparedPlaces: `${before.length}`,
      differ: differ === 0 ? 'none' : `${differ}`,
      firstSha256: after[0] ?? 'none',
    },
  }
}
