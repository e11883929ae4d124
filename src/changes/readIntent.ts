import Ajv from 'ajv/dist/2020.js'
import type { ValidateFunction } from 'ajv'
import { IntentRefused } from './errors'
import { kindNamed } from './register'

const ajv = new Ajv({
  allErrors: true,
  strictTuples: false,
  formats: { bytes: true, uuid: true, uri: true, 'date-time': true },
})
const compiled = new Map<string, ValidateFunction>()

/** Checks an intent against its kind's schema; nothing is planned before. @throws {IntentRefused | UnknownKind} */
export function readIntent(kindName: string, intent: unknown): Readonly<Record<string, unknown>> {
  const isIntent = compiled.get(kindName) ?? ajv.compile(kindNamed(kindName).intentSchema)
  compiled.set(kindName, isIntent)
  if (isIntent(intent)) return intent as Readonly<Record<string, unknown>>
  const faults = (isIntent.errors ?? []).map(error => ({
    field:
      error.instancePath.slice(1).replaceAll('/', '.') ||
      String(error.params['missingProperty'] ?? error.params['additionalProperty'] ?? ''),
    why: error.message ?? 'is wrong',
  }))
  throw new IntentRefused(kindName, faults)
}
