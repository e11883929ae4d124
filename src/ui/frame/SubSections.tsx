'use client'
import { Link } from '../parts/Link'
import { usePathname } from 'next/navigation'

/** The words under a title that lead to its parts. */
export function SubSections({ of }: { readonly of: readonly { readonly href: string; readonly words: string }[] }) {
  const path = usePathname()
  // A page below a part belongs to it: of several, to the one that says most of its address.
  const above = of.filter(({ href }) => path === href || path.startsWith(`${href}/`))
  const part = above.reduce<string | undefined>(
    (most, { href }) => (href.length > (most?.length ?? 0) ? href : most),
    undefined,
  )
  return (
    <nav aria-label="Parts" className="flex flex-wrap gap-x-4 gap-y-1">
      {of.map(each => (
        <Link
          key={each.href}
          href={each.href}
          aria-current={path === each.href ? 'page' : part === each.href ? 'true' : undefined}
          className={`no-underline ${part === each.href ? 'border-b border-ink text-ink' : 'text-second hover:text-ink'}`}
        >
          {each.words}
        </Link>
      ))}
    </nav>
  )
}
