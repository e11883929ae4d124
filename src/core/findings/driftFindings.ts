import { group } from 'd3-array'
import { kindOf, type KindName } from '../estate'
import type { Finding } from './Finding'
import { found } from './found'

/** A field that a system states otherwise than the change that has set it. */
export interface Drifted {
  readonly objectId: string
  readonly kind: KindName
  readonly field: string
  readonly name: string
  readonly was: unknown
  readonly is: unknown
  readonly at: Date
  readonly changeId: string
  readonly changeKind: string
  readonly intent: Readonly<Record<string, unknown>>
  readonly title: string
}

const fieldWords: Readonly<Record<string, string>> = {
  'volumes.limits': 'what it may be asked for',
  'volumes.isThin': 'whether it is thin',
  'volumes.name': 'its name',
  'shares.rules': 'its export rules',
  'shares.grants': 'its grants',
  'fileServices.grants': 'its grants',
  'shares.mode': 'the mode of its root',
  'shares.acl': 'the access list of its root',
  'shares.quotas': 'its quotas',
  'shares.fileRules': 'its rules for files',
  'shares.ownerUid': 'the owner of its root',
  'shares.ownerGid': 'the group of its root',
  'nodePorts.mtu': 'its MTU',
  'nodePorts.storage': 'its interface for storage',
  'nodes.isRestartServiceOn': 'whether it restarts by itself',
  'switchPorts.mtu': 'its MTU',
  'switchPorts.vlans': 'its VLANs',
}
const shownLetters = 120

/** What systems state otherwise than it was set, object by object: somebody has changed it there, or it was lost. */
export function driftFindings(drifted: readonly Drifted[]): Finding[] {
  return [...group(drifted, each => each.objectId).values()].map(fields => {
    const [first] = fields as [Drifted, ...Drifted[]]
    const { kind, name, objectId, changeId, changeKind, intent } = first
    const what = fields.map(each => fieldWords[`${kind}.${each.field}`] ?? each.field)
    return found('drifted', objectId, 'soon', `${name} is not as it was set: ${what.join(', ')}`, {
      evidence: fields.map(evidenceOf).join(' '),
      risk: `Somebody has changed the ${kindOf(kind).words.one} at its system, past plan and proof. What was proven of it need not hold any more.`,
      remedy:
        'Find out who did so and why. Open the change that set it: it can be drafted again as it was; or draft what shall count.',
      offline: 'Compare what the system’s own console says with the change.',
      draft: { kind: changeKind, intent, href: `/changes/${changeId}` },
    })
  })
}

function evidenceOf({ title, at, was, is }: Drifted): string {
  const told = [was, is].map(inWords)
  const values =
    told.every(each => each.length <= shownLetters) && told[0] !== told[1]
      ? `: it was ${told[0]}, and is ${told[1]}`
      : ''
  return `“${title}” set it on ${at.toISOString().slice(0, 16).replace('T', ' ')} UTC; its system states it otherwise${values}.`
}

const inWords = (value: unknown): string => {
  if (value === null || value === undefined) return 'nothing'
  return typeof value === 'string' ? value : JSON.stringify(value)
}
