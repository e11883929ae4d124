'use client'
import { useSyncExternalStore } from 'react'
import { estateTime, type EstateClock } from '@/core/clock'

const subscribe = (changed: () => void) => {
  const timer = setInterval(changed, 1000)
  return () => clearInterval(timer)
}
const seconds = () => Math.floor(Date.now() / 1000)

/** The estate's time, and how fast it runs where that is not as the wall's. */
export function EstateTime({ clock }: { readonly clock: EstateClock }) {
  const now = useSyncExternalStore(subscribe, seconds, () => 0)
  if (now === 0) return <span className="mono w-[104px]" />
  const time = estateTime(clock, new Date())
  const words = time.toLocaleString('en-GB', { weekday: 'short', hour: '2-digit', minute: '2-digit' }).replace(',', '')
  return (
    <span className="mono whitespace-nowrap text-second" data-hint={`The systems' own clock: ${time.toLocaleString()}`}>
      {words}
      {clock.rate === 1 ? '' : ` ×${clock.rate < 10 ? clock.rate.toFixed(1) : Math.round(clock.rate)}`}
    </span>
  )
}
