import { byId, kindOf, type Estate, type ObjectTypes } from '@/core/estate'
import type { Effect, Plan, PlanCheck } from '@/core/plan'
import type { ChangeKind, Evidence } from '../ChangeKind'
import { there } from './checks'
import { lookInto, type Look } from './look'
import { outlined } from './outline'

type OwnKind = 'routes' | 'rules' | 'directories'
type Step = Readonly<{ step: 'remove'; id: string }>

interface Removing<Name extends OwnKind, Intent> {
  readonly of: Name
  readonly idOf: (intent: Intent) => string
  readonly title: (name: string) => string
  readonly checks?: (estate: Estate, found: ObjectTypes[Name], look: Look) => readonly PlanCheck[]
  readonly effects: (estate: Estate, found: ObjectTypes[Name] | undefined) => readonly Effect[]
  /** What else must be gone. */
  readonly alsoGone?: (estate: Estate, id: string) => Evidence
}

function planned<Name extends OwnKind, Intent>(
  estate: Estate,
  intent: Intent,
  { of, idOf, title, checks, effects }: Removing<Name, Intent>,
): Plan<Step> {
  const { one } = kindOf(of).words
  const look = lookInto(estate)
  const found = look.one(of, idOf(intent)) as ObjectTypes[Name] | undefined
  return outlined<Step>(estate, {
    title: title(found?.name ?? '…'),
    checks: [
      there(one, found, each => `${each.name} is there.`, `Choose the ${one}.`),
      ...(found === undefined || checks === undefined ? [] : checks(estate, found, look)),
    ],
    effects: effects(estate, found),
    undo: { possible: false, how: 'It can be made again, by a change of its own.' },
    steps:
      found === undefined
        ? []
        : [{ words: `Remove ${found.name}`, seconds: 0.1, step: { step: 'remove', id: found.id } }],
    reads: look.reads,
    claims: found === undefined ? [] : [found.id],
    proof: 'The records are read again.',
  })
}

/** A kind of change that takes an object of ours away: nothing is done elsewhere, and the records are read again. */
export function removingOwn<Name extends OwnKind, Intent>(
  kind: Pick<ChangeKind<Intent, Step>, 'kind' | 'title' | 'intentSchema'>,
  removing: Removing<Name, Intent>,
): ChangeKind<Intent, Step> {
  const { of, idOf, alsoGone } = removing
  const { one } = kindOf(of).words
  const all = (estate: Estate) => estate[of] as readonly ObjectTypes[Name][]
  return {
    ...kind,
    needs: () => [],
    plan: (estate, intent) => planned(estate, intent, removing),
    async runStep({ id }, _context, ports) {
      await ports.records.dropOwn(of, id)
      return {}
    },
    undoStep: async () => `The ${one} is removed.`,
    async prove(intent, _plan, _facts, ports) {
      const estate = await ports.estate()
      const found = byId(all(estate), idOf(intent))
      return [
        { claim: `The ${one} is gone`, holds: found === undefined, measured: { kept: found?.name ?? 'nothing' } },
        ...(alsoGone === undefined ? [] : [alsoGone(estate, idOf(intent))]),
      ]
    },
    collects: () => [],
    reverse: () => undefined,
  }
}
