import { useRef, useState } from 'react'
import { readAll, readRange } from './useServerPages'

interface Chosen<Row> {
  readonly path: string
  readonly question: string
  readonly total: number
  readonly rowAt: (index: number) => Row | undefined
  readonly idOf: (row: Row) => string
}

/** Which rows of a list are chosen, also those that are out of sight. */
export interface Choice<Row> {
  readonly chosen: readonly Row[]
  readonly isChosen: (id: string) => boolean
  /** Chooses a row or takes it out; with `isRange`, all rows from the last one touched as well, read where they are not at hand. */
  readonly choose: (index: number, isRange: boolean) => Promise<void>
  readonly chooseAll: (isOn: boolean) => Promise<void>
}

export function useChosen<Row>({ path, question, rowAt, idOf }: Chosen<Row>): Choice<Row> {
  const [chosen, setChosen] = useState<ReadonlyMap<string, Row>>(new Map())
  const last = useRef<number>(undefined)
  const between = async (from: number, to: number): Promise<readonly Row[]> => {
    const atHand = Array.from({ length: to - from + 1 }, (_, index) => rowAt(from + index))
    const rows = atHand.filter(row => row !== undefined)
    return rows.length === atHand.length ? rows : ((await readRange<Row>(path, question, from, to)) ?? rows)
  }
  const choose = async (index: number, isRange: boolean) => {
    const row = rowAt(index)
    if (row === undefined) return
    const other = isRange ? (last.current ?? index) : index
    last.current = index
    const isOn = !chosen.has(idOf(row))
    const touched = await between(Math.min(index, other), Math.max(index, other))
    setChosen(was => {
      const next = new Map(was)
      for (const each of touched) {
        if (isOn) next.set(idOf(each), each)
        else next.delete(idOf(each))
      }
      return next
    })
  }
  const chooseAll = async (isOn: boolean) => {
    if (!isOn) return setChosen(new Map())
    const all = await readAll<Row>(path, question)
    if (all !== undefined) setChosen(new Map(all.items.map(row => [idOf(row), row])))
  }
  return { chosen: [...chosen.values()], isChosen: id => chosen.has(id), choose, chooseAll }
}
