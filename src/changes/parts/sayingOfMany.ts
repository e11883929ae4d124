import type { Estate, Host, Volume } from '@/core/estate'
import type { Plan, PlanCheck } from '@/core/plan'
import { countWords } from '@/core/units'
import type { EstateWriter } from '@/ports'
import type { ChangeKind } from '../ChangeKind'
import { rule } from './checks'
import { firstStep } from './known'
import { lookInto } from './look'
import { outlined } from './outline'

export type SayStep = Readonly<{
  step: 'say'
  to: string | null
  before: Readonly<Record<string, string | null>>
}>

interface Kinds {
  readonly hosts: Host
  readonly volumes: Volume
}

/** What is said of several objects of a kind. It is kept with them and alters nothing on them. */
interface Saying<Intent, Kind extends keyof Kinds> {
  readonly kind: Kind
  readonly one: string
  readonly idsIn: (intent: Intent) => readonly string[]
  /** What stands of one of them now. */
  readonly of: (each: Kinds[Kind]) => string | null
  readonly label: string
  /** The field of the form. */
  readonly field: keyof Intent & string
  readonly see: (estate: Estate, intent: Intent) => SayingSeen
  readonly keep: (records: EstateWriter, ids: readonly string[], to: string | null) => Promise<void>
}

interface SayingSeen {
  readonly to: string | null
  /** @param what they are called together */
  readonly words: (what: string) => string
  readonly nameOf: (said: string | null) => string
  readonly checks: readonly PlanCheck[]
}

const mostShown = 4
const allOf = <Kind extends keyof Kinds>(estate: Estate, kind: Kind) =>
  estate[kind] as unknown as readonly Kinds[Kind][]

function planned<Intent, Kind extends keyof Kinds>(
  saying: Saying<Intent, Kind>,
  estate: Estate,
  intent: Intent,
): Plan<SayStep> {
  const { kind, of, one, label } = saying
  const look = lookInto(estate)
  const ids = saying.idsIn(intent)
  const chosen = look.some(kind, ids) as unknown as readonly Kinds[Kind][]
  const seen = saying.see(estate, intent)
  const { to, words, nameOf } = seen
  const title = words(chosen.length === 1 ? (chosen[0]?.name ?? '') : countWords(chosen.length, one, `${one}s`))
  const before = [...new Set(chosen.map(each => nameOf(of(each))))].slice(0, mostShown).join(', ')
  const step = { step: 'say' as const, to, before: Object.fromEntries(chosen.map(each => [each.id, of(each)])) }
  return outlined<SayStep>(estate, {
    title,
    checks: checksOf(saying, chosen, ids.length, seen),
    effects: [{ figure: label.toLowerCase(), label, unit: 'words', before, after: nameOf(to) }],
    undo: { possible: true, how: 'What was said of each before can be said again.' },
    steps: chosen.length === 0 ? [] : [{ words: title, seconds: 0.05, step }],
    reads: look.reads,
    claims: chosen.map(({ id }) => id),
    proof: 'The records are read again.',
  })
}

const checksOf = <Intent, Kind extends keyof Kinds>(
  { kind, of, one, field }: Saying<Intent, Kind>,
  chosen: readonly Kinds[Kind][],
  asked: number,
  { to, checks }: SayingSeen,
): PlanCheck[] => [
  rule(
    kind,
    chosen.length > 0 && chosen.length === asked,
    'All of them are there.',
    chosen.length === 0 ? `Choose the ${one}s.` : 'Some of them are not there any more.',
  ),
  ...checks,
  rule(
    'other',
    chosen.some(each => of(each) !== to),
    'It is not said of all of them yet.',
    'That is said of them already.',
    { field },
  ),
]

/** The plan of such a change, and how it is carried out and proven. */
export function sayingOfMany<Intent, Kind extends keyof Kinds>(
  saying: Saying<Intent, Kind>,
): Pick<ChangeKind<Intent, SayStep>, 'plan' | 'runStep' | 'undoStep' | 'prove' | 'collects' | 'reverse'> {
  const { kind, of, keep } = saying
  return {
    plan: (estate, intent) => planned(saying, estate, intent),
    async runStep({ to, before }, _context, ports) {
      await keep(ports.records, Object.keys(before), to)
      return {}
    },
    async undoStep({ before }, _context, ports) {
      for (const [id, said] of Object.entries(before)) await keep(ports.records, [id], said)
      return undefined
    },
    async prove(_intent, made, _facts, ports) {
      const { to, before } = firstStep(made)
      const said = allOf(await ports.estate(), kind).filter(each => each.id in before && of(each) === to)
      const asked = Object.keys(before).length
      return [
        {
          claim: 'It is said of all of them',
          holds: said.length === asked,
          measured: { said: `${said.length}`, asked: `${asked}` },
        },
      ]
    },
    collects: () => [],
    reverse: () => undefined,
  }
}
