import { forecastGrowth } from '@/core/forecast'
import { packSamples, unpackSamples } from '@/core/metrics'
import { inWords, timed, under, type Figure } from './measure'

const series = 1000
const estate = 100_000
const cores = 2
const days = 120
const horizon = 90
const minutes = 30 * 24 * 60
const plainRowBytes = 60

/** Samples packed and read, and how growth is continued. */
export async function metricFigures(): Promise<Figure[]> {
  const courses = Array.from({ length: series }, (_, index) =>
    Float64Array.from(
      { length: days },
      (_, day) => 4e13 + day * (1e11 + index * 1e7) + Math.sin(day * 7.7 + index) * 3e10,
    ),
  )
  const forecast = await timed(3, () => {
    for (const bytes of courses) forecastGrowth({ firstWeekday: index(bytes), bytes }, 1e14, horizon)
  })
  const times = Float64Array.from({ length: minutes }, (_, at) => 1_777_852_800_000 + at * 60_000)
  const latency = Float64Array.from(
    { length: minutes },
    (_, at) => Math.round(800 + 200 * Math.sin(at / 229) + 40 * Math.sin(at * 7)) / 1000,
  )
  const packed = packSamples({ times, values: latency })
  const packing = await timed(5, () => packSamples({ times, values: latency }))
  const unpacking = await timed(9, () => unpackSamples(packed))
  const bytes = packed.length / minutes
  const whole = { median: (forecast.median * estate) / series / cores, best: (forecast.best * estate) / series / cores }
  return [
    under(
      `Forecast of ${estate.toLocaleString('en')} series of ${days} days on two cores, from ${series.toLocaleString('en')}`,
      whole,
      60_000,
    ),
    {
      what: '30 days of one series at a minute, packed, beside a plain row a sample',
      measured: `${bytes.toFixed(2)} bytes a sample, ${(plainRowBytes / bytes).toFixed(0)} times less (packed in ${inWords(packing.median)})`,
      wanted: 'under 2 bytes',
      holds: bytes < 2,
    },
    under('30 days of one series at a minute, unpacked', unpacking, 50),
  ]
}

/** Any weekday will do. */
const index = (bytes: Float64Array) => bytes.length % 7
