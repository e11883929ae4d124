import { enrolSystem, keepProbe } from '../inventory'
import type { Scope } from '../database'

const sampleFound = {
  address: 'http://a',
  isEncrypted: false,
  certificateFingerprint: null,
  certificateTrouble: null,
  uuid: 'u',
  maker: 'm',
  model: 'x',
  serial: 's',
  firmware: '1',
  redfishVersion: '1',
  controllers: 0,
  enclosures: 1,
  drives: [],
  pools: 1,
  volumes: 3,
}

/** Looks at a made-up system and takes it into the estate. @returns its id and that of the look */
export async function enrolled(scope: Scope, key: Buffer, name: string) {
  const access = {
    protocol: 'redfish',
    address: 'http://a',
    acceptedFingerprint: null,
    userName: 'admin',
    password: 'open sesame',
    uuid: name,
  }
  const probeId = await keepProbe(scope, key, { ...sampleFound, uuid: name }, access, 'tester')
  return { probeId, systemId: await enrolSystem(scope, key, probeId, name, null, `key of ${name}`) }
}
