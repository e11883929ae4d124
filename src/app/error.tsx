'use client'
import { FailedPage } from '@/ui/frame'

/** Where not even the frame around the pages could be read. */
export default function Failed() {
  return <FailedPage />
}
