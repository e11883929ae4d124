/**
 * Where an answer first differs from what a worked case expects, in words; undefined where it agrees.
 * Strings, booleans, nulls, whole numbers and the order of lists must be the same; other numbers within the relative tolerance.
 * Fields that the case does not name are not compared.
 */
export function firstDifference(got: unknown, expected: unknown, tolerance: number, path = ''): string | undefined {
  const at = path === '' ? 'answer' : path
  const shown = (value: unknown) => JSON.stringify(value)
  const differs = `${at}: expected ${shown(expected)}, got ${shown(got)}`
  if (typeof expected === 'number') {
    if (typeof got !== 'number') return differs
    // Above 2^53 every double is whole: there it is a real number like others.
    if (Number.isSafeInteger(expected) && Number.isSafeInteger(got)) return got === expected ? undefined : differs
    return Math.abs(got - expected) <= tolerance * (expected === 0 ? 1 : Math.abs(expected)) ? undefined : differs
  }
  if (Array.isArray(expected)) {
    if (!Array.isArray(got) || got.length !== expected.length) return differs
    return firstOf(
      expected.map((entry, index) => () => firstDifference(got[index], entry, tolerance, `${path}[${index}]`)),
    )
  }
  if (typeof expected === 'object' && expected !== null) {
    if (typeof got !== 'object' || got === null) return differs
    const fields = new Map(Object.entries(got))
    return firstOf(
      Object.entries(expected).map(
        ([key, entry]) =>
          () =>
            firstDifference(fields.get(key), entry, tolerance, path === '' ? key : `${path}.${key}`),
      ),
    )
  }
  return got === expected ? undefined : differs
}

function firstOf(compare: readonly (() => string | undefined)[]): string | undefined {
  for (const one of compare) {
    const difference = one()
    if (difference !== undefined) return difference
  }
  return undefined
}
