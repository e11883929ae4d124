import type { Drive } from '@/core/estate'

/** A drive as it stands in the intake. */
export interface IntakeRow {
  readonly drive: Drive
  readonly systemName: string
  readonly place: string
  readonly suggestion: { readonly role: 'cache' | 'capacity'; readonly why: string } | null
}
