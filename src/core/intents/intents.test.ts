import { existsSync } from 'node:fs'
import { join } from 'node:path'
import Ajv from 'ajv/dist/2020.js'
import { kindList } from '../estate'
import { formats } from '../input'
import {
  blankIntent,
  boundsOf,
  commandAddress,
  createPoolIntent,
  draftAddress,
  intentNamed,
  intents,
  renameVolumeIntent,
} from '.'

const ajv = new Ajv({ strict: false, formats })
const properties = (kind: { readonly intentSchema: object }) =>
  Object.keys((kind.intentSchema as { properties: object }).properties)

test('kinds have names of their own, and are found by them', () => {
  expect(new Set(intents.map(each => each.kind)).size).toBe(intents.length)
  for (const each of intents) expect(intentNamed(each.kind)).toBe(each)
  expect(intentNamed('make-coffee')).toBeUndefined()
})

test.each(intents.map(each => [each.kind, each] as const))('what is said of %s is of its schema', (_, each) => {
  expect(() => ajv.compile(each.intentSchema)).not.toThrow()
  const fields = properties(each)
  const inPlace = [...(each.place ?? '').matchAll(/\{(\w+)\}/g)].map(([, field]) => field)
  expect(
    [...inPlace, ...(each.form?.fields.map(({ field }) => field) ?? [])].filter(field => !fields.includes(field ?? '')),
  ).toEqual([])
  expect(Object.keys(blankIntent(each)).every(field => fields.includes(field))).toBe(true)
  // What has a place on an object's page is drawn there or has its form.
  expect(each.offer === undefined || each.form !== undefined).toBe(true)
})

test.each(intents.flatMap(each => [each.place ?? '', each.begins ?? '']).filter(Boolean))(
  '%s is the address of a page',
  place => {
    const path = place.split('?')[0]?.replace(/\{(systemId|volumeId)\}/, '[id]') ?? ''
    const isKindPage = kindList.some(each => each.list?.place === path)
    expect(isKindPage || existsSync(join(process.cwd(), 'src/app/(signed)', path, 'page.tsx'))).toBe(true)
  },
)

test('an address says what is drafted and about what, whatever stands in the intent', () => {
  const id = '0190b5a0-0000-7000-8000-000000000001'
  expect(draftAddress(renameVolumeIntent, { volumeId: id }, 'c1')).toBe(
    `/provision?sel=${id}&draft=rename-volume&change=c1`,
  )
  expect(draftAddress(renameVolumeIntent, { volumeId: 'x&sel=y#z' })).toBe(
    '/provision?sel=x%26sel%3Dy%23z&draft=rename-volume',
  )
  expect(draftAddress(renameVolumeIntent, {})).toBe('/provision?sel=&draft=rename-volume')
  const named = (kind: string) => intentNamed(kind) ?? renameVolumeIntent
  expect(draftAddress(named('set-locate-light'), { driveIds: ['d1', 'd2'] })).toBe(
    '/build/drives?drive=d1&draft=set-locate-light',
  )
  const placeless = { ...renameVolumeIntent, place: undefined }
  expect(draftAddress(placeless, { volumeId: id })).toBeUndefined()
  expect(commandAddress(named('register-host'))).toBe('/provision/hosts?draft=register-host')
  expect(commandAddress(named('form-cluster'))).toBe('/build/clusters')
  expect(commandAddress(named('map-volume'))).toBeUndefined()
})

test('a blank intent has every field that must be there; texts know how long they may be', () => {
  expect(blankIntent(renameVolumeIntent)).toEqual({ volumeId: '', name: '' })
  expect(boundsOf(renameVolumeIntent, 'name').maxLength).toBe(255)
  expect(boundsOf(createPoolIntent, 'maxGroupDrives')).toMatchObject({ minimum: 1, maximum: 64 })
  expect(boundsOf(renameVolumeIntent, 'none')).toEqual({})
})
