/** @jest-environment jsdom */
import { screen } from '@testing-library/react'
import { isUnfolded, shown } from '../testing/browser'
import { sampleCheck, samplePlan } from '../testing/samplePlan'
import { PlanView } from './PlanView'

test('what bars stands before what warns, each with the way out; what holds is counted and folded', () => {
  shown(
    <PlanView
      plan={samplePlan({
        checks: [
          sampleCheck({ rule: 'reserve', holds: false, level: 'warn', why: 'It cannot heal.' }),
          sampleCheck(),
          sampleCheck({
            rule: 'clocks',
            holds: false,
            why: 'godwit-2 is 360 s behind.',
            remedy: 'Set it.',
            href: '/set',
          }),
        ],
      })}
    />,
  )
  expect([...document.querySelectorAll('[data-check]')].map(each => each.getAttribute('data-check'))).toEqual([
    'clocks',
    'reserve',
  ])
  expect(screen.getByRole('link', { name: 'Draft it' }).getAttribute('href')).toBe('/set')
  expect(screen.getByText('1 of 3 hold')).toBeTruthy()
  expect(isUnfolded(screen.getByText('One check holds'))).toBe(false)
})

test('figures are told in their own units, and what was not there before by a dash', () => {
  shown(
    <PlanView
      plan={samplePlan({
        effects: [
          { figure: 'free', label: 'Free', unit: 'bytes', before: `${2n ** 60n}`, after: '0' },
          { figure: 'fill', label: 'Fill', unit: 'ratio', before: 0.5, after: 0.625 },
          { figure: 'time', label: 'Rebuild', unit: 'seconds', before: null, after: 7200 },
          { figure: 'risk', label: 'Loss', unit: 'probability', before: 1e-9, after: 0.01 },
        ],
      })}
    />,
  )
  const cells = [...document.querySelectorAll('tbody tr')].map(line => [...line.children].map(cell => cell.textContent))
  expect(cells[0]).toEqual(['Free', '1 EiB', '0 B'])
  expect(cells[1]).toEqual(['Fill', '50.0%', '62.5%'])
  expect(cells[2]).toEqual(['Rebuild', '—', '2 h'])
  expect(cells[3]?.[2]).toBe('about 1 in 100')
})

test('what cannot be undone, the undo, the proof and every step with its time are said', () => {
  shown(<PlanView plan={samplePlan({ oneWay: ['Its width cannot be changed later.'] })} />)
  for (const words of [
    'Its width cannot be changed later.',
    'It can be taken back.',
    'Proof: The system is asked.',
    '1. Do one thing',
  ])
    expect(screen.getByText(words)).toBeTruthy()
  expect(screen.getByText(/ready in/).textContent).toBe('ready in 1 s to 4 s')
})
