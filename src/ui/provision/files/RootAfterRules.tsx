import { bitsFor, modeClass, modeLetters, ruleReach, squashed, type ExportRule, type FileOwner } from '@/core/access'

interface RootAfterRulesProps {
  readonly rules: readonly ExportRule[]
  readonly root: FileOwner
}

const shownRules = 5
const classes = ['owner', 'group', 'other', 'uid 0'] as const
/** Somebody of each class: neither owner nor group is 0 or anonymous here. */
const somebodyOf = (of: (typeof classes)[number], root: FileOwner) =>
  of === 'owner'
    ? { uid: root.uid, gid: -2, groups: [] }
    : of === 'group'
      ? { uid: -3, gid: root.gid, groups: [] }
      : of === 'other'
        ? { uid: -3, gid: -2, groups: [] }
        : { uid: 0, gid: 0, groups: [] }

/** Those that let somebody in. */
function openRules(rules: readonly ExportRule[]) {
  const reach = ruleReach(rules)
  return rules.flatMap((rule, index) =>
    rule.access === 'none' || reach[index]?.isNeverReached === true ? [] : [{ rule, index }],
  )
}

/** What each class may do with the root directory behind each rule: the stricter of both counts. */
export function RootAfterRules({ rules, root }: RootAfterRulesProps) {
  const open = openRules(rules).slice(0, shownRules)
  return (
    <>
      <h3>
        Root directory, after the rules{' '}
        <span>
          the stricter counts · <s className="text-now">w</s> taken by a rule
        </span>
      </h3>
      <table className="plain">
        <thead>
          <tr>
            <th>Class</th>
            <th>
              Mode <span className="mono">{root.mode}</span>
            </th>
            {open.map(({ index }) => (
              <th key={index}>rule {index + 1}</th>
            ))}
          </tr>
        </thead>
        <tbody>
          {classes.map(of => (
            <tr key={of}>
              <td>{of === 'owner' ? `owner, uid ${root.uid}` : of === 'group' ? `group, gid ${root.gid}` : of}</td>
              <td className="mono">{of === 'uid 0' ? 'passes' : modeLetters(root.mode, of)}</td>
              {open.map(({ rule, index }) => (
                <td key={index}>
                  <Behind rule={rule} root={root} of={of} />
                </td>
              ))}
            </tr>
          ))}
        </tbody>
      </table>
    </>
  )
}

function Behind({
  rule,
  root,
  of,
}: {
  readonly rule: ExportRule
  readonly root: FileOwner
  readonly of: (typeof classes)[number]
}) {
  const before = somebodyOf(of, root)
  const effective = squashed(rule, before)
  const counts = modeClass(effective, root)
  const letters = counts === 'superuser' ? 'rwx' : modeLetters(root.mode, counts)
  const isWriteTaken = rule.access === 'ro' && (bitsFor(root.mode, counts) & 2) !== 0
  const isOther = effective.uid !== before.uid && counts !== 'superuser'
  return (
    <span className="mono">
      {letters[0]}
      {isWriteTaken ? <s className="text-now">w</s> : letters[1]}
      {letters[2]}
      {isOther && <span className="ml-1 font-sans text-sm text-second">as {counts}</span>}
    </span>
  )
}
