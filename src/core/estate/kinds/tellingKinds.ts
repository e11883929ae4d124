import { routeSchema, ruleSchema } from '../tellingSchemas'
import type { FieldOf, ObjectKind } from './ObjectKind'

/** Who is told of what. */
export const tellingKinds: { readonly [Name in 'routes' | 'rules']: ObjectKind<Name> } = {
  routes: {
    name: 'routes',
    words: { one: 'route', many: 'routes' },
    schema: routeSchema,
    references: {},
    moving: [],
    ours: ['name', 'way', 'address', 'sender', 'recipients', 'userName'],
    order: ['name'],
    search: { by: ['name', 'address'], title: 'name', detail: 'way' },
    page: '/watch/routes?sel={id}',
    list: {
      place: '/watch/routes',
      about: 'Where somebody is told. A route is proven by a message that arrives.',
      columns: [
        { field: 'name', words: 'Route' },
        { field: 'way', words: 'Way' },
        { field: 'address', words: 'Address', as: 'identifier', isWide: true },
        { field: 'recipients', words: 'To', as: 'identifier' },
      ],
    },
  },
  rules: {
    name: 'rules',
    words: { one: 'rule', many: 'rules' },
    schema: ruleSchema,
    references: {},
    moving: [],
    ours: Object.keys(ruleSchema.properties).filter(
      field => field !== 'id' && field !== 'revision',
    ) as FieldOf<'rules'>[],
    order: ['name'],
    search: { by: ['name'], title: 'name', detail: 'subject' },
    page: '/watch/rules?sel={id}',
    list: {
      place: '/watch/rules',
      about: 'Of what somebody is told, and when. Of one cause there is one message.',
      columns: [
        { field: 'name', words: 'Rule', isWide: true },
        { field: 'subject', words: 'Of' },
        { field: 'beginsAt', words: 'From', as: 'count' },
        { field: 'minutes', words: 'After, min', as: 'count' },
      ],
    },
  },
}
