import { closeSync, existsSync, mkdirSync, openSync, readFileSync, renameSync, writeFileSync, writeSync } from 'node:fs'
import { flushed } from './flushed'
import { join } from 'node:path'
import { EventEmitter } from 'node:events'

/** One entity put or removed (`value` null). Entities are plain JSON and never changed in place. */
export interface Entry {
  readonly collection: string
  readonly id: string
  readonly value: object | null
}

const snapshotAfterLines = 5000

/**
 * The fleet's state on disk: a snapshot and a journal of what came after it. A commit is on disk before it is visible, so a
 * killed process comes back as it was. A torn last line is a commit that nobody was told of, and is dropped.
 */
export class Store {
  readonly changes = new EventEmitter<{ commit: [readonly Entry[]] }>()
  readonly #collections = new Map<string, Map<string, object>>()
  readonly #folder: string
  #journal: number
  #lines = 0

  constructor(folder: string) {
    this.#folder = folder
    mkdirSync(folder, { recursive: true })
    this.#load()
    this.#journal = openSync(join(folder, 'journal.jsonl'), 'a')
  }

  /** All entities of a collection, in the order in which they were made. */
  all<T extends object>(collection: string): T[] {
    return [...(this.#collections.get(collection)?.values() ?? [])] as T[]
  }

  one<T extends object>(collection: string, id: string): T | undefined {
    return this.#collections.get(collection)?.get(id) as T | undefined
  }

  count(collection: string): number {
    return this.#collections.get(collection)?.size ?? 0
  }

  commit(entries: readonly Entry[]): void {
    if (entries.length === 0) return
    writeSync(this.#journal, `${JSON.stringify(entries)}\n`)
    flushed(this.#journal)
    this.#apply(entries)
    this.#lines += 1
    if (this.#lines >= snapshotAfterLines) this.snapshot()
    this.changes.emit('commit', entries)
  }

  put(collection: string, id: string, value: object): void {
    this.commit([{ collection, id, value }])
  }

  snapshot(): void {
    const state = Object.fromEntries(
      [...this.#collections].map(([name, entities]) => [name, Object.fromEntries(entities)]),
    )
    const next = join(this.#folder, 'snapshot.next')
    writeFileSync(next, JSON.stringify(state), { flush: process.env['WENDREL_FLUSH'] !== 'none' })
    renameSync(next, join(this.#folder, 'snapshot.json'))
    closeSync(this.#journal)
    // Entries between the rename and this truncation are in both files: applying them twice gives the same state.
    this.#journal = openSync(join(this.#folder, 'journal.jsonl'), 'w')
    this.#lines = 0
  }

  #load(): void {
    const snapshot = join(this.#folder, 'snapshot.json')
    if (existsSync(snapshot)) {
      const state = JSON.parse(readFileSync(snapshot, 'utf8')) as Record<string, Record<string, object>>
      for (const [name, entities] of Object.entries(state))
        this.#collections.set(name, new Map(Object.entries(entities)))
    }
    const journal = join(this.#folder, 'journal.jsonl')
    if (!existsSync(journal)) return
    const text = readFileSync(journal, 'utf8')
    const whole = text.slice(0, text.lastIndexOf('\n') + 1)
    for (const line of whole.split('\n')) {
      if (line === '') continue
      this.#apply(JSON.parse(line) as Entry[])
      this.#lines += 1
    }
    if (whole.length < text.length) writeFileSync(journal, whole)
  }

  #apply(entries: readonly Entry[]): void {
    for (const { collection, id, value } of entries) {
      const entities = this.#collections.get(collection) ?? new Map<string, object>()
      this.#collections.set(collection, entities)
      if (value === null) entities.delete(id)
      else entities.set(id, value)
    }
  }
}
