'use client'
import { FailedPage } from '@/ui/frame'

/** Where a page could not be read, within the frame of all pages. */
export default function Failed() {
  return <FailedPage />
}
