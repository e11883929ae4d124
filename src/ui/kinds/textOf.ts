import type { FileService, ListColumn, Share } from '@/core/estate'
import { formatBitsPerSecond, formatBytes } from '@/core/units'

/** A field's value as a reader sees it; empty where nothing is stated. @param nameOf the name of what an id refers to */
export function textOf(value: unknown, as: ListColumn['as'], nameOf: (id: string) => string | undefined): string {
  if (value === null || value === undefined) return ''
  switch (as) {
    case 'bytes':
      return formatBytes(BigInt(value as string))
    case 'bits a second':
      return formatBitsPerSecond(Number(value))
    case 'up or down':
      return value === true ? 'up' : 'down'
    case 'instant':
      return `${String(value as string)
        .slice(0, 19)
        .replace('T', ' ')} UTC`
    case 'name of':
      return nameOf(String(value as string)) ?? ''
    case 'count':
      return Array.isArray(value) ? `${value.length}` : plainText(value)
    case 'instances':
      return (value as FileService['instances'])
        .map(({ address, standsOn }) => `${address} ${standsOn === null ? 'answers nowhere' : `on ${standsOn}`}`)
        .join(', ')
    case 'rules':
      return (value as Share['rules']).map(({ client, access }) => `${client} ${access}`).join(', ') || 'no host'
    default:
      return plainText(value)
  }
}

function plainText(value: NonNullable<unknown>): string {
  if (typeof value === 'boolean') return value ? 'yes' : 'no'
  if (Array.isArray(value) && value.every(each => typeof each !== 'object')) return value.join(', ')
  return typeof value === 'object' ? JSON.stringify(value) : String(value as string | number)
}
