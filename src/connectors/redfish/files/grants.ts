import type { ShareGrant } from '@/core/access'

/** Who may do what over SMB, as makers state it of a share and of a whole file service. */
export const grantList = {
  type: 'array',
  maxItems: 1000,
  items: {
    type: 'object',
    required: ['Who', 'Right'],
    properties: {
      Who: { type: 'string', minLength: 1, maxLength: 100 },
      Name: { type: 'string', maxLength: 255 },
      Right: { enum: ['none', 'read', 'change', 'full'] },
    },
  },
} as const

interface Stated {
  readonly Who: string
  readonly Name?: string
  readonly Right: ShareGrant['right']
}

export const grantsOf = (stated: readonly Stated[] = []): ShareGrant[] =>
  stated.map(({ Who, Name = '', Right }) => ({ who: Who, name: Name, right: Right }))

export const grantsPart = (grants: readonly ShareGrant[]): Stated[] =>
  grants.map(({ who, name, right }) => ({ Who: who, Name: name, Right: right }))
