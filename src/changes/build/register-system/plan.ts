import type { RegisterSystemIntent as Intent } from '@/core/intents'
import { byId, nameCheck, type Estate } from '@/core/estate'
import type { Effect, Plan, PlanCheck } from '@/core/plan'
import { absent, must, there } from '../../parts/checks'
import { outlined } from '../../parts/outline'
import type { Step } from './steps'

/** Seconds to read one drive's or volume's resource, as a first guess. */
const secondsByObject = 0.0005
const secondsAtLeast = 0.25

export function plan(estate: Estate, intent: Intent): Plan<Step> {
  const probe = byId(estate.probes, intent.probeId)
  const driveCount = (probe?.drives ?? []).reduce((sum, kind) => sum + kind.count, 0)
  return outlined<Step>(estate, {
    title: `Register ${intent.name === '' ? 'a system' : intent.name}`,
    checks: checksOf(estate, intent, probe),
    effects: effectsOf(estate, probe, driveCount),
    undo: { possible: true, how: 'Nothing is changed on the system itself. It can be taken out of the estate again.' },
    steps: [
      {
        words: 'Take it into the estate',
        seconds: 0.03,
        step: { step: 'enrol', probeId: intent.probeId, name: intent.name, siteId: intent.siteId },
      },
      {
        words: 'Read all that it has',
        seconds: secondsAtLeast + (driveCount + (probe?.volumes ?? 0)) * secondsByObject,
        step: { step: 'read' },
      },
    ],
    reads: [],
    claims: [`name:${intent.name}`, ...(probe === undefined ? [] : [`uuid:${probe.uuid}`])],
    proof:
      'It is asked anew who it is, and its drives are compared with what was kept, serial number by serial number.',
    suggestions: probe === undefined ? {} : { name: probe.model.toLowerCase().replace(/[^a-z0-9]+/g, '-') },
  })
}

type Probe = Estate['probes'][number]

function checksOf(estate: Estate, intent: Intent, probe: Probe | undefined): PlanCheck[] {
  const sameUuid = estate.systems.find(system => system.uuid === probe?.uuid)
  const known = sameUuid ?? estate.systems.find(system => system.address === probe?.address)
  return [
    there(
      'looked-at',
      probe,
      probe => `${probe.maker} ${probe.model}, serial ${probe.serial}, answered at ${probe.address}.`,
      'Look at its address first: what is found there is what will be registered.',
    ),
    nameCheck(intent.name, 'the system'),
    must(
      'name-free',
      !estate.systems.some(system => system.name === intent.name),
      `${intent.name === '' ? 'The name' : intent.name} is ${estate.systems.some(system => system.name === intent.name) ? 'the name of another system' : 'free'}.`,
      { field: 'name' },
    ),
    absent(
      'new',
      known,
      'It is not registered yet.',
      known =>
        `It is registered already, as ${known.name}${sameUuid === undefined ? ', by its address' : ', known by its UUID'}.`,
      { remedy: known === undefined ? '' : `Open ${known.name} instead.` },
    ),
    ...connectionChecks(probe, intent),
    must(
      'site',
      intent.siteId === '' || byId(estate.sites, intent.siteId) !== undefined,
      'The site is one of the estate.',
      { field: 'siteId' },
    ),
  ]
}

/** What has to be accepted before anything is told to the system. */
function connectionChecks(probe: Probe | undefined, intent: Intent): PlanCheck[] {
  return [
    ...(probe === undefined || probe.isEncrypted
      ? []
      : [
          must(
            'plain-http',
            intent.isPlainHttpAccepted,
            'The address is plain HTTP: name, password and everything else can be read on the way.',
            { field: 'isPlainHttpAccepted', remedy: 'Use an https address, or accept it for this system.' },
          ),
        ]),
    ...(probe?.certificateTrouble != null
      ? [
          must(
            'certificate',
            intent.acceptedFingerprint === probe.certificateFingerprint,
            `No known authority signed its certificate (${probe.certificateTrouble}). Compare the fingerprint with the one that the system shows on its own console.`,
            { field: 'acceptedFingerprint', remedy: 'Accept exactly this fingerprint.' },
          ),
        ]
      : []),
  ]
}

function effectsOf(estate: Estate, probe: Probe | undefined, driveCount: number): readonly Effect[] {
  const rawBytes = (probe?.drives ?? []).reduce((sum, kind) => sum + kind.bytes, 0n)
  return [
    {
      figure: 'systems',
      label: 'Systems in the estate',
      unit: 'count',
      before: estate.systems.length,
      after: estate.systems.length + 1,
    },
    { figure: 'rawBytes', label: 'Raw capacity it brings', unit: 'bytes', before: null, after: `${rawBytes}` },
    { figure: 'drives', label: 'Drives it brings', unit: 'count', before: null, after: driveCount },
  ]
}
