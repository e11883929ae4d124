/** A resource as it is sent. Sources: DMTF DSP8010 schema bundle, SNIA Swordfish 1.2.x. */
export type Body = Readonly<Record<string, unknown>>

export const root = '/redfish/v1'
export const link = (path: string) => ({ '@odata.id': `${root}/${path}` })
export const status = (isFine: boolean, state = 'Enabled') => ({ State: state, Health: isFine ? 'OK' : 'Critical' })

/** What every resource begins with. `path` is below the service root. */
export const resource = (path: string, type: string, id: string, name: string, rest: Body): Body => ({
  '@odata.id': path === '' ? `${root}/` : `${root}/${path}`,
  '@odata.type': `#${type}`,
  Id: id,
  Name: name,
  ...rest,
})

/** The schema's name in a versioned type: `Drive` of `Drive.v1_19_0.Drive`. */
export const schemaOf = (type: string) => type.split('.')[0] ?? type

type Reference = { readonly '@odata.id': string }
/** The last part of a reference's path: the id of what it leads to. */
export const idIn = (to: Reference | undefined) => to?.['@odata.id'].split('/').at(-1) ?? ''
