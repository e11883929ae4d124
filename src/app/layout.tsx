import type { Metadata, Viewport } from 'next'
import { cookies } from 'next/headers'
import type { ReactNode } from 'react'
import './globals.css'

export const metadata: Metadata = {
  title: { default: 'Wendrel', template: '%s · Wendrel' },
  description: 'Storage, planned, checked, forecast, carried out and proven.',
}
export const viewport: Viewport = { width: 'device-width', initialScale: 1 }

export default async function Layout({ children }: { readonly children: ReactNode }) {
  const chosen = (await cookies()).get('theme')?.value
  // Until somebody has chosen, it is as the reader's system has it.
  const theme = chosen === 'night' || chosen === 'day' ? chosen : 'system'
  return (
    <html lang="en" data-theme={theme}>
      <body>{children}</body>
    </html>
  )
}
