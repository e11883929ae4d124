import { ruleReach } from '../access'
import type { FileService, NameAnswer, Share } from '../estate'
import { setShareRightsIntent } from '../intents'
import { nameTrouble } from '../network'
import { formatBytes } from '../units'
import type { Finding } from './Finding'
import { found } from './found'
import { mending } from './mending'

/** Of a share that is as full as this, somebody will soon be refused a write; of one as full as that, at any moment. */
const [soonRatio, nowRatio] = [0.9, 0.98]

/** What is wrong with file services and shares: addresses, names, room, and rules that nobody meets. */
export function fileFindings(
  services: readonly FileService[],
  shares: readonly Share[],
  answers: readonly NameAnswer[],
): Finding[] {
  return [
    ...services.flatMap(service => [...addressFindings(service, shares), ...nameFindings(service, answers)]),
    ...shares.flatMap(share => [...roomFindings(share), ...ruleFindings(share)]),
  ]
}

function addressFindings(service: FileService, exported: readonly Share[]): Finding[] {
  const served = exported.filter(share => share.fileServiceId === service.id).map(({ name }) => name)
  const what =
    served.length === 0 ? 'It serves nothing yet.' : `Hosts that have mounted ${served.slice(0, 4).join(', ')} by it`
  return service.instances.flatMap(({ unit, address, standsOn }) => {
    if (standsOn === unit) return []
    const of = `${service.id}/${address}`
    if (standsOn === null)
      return [
        found('file-address-silent', of, 'now', `${address} of ${service.name} does not answer`, {
          evidence: `Its system says that nothing stands there; it belongs on ${unit}.`,
          risk: served.length === 0 ? what : `${what} wait until it answers again.`,
          remedy: `Bring ${unit} back. Another takes its address over by itself, as long as one is up.`,
          offline: `Look whether ${unit} has power and its lights of the network.`,
        }),
      ]
    return [
      found('file-address-moved', of, 'soon', `${address} of ${service.name} is answered by ${standsOn}`, {
        evidence: `It belongs on ${unit}, which does not answer.`,
        risk: `${standsOn} carries the load of both. When it goes too, another has to.`,
        remedy: `Bring ${unit} back; its address goes back to it by itself.`,
        offline: `Look whether ${unit} has power and its lights of the network.`,
      }),
    ]
  })
}

function nameFindings(service: FileService, answers: readonly NameAnswer[]): Finding[] {
  return service.instances.flatMap(({ address }) => {
    const trouble = nameTrouble(service.name, address, answers)
    if (trouble == null) return []
    return [
      found(
        'file-name',
        `${service.id}/${address}`,
        'soon',
        `The name of ${service.name} and ${address} do not lead to each other`,
        {
          evidence: trouble,
          risk: 'Hosts that mount by the name do not reach it there, or not at all.',
          remedy: 'Set the records of the name server: forward for the name, reverse for the address.',
          offline: 'Whoever looks after names has to set them.',
        },
      ),
    ]
  })
}

function roomFindings(share: Share): Finding[] {
  const ratio = share.sizeBytes === 0n ? 0 : Number(share.usedBytes) / Number(share.sizeBytes)
  const warnRatio = share.warnPercent === null ? soonRatio : share.warnPercent / 100
  if (ratio < Math.min(warnRatio, nowRatio)) return []
  return [
    found(
      'share-full',
      share.id,
      ratio < nowRatio ? 'soon' : 'now',
      `${share.name} is ${Math.floor(ratio * 100)}% full`,
      {
        evidence: `${formatBytes(share.usedBytes)} of ${formatBytes(share.sizeBytes)} are used; it is warned of from ${Math.round(warnRatio * 100)}% on.`,
        risk: 'Once it is full, every write to it is refused.',
        remedy: 'Expand its volume, or take files away.',
        offline: 'Nothing can be done for it in the machine room.',
        draft: {
          kind: 'expand-volume',
          intent: { volumeId: share.volumeId },
          href: `/provision?sel=${share.volumeId}&draft=expand-volume`,
        },
      },
    ),
  ]
}

function ruleFindings(share: Share): Finding[] {
  const never = ruleReach(share.rules).flatMap(({ isNeverReached }, index) => (isNeverReached ? [index] : []))
  if (never.length === 0) return []
  const { ownerUid, ownerGid, mode, rules } = share
  const kept = rules.filter((_, index) => !never.includes(index))
  return [
    found('rule-never-reached', share.id, 'note', `Rules of ${share.name} that decide for nobody`, {
      evidence: `Rule ${never.map(index => `${index + 1}, ${rules[index]?.client ?? ''}`).join('; ')}: others count first.`,
      risk: 'Whoever wrote them may believe that they hold.',
      remedy: 'Take them away, or put them where they count.',
      offline: 'Nothing has to be done in the machine room.',
      draft: mending(setShareRightsIntent, { shareId: share.id, ownerUid, ownerGid, mode, rules: kept }),
    }),
  ]
}
