import { scaleLinear } from 'd3-scale'

/** Levels of bytes that are round in the unit in which they are read. */
export function roundLevels([low = 0, high = 1]: readonly number[], count: number): number[] {
  const unit = [2 ** 50, 2 ** 40, 2 ** 30, 2 ** 20, 2 ** 10].find(each => high >= each) ?? 1
  return scaleLinear([low / unit, high / unit], [0, 1])
    .ticks(count)
    .map(level => level * unit)
}
