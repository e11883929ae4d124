import { root, schemaOf } from './body'
import { services } from './resources/services'

/** Where clients find what the service's types mean. Sources: DSP0266, OData metadata and service document; OData 4.0 CSDL. */
export function metadata(types: readonly string[]): string {
  const references = [...new Set(types.map(type => type.replace(/\.[^.]+$/, '')))].map(namespace => {
    const schema = schemaOf(namespace)
    return `<edmx:Reference Uri="http://redfish.dmtf.org/schemas/v1/${schema}_v1.xml"><edmx:Include Namespace="${schema}"/><edmx:Include Namespace="${namespace}"/></edmx:Reference>`
  })
  return `<?xml version="1.0" encoding="UTF-8"?>
<edmx:Edmx xmlns:edmx="http://docs.oasis-open.org/odata/ns/edmx" Version="4.0">${references.join('')}<edmx:DataServices><Schema xmlns="http://docs.oasis-open.org/odata/ns/edm" Namespace="Service"><EntityContainer Name="Service" Extends="ServiceRoot.v1_16_0.ServiceContainer"/></Schema></edmx:DataServices></edmx:Edmx>`
}

export const serviceDocument = (isRow: boolean) => ({
  '@odata.context': `${root}/$metadata`,
  value: [
    { name: 'Service', kind: 'Singleton', url: `${root}/` },
    ...services(isRow).map(([name, path]) => ({ name, kind: 'Singleton', url: `${root}/${path}` })),
  ],
})
