'use client'
import { useEffect, useState } from 'react'
import { hearToasts, type Toast } from '../parts/toast'
import type Listed from './ToastList'

const most = 4

/**
 * Hears what is said in passing. What shows it is read after the page itself, before anything is said: the server may be away by then;
 * where it was away then too, it is asked for again with the next words.
 */
export function Toasts() {
  const [toasts, setToasts] = useState<readonly Toast[]>([])
  const [ToastList, setList] = useState<typeof Listed>()
  useEffect(() => hearToasts(toast => setToasts(was => [...was, toast].slice(-most))), [])
  useEffect(() => {
    if (ToastList !== undefined) return
    import('./ToastList').then(
      part => setList(() => part.default),
      () => undefined,
    )
  }, [ToastList, toasts])
  return ToastList === undefined ? null : (
    <ToastList toasts={toasts} onDrop={id => setToasts(was => was.filter(each => each.id !== id))} />
  )
}
