import { toJson } from '@/core/input'

/** As JSON has it: bytes as decimal text, which is what further pages bring. */
export const plain = <T>(value: T): T => JSON.parse(toJson(value)) as T
