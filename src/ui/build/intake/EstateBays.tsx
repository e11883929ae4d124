'use client'
import { group } from 'd3-array'
import { useRouter } from 'next/navigation'
import { useMemo } from 'react'
import type { Drive } from '@/core/estate'
import { unpacked, type Packed } from '@/core/views'
import { BayField, type BayGroup } from '../bayField'

interface EstateBaysProps {
  /** Enclosures, each by its id. */
  readonly groups: readonly Omit<BayGroup, 'drives'>[]
  readonly drives: Packed<Drive>
  readonly selected: string | undefined
  readonly href: string
}

/** All bays of the estate; a bay opens its drive in the margin. */
export function EstateBays({ groups, drives, selected, href }: EstateBaysProps) {
  const router = useRouter()
  const filled = useMemo(() => {
    const byEnclosure = group(unpacked(drives), drive => drive.enclosureId)
    return groups.map(each => ({ ...each, drives: byEnclosure.get(each.id) ?? [] }))
  }, [groups, drives])
  return (
    <BayField
      label="Bays across all systems"
      groups={filled}
      highlighted={selected}
      onOpen={drive => router.push(`${href}drive=${drive.id}`, { scroll: false })}
    />
  )
}
