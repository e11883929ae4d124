import type { Controller, Drive, Enclosure, Pool, Port, System } from '../estate'

export interface SensorReading {
  readonly name: string
  readonly unit: string
  readonly reading: number
  readonly cautionAt: number | null
}

/** One system with all that stands in it but its volumes. */
export interface SystemPage {
  readonly system: System
  readonly siteName: string | null
  readonly controllers: readonly Controller[]
  readonly enclosures: readonly Enclosure[]
  readonly drives: readonly Drive[]
  readonly ports: readonly Port[]
  readonly pools: readonly Pool[]
  readonly sensors: readonly SensorReading[]
}
