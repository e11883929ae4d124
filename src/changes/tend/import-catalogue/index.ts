import { importCatalogueIntent, type ImportCatalogueIntent as Intent } from '@/core/intents'
import Ajv from 'ajv/dist/2020.js'
import { formats } from '@/core/input'
import { catalogueSchema, type Catalogue, type Estate } from '@/core/estate'
import type { Plan, PlanCheck } from '@/core/plan'
import type { ChangeKind } from '../../ChangeKind'
import { advise, must } from '../../parts/checks'
import { outlined } from '../../parts/outline'

interface Step {
  readonly step: 'keep'
  readonly catalogue: Catalogue | null
}
const isCatalogue = new Ajv({
  allErrors: false,
  formats,
}).compile<Catalogue>(catalogueSchema)

export const importCatalogue: ChangeKind<Intent, Step> = {
  ...importCatalogueIntent,
  needs: () => [],
  plan,
  async runStep({ catalogue }, { key }, ports) {
    if (catalogue !== null) await ports.records.keepCatalogue(catalogue, ports.madeBy, key)
    return {}
  },
  async undoStep(_, { key }, ports) {
    await ports.records.dropCatalogue(key)
    return undefined
  },
  async prove(_, made, __, ports) {
    const maker = made.steps[0]?.step.catalogue?.maker
    const planned = made.steps[0]?.step.catalogue
    const kept = (await ports.estate()).catalogues.find(each => each.maker === maker)
    return [
      {
        claim: 'The newest catalogue of its maker is on record',
        holds:
          kept !== undefined && kept.issuedAt === planned?.issuedAt && kept.entries.length === planned.entries.length,
        measured: { maker: maker ?? '', entries: `${kept?.entries.length ?? 0}`, issuedAt: kept?.issuedAt ?? '' },
      },
    ]
  },
  collects: (_, estate) => estate.systems.map(system => system.id),
  reverse: () => undefined,
}

/** Reads the file: the catalogue, or the rule that it breaks and where. */
function readCatalogue(text: string): { readonly catalogue: Catalogue } | { readonly why: string } {
  if (text.trim() === '') return { why: 'Choose a catalogue file.' }
  let body: unknown
  try {
    body = JSON.parse(text)
  } catch {
    return { why: 'The file is not JSON.' }
  }
  if (isCatalogue(body)) return { catalogue: body }
  const [first] = isCatalogue.errors ?? []
  const at =
    first?.instancePath === '' || first === undefined ? 'the file' : first.instancePath.slice(1).replaceAll('/', '.')
  const extra =
    first?.keyword === 'additionalProperties'
      ? `: "${String((first.params as { additionalProperty?: string }).additionalProperty)}"`
      : ''
  const allowed =
    first?.keyword === 'const' ? ` (${String((first.params as { allowedValue?: unknown }).allowedValue)})` : ''
  return { why: `In ${at}: ${first?.message ?? 'it breaks the format'}${extra}${allowed}.` }
}

function plan(estate: Estate, { text }: Intent): Plan<Step> {
  const read = readCatalogue(text)
  const catalogue = 'catalogue' in read ? read.catalogue : null
  const known = estate.catalogues.find(each => each.maker === catalogue?.maker)
  const checks: PlanCheck[] = [
    must(
      'format',
      catalogue !== null,
      'why' in read
        ? read.why
        : `${catalogue?.entries.length ?? 0} versions from ${catalogue?.maker ?? ''}, issued ${catalogue?.issuedAt.slice(0, 10) ?? ''}.`,
      {
        field: 'text',
        remedy: 'Nothing was imported. Ask its maker for a file of format wendrel-firmware-catalogue-1.',
      },
    ),
    ...(catalogue === null || known === undefined
      ? []
      : [
          advise(
            'newer',
            known.issuedAt < catalogue.issuedAt,
            'It is newer than the one on record.',
            `The one on record was issued ${known.issuedAt.slice(0, 10)} and stays the newest.`,
            { field: 'text' },
          ),
        ]),
  ]
  return outlined<Step>(estate, {
    title: `Import the firmware catalogue${catalogue === null ? '' : ` of ${catalogue.maker}`}`,
    checks,
    undo: { possible: true, how: 'The catalogue can be dropped; the one before it counts again.' },
    steps: [{ step: { step: 'keep', catalogue }, words: 'Keep it, and compare what runs with it', seconds: 0.2 }],
    reads: [],
    claims: [],
    proof: 'The record is read again.',
  })
}
