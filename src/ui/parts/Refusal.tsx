import type { Refusal as Said } from '@/core/errors'

/** An error as it is told everywhere: what, why, and what now. */
export function Refusal({ refusal }: { readonly refusal: Said }) {
  return (
    <div role="alert" className="refusal">
      <div className="font-semibold">{refusal.what}</div>
      <div>{refusal.why}</div>
      <div className="text-second">{refusal.remedy}</div>
    </div>
  )
}
