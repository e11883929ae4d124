'use client'
import { useRouter } from 'next/navigation'
import { BayField, type BayGroup } from '../bayField'

/** All bays of the estate; a bay opens its drive in the margin. */
export function EstateBays({
  groups,
  selected,
  href,
}: {
  readonly groups: readonly BayGroup[]
  readonly selected: string | undefined
  readonly href: string
}) {
  const router = useRouter()
  return (
    <BayField
      label="Bays across all systems"
      groups={groups}
      highlighted={selected}
      onOpen={drive => router.push(`${href}drive=${drive.id}`, { scroll: false })}
    />
  )
}
