'use client'
import { CircleCheck, TriangleAlert } from 'lucide-react'
import { Toaster } from 'sonner'

/** What is said in passing, at the foot of the page: that something was done, or why not. Nothing that has to be kept stands only here. */
export function Toasts() {
  return (
    <Toaster
      position="bottom-left"
      icons={{ success: <CircleCheck size={15} />, error: <TriangleAlert size={15} /> }}
      toastOptions={{ unstyled: true, classNames: { toast: 'toast', success: 'text-fine', error: 'text-now' } }}
    />
  )
}
