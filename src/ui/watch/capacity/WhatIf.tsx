'use client'
import { useState } from 'react'
import { asItIs, groupBytes, limitRatio, reachesAfter, reliefOf, type Outlook, type Supposed } from '@/core/capacity'
import type { Pool } from '@/core/estate'
import { formatBytes } from '@/core/units'
import { Fold } from '../../parts/Fold'
import { NumberField } from '../../parts/NumberField'
import { dueRange, dueWords } from './dueWords'

interface WhatIfProps {
  readonly pool: Pool
  readonly outlook: Outlook
}

/** When the limit would be reached if things came otherwise; nothing is changed by it. */
export function WhatIf({ pool, outlook }: WhatIfProps) {
  const [supposed, suppose] = useState(asItIs)
  const relief = reliefOf(pool, outlook, supposed)
  const isNumber = Object.values(supposed).every(each => Number.isFinite(each))
  const then = {
    ...outlook,
    usedBytes: outlook.usedBytes - relief.bytes,
    limitBytes: outlook.limitBytes + (relief.roomBytes ?? 0) * limitRatio,
    reachesLimit: isNumber ? reachesAfter(outlook, relief, limitRatio) : outlook.reachesLimit,
  }
  const range = dueRange(then)
  return (
    <Fold title="What if …" className="mt-3">
      <div className="mt-2 grid grid-cols-2 gap-x-3">
        <Questions pool={pool} supposed={supposed} suppose={suppose} />
      </div>
      <p className="mt-0" aria-live="polite">
        {isNumber ? (
          <>
            Nine tenths would be written: <b>{dueWords(then)}</b>
            {range !== undefined && <span className="mono text-second"> {range}</span>}
          </>
        ) : (
          'Give whole numbers: then the day is told.'
        )}
      </p>
    </Fold>
  )
}

interface QuestionsProps {
  readonly pool: Pool
  readonly supposed: Supposed
  readonly suppose: (supposed: Supposed) => void
}

const mostGroups = 100
const mostGrowth = 1000

function Questions({ pool, supposed, suppose }: QuestionsProps) {
  const field = (name: keyof Supposed, label: string, hint: string, most: number) => (
    <NumberField
      label={label}
      hint={hint}
      value={supposed[name]}
      least={0}
      most={most}
      onChange={value => suppose({ ...supposed, [name]: value })}
    />
  )
  const each = groupBytes(pool)
  const size = pool.groupSizes[0] ?? 0
  return (
    <>
      {each > 0 &&
        field(
          'groups',
          'Groups of drives more',
          `of ${size} drives: ${formatBytes(BigInt(Math.round(each)))} each`,
          mostGroups,
        )}
      {field('goneTebibytes', 'Gone at once (TiB)', 'deleted, or moved elsewhere', 1_000_000)}
      {field('growthPercent', 'Growth (percent)', '100 goes on as it is', mostGrowth)}
      {field('sparedPercent', 'Spared by reduction (percent)', 'of what is written from now on', 100)}
    </>
  )
}
