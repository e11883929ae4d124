'use client'
import { Dialog } from 'radix-ui'
import { keys } from './keys'

interface KeyListProps {
  readonly isOpen: boolean
  readonly onOpenChange: (isOpen: boolean) => void
}

/** The list of keys. */
export default function KeyList({ isOpen, onOpenChange }: KeyListProps) {
  return (
    <Dialog.Root open={isOpen} onOpenChange={onOpenChange}>
      <Dialog.Portal>
        <Dialog.Overlay className="dialog-veil" />
        <Dialog.Content className="dialog p-5" aria-describedby={undefined}>
          <Dialog.Title asChild>
            <h2 className="mb-2">Keys</h2>
          </Dialog.Title>
          <table className="plain">
            <tbody>
              {keys.map(([key, words]) => (
                <tr key={key}>
                  <td className="w-[130px]">
                    <kbd>{key}</kbd>
                  </td>
                  <td>{words}</td>
                </tr>
              ))}
            </tbody>
          </table>
        </Dialog.Content>
      </Dialog.Portal>
    </Dialog.Root>
  )
}
