import { draftAddress, type IntentKind } from '../intents'
import type { Finding } from './Finding'

/**
 * The change that would mend something, and where it is drafted.
 * @param hints what the form begins with though the intent does not say it
 */
export function mending(
  kind: IntentKind,
  intent: Readonly<Record<string, unknown>>,
  hints: Readonly<Record<string, string | number>> = {},
): NonNullable<Finding['draft']> {
  const more = Object.entries(hints).map(([name, value]) => `&${name}=${encodeURIComponent(value)}`)
  return { kind: kind.kind, intent, href: `${draftAddress(kind, intent) ?? ''}${more.join('')}` }
}
