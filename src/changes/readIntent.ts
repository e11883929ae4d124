import Ajv from 'ajv/dist/2020.js'
import type { ValidateFunction } from 'ajv'
import { formats } from '@/core/input'
import { IntentRefused } from './errors'
import { kindNamed } from './register'

// All faults at once, for a form that shows each beside its field: bodies are bounded before they come here, and so is what is told.
const ajv = new Ajv({ allErrors: true, strictTuples: false, formats })
const mostFaults = 20
const compiled = new Map<string, ValidateFunction>()

/** Checks an intent against its kind's schema; nothing is planned before. @throws {IntentRefused | UnknownKind} */
export function readIntent(kindName: string, intent: unknown): Readonly<Record<string, unknown>> {
  const isIntent = compiled.get(kindName) ?? ajv.compile(kindNamed(kindName).intentSchema)
  compiled.set(kindName, isIntent)
  if (isIntent(intent)) return intent as Readonly<Record<string, unknown>>
  const faults = (isIntent.errors ?? []).slice(0, mostFaults).map(error => ({
    field:
      error.instancePath.slice(1).replaceAll('/', '.') ||
      String(error.params['missingProperty'] ?? error.params['additionalProperty'] ?? ''),
    why: error.message ?? 'is wrong',
  }))
  throw new IntentRefused(kindName, faults)
}
