'use client'
import { QueryClient, QueryClientProvider } from '@tanstack/react-query'
import { useState, type ReactNode } from 'react'

/** How long a page of a list that is out of sight is kept. */
const keptMilliseconds = 60_000

/** What lists read from the server, page by page, is kept here while it is in sight and a little longer. */
export function ServerLists({ children }: { readonly children: ReactNode }) {
  const [client] = useState(
    () =>
      new QueryClient({
        // A page is read anew when the server tells that something has changed, not by the clock.
        defaultOptions: { queries: { staleTime: Infinity, gcTime: keptMilliseconds, refetchOnWindowFocus: false } },
      }),
  )
  return <QueryClientProvider client={client}>{children}</QueryClientProvider>
}
