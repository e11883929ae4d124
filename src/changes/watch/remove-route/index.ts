import { byId, type Estate } from '@/core/estate'
import { removeRouteIntent, type RouteIntent as Intent } from '@/core/intents'
import type { Plan } from '@/core/plan'
import type { ChangeKind } from '../../ChangeKind'
import { advise, there } from '../../parts/checks'
import { lookInto } from '../../parts/look'
import { outlined } from '../../parts/outline'

type Step = Readonly<{ step: 'remove'; routeId: string }>

function plan(estate: Estate, intent: Intent): Plan<Step> {
  const look = lookInto(estate)
  const route = look.one('routes', intent.routeId)
  const telling = estate.rules.filter(({ routeIds }) => route !== undefined && routeIds.includes(route.id))
  const silent = telling.filter(({ routeIds }) => routeIds.length === 1)
  look.at('rules', telling)
  return outlined<Step>(estate, {
    title: `Remove the route ${route?.name ?? '…'}`,
    checks: [
      there('route', route, each => `${each.name} is there.`, 'Choose the route.'),
      advise(
        'others',
        silent.length === 0,
        'Every rule tells somebody else besides.',
        `${silent.map(({ name }) => name).join(', ')} will tell nobody.`,
      ),
    ],
    effects: [{ figure: 'rules', label: 'Rules that tell there', unit: 'count', before: telling.length, after: 0 }],
    undo: { possible: false, how: 'It can be defined again.' },
    steps:
      route === undefined
        ? []
        : [{ words: `Remove ${route.name}`, seconds: 0.1, step: { step: 'remove', routeId: route.id } }],
    reads: look.reads,
    claims: route === undefined ? [] : [route.id],
    proof: 'The records are read again.',
  })
}

export const removeRoute: ChangeKind<Intent, Step> = {
  ...removeRouteIntent,
  needs: () => [],
  plan,
  async runStep({ routeId }, _context, ports) {
    await ports.records.dropRoute(routeId)
    return {}
  },
  undoStep: async () => 'The route is removed.',
  async prove({ routeId }, _plan, _facts, ports) {
    const { routes, rules } = await ports.estate()
    const left = rules.filter(({ routeIds }) => routeIds.includes(routeId)).length
    return [
      {
        claim: 'The route is gone, and no rule tells there',
        holds: byId(routes, routeId) === undefined && left === 0,
        measured: { rulesLeft: `${left}` },
      },
    ]
  },
  collects: () => [],
  reverse: () => undefined,
}
