import type { ArrayModel } from '../array'
import { seededHex, seededUuid } from '../fleet'
import type { HostModel } from '../host'

/** The arrays and hosts of the museum. Every name is invented. */
const seed = 'marrowfield'

const model = (
  name: string,
  maker: string,
  product: string,
  site: string,
  firmware: string,
  subnet: number,
  rest: Pick<ArrayModel, 'enclosures' | 'servesFiles'>,
): ArrayModel => ({
  name,
  maker,
  model: product,
  serial: seededHex(seed, name, 10).toUpperCase(),
  uuid: seededUuid(seed, name),
  firmware,
  site,
  userName: 'admin',
  password: `${name}-demo`,
  controllers: ['A', 'B'],
  ports: ['A', 'B'].flatMap(controller =>
    [1, 2].map(number => ({
      id: `${controller}${number}`,
      controller,
      speedGbps: 25,
      address: `10.60.${subnet}.${(controller === 'A' ? 10 : 20) + number}`,
      target: `iqn.2019-04.example.marrowfield:${name}.${controller.toLowerCase()}${number}`,
    })),
  ),
  ...rest,
})

export const heron = model('heron', 'Tallis & Thorne', 'Ardea F24', 'Canal House', '4.2.1', 1, {
  enclosures: [{ id: '1', name: 'Enclosure 1', model: 'Ardea F24', heightMm: 88 }],
})

/** At the other site, paired with heron: volumes of the one are mirrored to the other. */
export const curlew = model('curlew', 'Tallis & Thorne', 'Ardea F24', 'Kiln Hill', '4.2.1', 4, {
  enclosures: [{ id: '1', name: 'Enclosure 1', model: 'Ardea F24', heightMm: 88 }],
})

export const bittern = model('bittern', 'Ferrow', 'Mire H56', 'Canal House', '7.0.3', 2, {
  servesFiles: true,
  enclosures: [
    { id: '0', name: 'Head', model: 'Mire H56', heightMm: 88 },
    ...[1, 2, 3, 4].map(number => ({ id: `${number}`, name: `Shelf ${number}`, model: 'Mire S12', heightMm: 88 })),
  ],
})

/** Nodes of the row at Kiln Hill; each is its own enclosure. */
const rowNodes = [1, 2, 3, 4, 5].map(number => `godwit-${number}`)

export const godwit: ArrayModel = {
  ...model('godwit', 'Mirefield', 'Row manager', 'Kiln Hill', '3.1.0', 3, {
    enclosures: rowNodes.map((id, index) => ({
      id,
      name: id,
      model: 'M-210',
      heightMm: 88,
      rack: index < 3 ? 'Rack K1' : 'Rack K2',
    })),
  }),
  controllers: ['1'],
  servesFiles: true,
  ports: rowNodes.map((id, index) => ({
    id,
    controller: '1',
    speedGbps: 25,
    address: `10.61.3.${11 + index}`,
    target: `iqn.2019-04.example.marrowfield:${id}`,
  })),
}

const host = (name: string, address: string, initiatorCount = 1): HostModel => ({
  name,
  addresses: [address],
  operatingSystem: 'Linux 6.1',
  initiators: Array.from(
    { length: initiatorCount },
    (_, index) => `iqn.2019-04.example.marrowfield:${name}${index === 0 ? '' : `.${index + 1}`}`,
  ),
})

export const hostModels: readonly (HostModel & { readonly group: string })[] = [
  { ...host('register-1', '10.60.30.11'), group: 'accession-register' },
  { ...host('register-2', '10.60.30.12'), group: 'accession-register' },
  { ...host('scanner-gate', '10.60.46.12'), group: 'ct-scans' },
  { ...host('desk-1', '10.60.52.21'), group: 'reading-room' },
  { ...host('tickets', '10.60.31.5'), group: 'ticket-desk' },
  { ...host('kiosk-7', '10.60.53.7', 0), group: 'kiosk' },
  { ...host('keep-1', '10.60.9.12'), group: 'backup' },
  // Stands in the hall with the visitors' network, whose names come from before the border.
  { ...host('lending-3', '10.64.7.33', 0), group: 'lending', asksOutside: true },
]
