/** As JSON has it: bytes as decimal text, which is what further pages bring. */
export const plain = <T>(value: T): T =>
  JSON.parse(JSON.stringify(value, (_, each: unknown) => (typeof each === 'bigint' ? `${each}` : each))) as T
