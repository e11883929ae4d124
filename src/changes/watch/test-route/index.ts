import type { Estate } from '@/core/estate'
import { testRouteIntent, type RouteIntent as Intent } from '@/core/intents'
import type { Plan } from '@/core/plan'
import type { ChangeKind } from '../../ChangeKind'
import { there } from '../../parts/checks'
import { firstStep } from '../../parts/known'
import { lookInto } from '../../parts/look'
import { outlined } from '../../parts/outline'
import { arrives } from '../define-route'

type Step = Readonly<{ step: 'try'; routeId: string; name: string }>

function plan(estate: Estate, intent: Intent): Plan<Step> {
  const look = lookInto(estate)
  const route = look.one('routes', intent.routeId)
  return outlined<Step>(estate, {
    title: `Test the route ${route?.name ?? '…'}`,
    checks: [there('route', route, each => `${each.name} leads to ${each.address}.`, 'Choose the route.')],
    effects: [],
    undo: { possible: false, how: 'Nothing is changed.' },
    steps:
      route === undefined
        ? []
        : [{ words: 'Send a test', seconds: 0.2, step: { step: 'try', routeId: route.id, name: route.name } }],
    reads: look.reads,
    claims: [],
    proof: 'Its receiver must take a message that says that it is a test.',
  })
}

export const testRoute: ChangeKind<Intent, Step> = {
  ...testRouteIntent,
  needs: () => [],
  plan,
  runStep: async () => ({}),
  undoStep: async () => undefined,
  prove: async (_intent, made, _facts, ports) => {
    const { routeId, name } = firstStep(made)
    return [await arrives(ports, routeId, name, `test ${routeId} ${(await ports.now()).toISOString()}`)]
  },
  collects: () => [],
  reverse: () => undefined,
}
