import type { ShareGrantEntity } from '../../array'
import { longText, text } from '../reader'

/** Who may do what over SMB, as it is asked for. */
export const grantList = {
  type: 'array',
  maxItems: 1000,
  items: {
    type: 'object',
    required: ['Who', 'Right'],
    properties: { Who: text, Name: longText, Right: { enum: ['none', 'read', 'change', 'full'] } },
  },
} as const

export interface GrantWanted {
  readonly Who: string
  readonly Name?: string
  readonly Right: ShareGrantEntity['right']
}

export const grantsIn = (wanted: readonly GrantWanted[]): ShareGrantEntity[] =>
  wanted.map(({ Who, Name = '', Right }) => ({ who: Who, name: Name, right: Right }))

export const grantsBody = (grants: readonly ShareGrantEntity[] = []): GrantWanted[] =>
  grants.map(({ who, name, right }) => ({ Who: who, Name: name, Right: right }))
