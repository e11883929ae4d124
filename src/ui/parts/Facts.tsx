import { Copied } from './Copied'

/** What is known of one thing, a line each; every value is copied by a click. */
export function Facts({ of }: { readonly of: readonly (readonly [string, string])[] }) {
  return (
    <table className="plain mt-2">
      <tbody>
        {of.map(([name, value]) => (
          <tr key={name}>
            <td className="text-second">{name}</td>
            <td>
              <Copied text={value} />
            </td>
          </tr>
        ))}
      </tbody>
    </table>
  )
}
