'use client'
import Link from 'next/link'
import { usePathname } from 'next/navigation'

/** The words under a title that lead to its parts. */
export function SubSections({ of }: { readonly of: readonly { readonly href: string; readonly words: string }[] }) {
  const path = usePathname()
  return (
    <nav aria-label="Parts" className="flex flex-wrap gap-x-4 gap-y-1">
      {of.map(each => (
        <Link
          key={each.href}
          href={each.href}
          aria-current={path === each.href ? 'page' : undefined}
          className={`no-underline ${path === each.href ? 'border-b border-ink text-ink' : 'text-second hover:text-ink'}`}
        >
          {each.words}
        </Link>
      ))}
    </nav>
  )
}
