'use client'
import type { Effect, ShownPlan, PlanCheck } from '@/core/plan'
import { formatBytes, formatSeconds, formatSecondsRange, oddsInWords } from '@/core/units'
import { Link } from '../parts/Link'
import { ClusterPlan } from '../build/clusters/ClusterPlan'
import { FillBar } from '../drawings/fill/FillBar'
import { Ladder } from '../drawings/ladder'
import { State } from '../parts/State'
import { Fold } from '../parts/Fold'

/** Everything that a plan says, in the order in which it is decided by: what it gives, whether it can be, what cannot be undone, how long. */
export function PlanView({
  plan,
  isSketchBeside = false,
}: {
  readonly plan: ShownPlan
  /** The sketch is drawn on the sheet already. */
  readonly isSketchBeside?: boolean
}) {
  return (
    <>
      {plan.sketch?.of === 'pool' && <Ladder title="What this gives" rungs={plan.sketch.ladder} />}
      {plan.sketch?.of === 'cluster' && !isSketchBeside && <ClusterPlan sketch={plan.sketch} />}
      {plan.sketch?.of === 'pool-fill' && <FillBar fill={plan.sketch} />}
      {plan.sketch?.of === 'pool' && <Durability {...plan.sketch.durability} />}
      {plan.effects.length > 0 && plan.sketch?.of !== 'pool' && plan.sketch?.of !== 'cluster' && (
        <Effects effects={plan.effects} />
      )}
      <Checks checks={plan.checks} />
      <Consequences plan={plan} />
    </>
  )
}

function Durability(durability: {
  survives: number
  oneYear: number
  fiveYears: number
  rebuildHours: number
  basis: string
}) {
  return (
    <table className="plain mt-1">
      <tbody>
        <tr>
          <td>Survives</td>
          <td>
            any <b>{durability.survives}</b> drive{durability.survives === 1 ? '' : 's'} of a group
          </td>
          <td className="number" />
        </tr>
        <tr>
          <td>Loss of data in 5 years</td>
          <td>{oddsInWords(durability.fiveYears)}</td>
          <td className="number">{durability.fiveYears.toExponential(1)}</td>
        </tr>
        <tr>
          <td>Rebuild of one drive</td>
          <td>{formatSeconds(durability.rebuildHours * 3600)}</td>
          <td className="number" />
        </tr>
        <tr>
          <td colSpan={3} className="hint">
            Taken: {durability.basis}.
          </td>
        </tr>
      </tbody>
    </table>
  )
}

const figure = ({ unit }: Effect, value: Effect['after']): string => {
  if (value === null) return '—'
  if (unit === 'bytes') return formatBytes(BigInt(value))
  if (unit === 'ratio') return `${(Number(value) * 100).toFixed(1)}%`
  if (unit === 'seconds') return formatSeconds(Number(value))
  if (unit === 'probability') return oddsInWords(Number(value))
  return String(value)
}

/** Figures stand one above the other and are never broken; words may be long. */
const cellOf = ({ unit }: Effect) => (unit === 'words' ? 'text-right align-top' : 'number')

function Effects({ effects }: { readonly effects: readonly Effect[] }) {
  return (
    <>
      <h3>Effects</h3>
      <table className="plain">
        <thead>
          <tr>
            <th />
            <th className="number">before</th>
            <th className="number">after</th>
          </tr>
        </thead>
        <tbody>
          {effects.map(effect => (
            <tr key={effect.figure}>
              <td>{effect.label}</td>
              <td className={`${cellOf(effect)} text-second`}>{figure(effect, effect.before)}</td>
              <td className={cellOf(effect)}>{figure(effect, effect.after)}</td>
            </tr>
          ))}
        </tbody>
      </table>
    </>
  )
}

function Checks({ checks }: { readonly checks: readonly PlanCheck[] }) {
  const holding = checks.filter(check => check.holds)
  const others = [...checks]
    .filter(check => !check.holds)
    .sort((a, b) => (a.level === b.level ? 0 : a.level === 'must' ? -1 : 1))
  return (
    <>
      <h3>
        Checks{' '}
        <span>
          {holding.length} of {checks.length} hold
        </span>
      </h3>
      <ul className="m-0 list-none p-0" aria-live="polite">
        {others.map(check => (
          <Broken key={`${check.rule}/${check.why}`} check={check} />
        ))}
      </ul>
      {holding.length > 0 && (
        <Fold
          isOpen={others.length === 0}
          title={
            <State gravity="fine">{holding.length === 1 ? 'One check holds' : `${holding.length} checks hold`}</State>
          }
        >
          <ul className="m-0 list-none p-0 pl-[17px] text-second">
            {holding.map(check => (
              <li key={`${check.rule}/${check.why}`}>{check.why}</li>
            ))}
          </ul>
        </Fold>
      )}
    </>
  )
}

const Broken = ({ check }: { readonly check: PlanCheck }) => (
  <li className="mb-1" data-check={check.rule}>
    <State gravity={check.level === 'must' ? 'now' : 'soon'}>{check.why}</State>
    {check.remedy !== undefined && check.remedy !== '' && (
      <div className="pl-[17px] text-second">
        {check.remedy}{' '}
        {check.href !== undefined && (
          <Link className="textlink" href={check.href}>
            Draft it
          </Link>
        )}
      </div>
    )}
  </li>
)

function Consequences({ plan }: { readonly plan: ShownPlan }) {
  return (
    <>
      <h3>
        What it means <span>ready in {formatSecondsRange(plan.forecast.p10Seconds, plan.forecast.p90Seconds)}</span>
      </h3>
      <ul className="m-0 list-none p-0">
        {plan.oneWay.map(words => (
          <li key={words} className="mb-1">
            <State gravity="soon">{words}</State>
          </li>
        ))}
        <li className="mb-1">
          <State gravity="note">{plan.undo.how}</State>
        </li>
        <li className="text-second">Proof: {plan.proof}</li>
      </ul>
      <ol className="mt-2 mb-0 list-none p-0">
        {plan.steps.map((step, index) => (
          <li key={step.name} className="flex justify-between gap-3 border-t border-rule-fine py-1">
            <span className="min-w-0">
              {index + 1}. {step.words}
            </span>
            <span className="mono shrink-0 text-second">{formatSeconds(step.forecast.p50Seconds)}</span>
          </li>
        ))}
      </ol>
    </>
  )
}
