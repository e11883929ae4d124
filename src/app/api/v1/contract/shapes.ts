export const whole = { type: 'integer', minimum: 0, maximum: 2_147_483_647 }
export const text = (maxLength = 255) => ({ type: 'string', maxLength })
export const object = (properties: Readonly<Record<string, object>>, optional: readonly string[] = []) => ({
  type: 'object',
  additionalProperties: false,
  required: Object.keys(properties).filter(name => !optional.includes(name)),
  properties,
})
export const list = (items: object) => ({ type: 'array', items })
export const many = (items: object) => object({ items: list(items) })
export const digest = { type: 'string', pattern: '^[0-9a-f]{32,64}$' }
export const instant = { type: ['string', 'null'] }
