const names: readonly (readonly [number, string])[] = [
  [1e18, 'quintillion'],
  [1e15, 'quadrillion'],
  [1e12, 'trillion'],
  [1e9, 'billion'],
  [1e6, 'million'],
]

/** A small probability as odds: `about 1 in 40 million`. @param probability 0 to 1 */
export function oddsInWords(probability: number): string {
  if (!(probability > 0)) return 'not computable'
  if (probability >= 0.1) return `about ${Math.round(probability * 100)} in 100`
  const odds = 1 / probability
  if (odds >= 1e21) return 'less than 1 in a sextillion'
  const [scale, name] = names.find(([least]) => odds >= least * 0.9995) ?? [1, '']
  const figure = odds / scale
  const rounded =
    figure >= 100 ? Number(figure.toPrecision(2)) : figure >= 10 ? Math.round(figure) : Number(figure.toPrecision(2))
  return `about 1 in ${rounded.toLocaleString('en')}${name === '' ? '' : ` ${name}`}`
}
