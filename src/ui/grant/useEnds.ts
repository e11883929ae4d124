import { useChoice } from '../frame'

/** From where, to what: ids as they stand in the address. */
export interface Ends {
  readonly host: string
  readonly share: string
}

const queryOf = ({ host, share }: Ends) => new URLSearchParams({ host, share }).toString()

/** What is chosen, and the address that follows it. */
export function useEnds(inAddress: Ends) {
  const { choice, choose } = useChoice(inAddress, queryOf, 'replace')
  return { ends: choice, go: (part: Partial<Ends>) => choose(now => ({ ...now, ...part })) }
}
