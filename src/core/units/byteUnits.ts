/** IEC 80000-13 binary prefixes and SI decimal prefixes, in bytes; smallest first. */
export const binaryUnits = [
  ['B', 1n],
  ['KiB', 1024n],
  ['MiB', 1024n ** 2n],
  ['GiB', 1024n ** 3n],
  ['TiB', 1024n ** 4n],
  ['PiB', 1024n ** 5n],
  ['EiB', 1024n ** 6n],
] as const

export const decimalUnits = [
  ['B', 1n],
  ['kB', 1000n],
  ['MB', 1000n ** 2n],
  ['GB', 1000n ** 3n],
  ['TB', 1000n ** 4n],
  ['PB', 1000n ** 5n],
  ['EB', 1000n ** 6n],
] as const

export type UnitFamily = 'binary' | 'decimal'
