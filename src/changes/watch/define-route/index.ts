import { byId, type Estate, type Route } from '@/core/estate'
import { defineRouteIntent, type DefineRouteIntent as Intent } from '@/core/intents'
import type { Effect, Plan, PlanCheck } from '@/core/plan'
import { addressTrouble, testOf } from '@/core/telling'
import type { ChangePorts } from '@/ports'
import type { ChangeKind, Evidence } from '../../ChangeKind'
import { absent, advise, rule } from '../../parts/checks'
import { fact, firstStep } from '../../parts/known'
import { lookInto } from '../../parts/look'
import { outlined } from '../../parts/outline'

type Kept = Omit<Route, 'id' | 'revision'>
type Step = Readonly<{
  step: 'keep'
  routeId: string | null
  before: Kept | null
  after: Kept
  secretId: string | null
}>

const recipient = /^[^\s@<>,;]+@[^\s@<>,;]+$/

/** A route as the intent says it. */
function routeOf(intent: Intent): Kept {
  const isMail = intent.way === 'mail'
  const sender = intent.sender.trim()
  const userName = intent.userName.trim()
  return {
    name: intent.name.trim(),
    way: intent.way,
    address: intent.address.trim(),
    sender: isMail && sender !== '' ? sender : null,
    recipients: isMail
      ? intent.recipients
          .split(/[\s,;]+/)
          .map(each => each.trim())
          .filter(each => each !== '')
      : [],
    userName: isMail && userName !== '' ? userName : null,
  }
}

const plain = ({ id: _, revision: __, ...kept }: Route): Kept => kept

function plan(estate: Estate, intent: Intent): Plan<Step> {
  const look = lookInto(estate)
  const known = intent.routeId === '' ? undefined : look.one('routes', intent.routeId)
  const after = routeOf(intent)
  const words = `${known === undefined ? 'Define' : 'Alter'} the route ${after.name === '' ? '…' : after.name}`
  return outlined<Step>(estate, {
    title: words,
    checks: checksOf(estate, intent, after),
    effects: effectsOf(known, after),
    undo: {
      possible: true,
      how: known === undefined ? 'It can be removed again.' : 'It can be made what it was again.',
    },
    steps: [
      {
        words: 'Keep the route',
        seconds: 0.1,
        step: {
          step: 'keep',
          routeId: known?.id ?? null,
          before: known === undefined ? null : plain(known),
          after,
          secretId: intent.secretId === '' ? null : intent.secretId,
        },
      },
    ],
    reads: look.reads,
    claims: known === undefined ? [`route:${after.name}`] : [known.id],
    proof:
      'A message that says that it is a test is sent by it, and its receiver must take it. What was sent and what was answered is kept.',
  })
}

function checksOf(estate: Estate, intent: Intent, after: Kept): readonly PlanCheck[] {
  const known = byId(estate.routes, intent.routeId)
  const namesake = estate.routes.find(each => each.name === after.name && each.id !== known?.id)
  const trouble = addressTrouble(after.way, after.address)
  const bad = [...after.recipients, ...(after.sender === null ? [] : [after.sender])].find(
    each => !recipient.test(each),
  )
  return [
    rule('name', after.name !== '', 'It has a name.', 'Give it a name.', { field: 'name' }),
    absent('name-free', namesake, 'No other route has that name.', () => 'Another route has that name.', {
      field: 'name',
    }),
    rule(
      'known',
      intent.routeId === '' || known !== undefined,
      'The route is there.',
      'The route is not there any more.',
    ),
    rule('address', trouble === undefined, 'It can be told to.', trouble ?? '', { field: 'address' }),
    ...(after.way === 'mail'
      ? [
          rule(
            'recipients',
            after.recipients.length > 0 && after.sender !== null && bad === undefined,
            `It goes from ${after.sender ?? ''} to ${after.recipients.join(', ')}.`,
            bad === undefined ? 'Say from whom it comes, and to whom it goes.' : `"${bad.slice(0, 80)}" is no address.`,
            { field: after.sender === null ? 'sender' : 'recipients' },
          ),
        ]
      : []),
    ...(after.way === 'webhook' ? webhookChecks(intent, known, after) : []),
  ]
}

const webhookChecks = (intent: Intent, known: Route | undefined, after: Kept): readonly PlanCheck[] => [
  advise(
    'signed',
    intent.secretId !== '' || known !== undefined,
    'Its messages are signed by its key.',
    'Without a key its receiver cannot tell who sends.',
    { field: 'secretId' },
  ),
  advise(
    'encrypted',
    after.address.startsWith('https:'),
    'Its messages go over an encrypted connection.',
    'Its messages go in the clear: whoever reads the network between can read them.',
    { field: 'address' },
  ),
]

function effectsOf(before: Route | undefined, after: Kept): readonly Effect[] {
  const effect = (figure: string, label: string, of: (kept: Kept) => string | null): Effect => ({
    figure,
    label,
    unit: 'words',
    before: before === undefined ? null : of(before),
    after: of(after),
  })
  return [
    effect('way', 'Told by', each => each.way),
    effect('address', 'At', each => each.address),
    effect('recipients', 'To', each => each.recipients.join(', ') || null),
  ].filter(each => each.before !== null || each.after !== null)
}

/** Sends a message that says that it is a test. @param key the same each time the same proof is made */
export async function arrives(ports: ChangePorts, routeId: string, name: string, key: string): Promise<Evidence> {
  try {
    const { sent, answer } = await ports.tell(routeId, testOf(name, ports.madeBy), key)
    return { claim: `A test message is taken by the receiver of ${name}`, holds: true, measured: { answer, sent } }
  } catch (cause) {
    const why = cause instanceof Error ? cause.message : String(cause)
    return { claim: `A test message is taken by the receiver of ${name}`, holds: false, measured: { answer: why } }
  }
}

export const defineRoute: ChangeKind<Intent, Step> = {
  ...defineRouteIntent,
  needs: () => [],
  plan,
  runStep: async (step, { key }, ports) => ({
    routeId: await ports.records.keepOwn('routes', step.after, step.routeId, key, step.secretId),
  }),
  async undoStep(step, { facts }, ports) {
    if (step.before !== null) await ports.records.keepOwn('routes', step.before, step.routeId, '')
    else if (facts['routeId'] !== undefined) await ports.records.dropOwn('routes', facts['routeId'])
    return undefined
  },
  prove: async (_intent, made, facts, ports) => [
    await arrives(ports, fact(facts, 'routeId'), firstStep(made).after.name, `proof ${fact(facts, 'routeId')}`),
  ],
  collects: () => [],
  reverse: (intent, facts) =>
    intent.routeId === '' && facts['routeId'] !== undefined
      ? { kind: 'remove-route', intent: { routeId: facts['routeId'] } }
      : undefined,
}
