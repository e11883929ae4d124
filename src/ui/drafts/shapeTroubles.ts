import type { ErrorObject } from 'ajv'

type Shape = ((intent: object) => boolean) & { readonly errors?: readonly ErrorObject[] | null }

/** What is wrong with the shape of an intent, in words, by the field in which it is. */
export type Troubles = Readonly<Record<string, string>>

/**
 * Checks an intent against the schema of its kind, before anything is sent.
 * The schemas come compiled, and only when the first draft is opened: nothing may be evaluated in the browser.
 */
export async function shapeTroubles(kind: string, intent: object): Promise<Troubles> {
  const shapes = (await import('./shapes')) as unknown as Readonly<Record<string, Shape>>
  const shape = shapes[kind.replaceAll('-', '_')]
  if (shape === undefined || shape(intent)) return {}
  return Object.fromEntries((shape.errors ?? []).map(error => [fieldOf(error), wordsOf(error)]).reverse())
}

/** The field of the intent that an error lies in, however deep. */
const fieldOf = ({ instancePath, params }: ErrorObject): string =>
  instancePath.split('/')[1] ?? String((params as Record<string, unknown>)['missingProperty'] ?? '')

function wordsOf({ keyword, params }: ErrorObject): string {
  const { limit, type } = params as { readonly limit?: number; readonly type?: string | readonly string[] }
  switch (keyword) {
    case 'maxLength':
      return `It has at most ${limit} characters.`
    case 'minLength':
      return `It has at least ${limit} characters.`
    case 'maxItems':
      return `At most ${limit} can be chosen.`
    case 'minimum':
      return `Give ${limit} or more.`
    case 'maximum':
      return `Give ${limit} or less.`
    case 'type':
      if (/integer/.test(String(type))) return 'Give a whole number.'
      return /number/.test(String(type)) ? 'Give a number, such as 0.5.' : 'Fill this in.'
    case 'format':
      return 'Choose one.'
    default:
      return 'It is not as it has to be.'
  }
}
