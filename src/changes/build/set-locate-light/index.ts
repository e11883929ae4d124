import { setLocateLightIntent, type SetLocateLightIntent as Intent } from '@/core/intents'
import { suffixOf, type Estate, within } from '@/core/estate'
import type { Plan, PlanCheck } from '@/core/plan'
import type { ChangeKind } from '../../ChangeKind'
import { answers, must } from '../../parts/checks'
import { outlined, type Outlined } from '../../parts/outline'
import { lookInto } from '../../parts/look'

interface Step {
  readonly step: 'switch'
  readonly systemId: string
  readonly driveLocators: readonly string[]
  readonly isOn: boolean
}

export const setLocateLight: ChangeKind<Intent, Step> = {
  ...setLocateLightIntent,
  needs: ({ systemId }) => within(systemId),
  plan,
  async runStep(step, _, ports) {
    const drives = await ports.of(step.systemId, 'drives')
    for (const locator of step.driveLocators) await drives.setLight(locator, step.isOn)
    return {}
  },
  async undoStep(step, _, ports) {
    const drives = await ports.of(step.systemId, 'drives')
    for (const locator of step.driveLocators) await drives.setLight(locator, !step.isOn)
    return undefined
  },
  async prove({ systemId, isOn }, made, _, ports) {
    const drives = await ports.of(systemId, 'drives')
    const locators = made.steps[0]?.step.driveLocators ?? []
    const now = await Promise.all(locators.map(locator => drives.isLit(locator)))
    return [
      {
        claim: `The lights are ${isOn ? 'on' : 'off'}, as the system states them`,
        holds: now.length > 0 && now.every(each => each === isOn),
        measured: { drives: `${now.length}` },
      },
    ]
  },
  collects: ({ systemId }) => [systemId],
  reverse: ({ systemId, driveIds, isOn }) => ({
    kind: 'set-locate-light',
    intent: { systemId, driveIds, isOn: !isOn },
  }),
}

/** What the plan looks at, and what follows from it. */
function see(estate: Estate, intent: Intent) {
  const look = lookInto(estate)
  const system = look.one('systems', intent.systemId)
  const drives = intent.driveIds.flatMap(id => look.one('drives', id) ?? [])
  const words = `${drives.length === 1 ? `drive ${suffixOf(drives[0]?.serial ?? '')}` : `${drives.length} drives`}`
  return { drives, intent, look, system, words }
}
type Seen = ReturnType<typeof see>

function plan(estate: Estate, intent: Intent): Plan<Step> {
  const seen = see(estate, intent)
  const { look, words } = seen

  return outlined<Step>(estate, {
    title: `Switch the light ${intent.isOn ? 'on' : 'off'} at ${words}`,
    checks: checksOf(seen),
    undo: { possible: true, how: 'It can be switched back.' },
    steps: stepsOf(seen),
    reads: look.reads,
    claims: [],
    proof: 'The system is asked what the lights show.',
  })
}

function checksOf({ drives, intent, system, words }: Seen): readonly PlanCheck[] {
  return [
    ...(system === undefined ? [must('system', false, 'Choose drives.', { field: 'driveIds' })] : [answers(system)]),
    must(
      'drives',
      drives.length > 0 && drives.length === intent.driveIds.length,
      drives.length === intent.driveIds.length && drives.length > 0 ? `${words}.` : 'Some chosen drives are gone.',
      { field: 'driveIds' },
    ),
  ]
}

function stepsOf({ drives, intent }: Seen): Outlined<Step>[] {
  return [
    {
      step: {
        step: 'switch',
        systemId: intent.systemId,
        driveLocators: drives.map(drive => drive.locator),
        isOn: intent.isOn,
      },
      words: `Switch the light ${intent.isOn ? 'on' : 'off'}`,
      seconds: 0.3 + 0.05 * drives.length,
    },
  ]
}
