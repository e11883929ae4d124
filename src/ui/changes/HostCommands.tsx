import { Fragment } from 'react'
import type { LinuxCommands } from '@/core/hosts'
import { Copied } from '../parts/Copied'

/** A command whose words stay whole at the end of a line: a name broken at a hyphen reads as two. */
const Unbroken = ({ command }: { readonly command: string }) =>
  command.split(' ').map((word, index) => (
    <Fragment key={index}>
      {index > 0 && ' '}
      <span className="whitespace-nowrap">{word}</span>
    </Fragment>
  ))

/** The exact commands for a Linux host, in their order; each is copied by a click. */
export function HostCommands({ commands }: { readonly commands: LinuxCommands }) {
  return (
    <section aria-label="Commands for a Linux host">
      <h3>
        On a Linux host <span>click to copy</span>
      </h3>
      <ol className="m-0 list-none p-0">
        {commands.steps.map((step, index) => (
          <li key={step.words} className="mb-2">
            <div className="text-second">
              {index + 1}. {step.words}
            </div>
            <div className="border-l border-rule pl-3">
              {step.commands.map(command => (
                <div key={command}>
                  <Copied text={command} shown={<Unbroken command={command} />} />
                </div>
              ))}
            </div>
          </li>
        ))}
      </ol>
    </section>
  )
}
