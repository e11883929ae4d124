import Link from 'next/link'
import { NewDraft } from '@/app/(signed)/NewDraft'
import { reader } from '@/app/server/guard'
import { onlyTexts } from '@/app/server/onlyTexts'
import { keptDraft } from '@/app/server/keptDraft'
import { provisionableBytes, intakeState } from '@/core/estate'
import { countAtStart, countWords, formatBytes } from '@/core/units'
import { drives, pools, sites, systems } from '@/records/queries'
import { KeyedDraft, RegisterSystem } from '@/ui/drafts'
import { Margin, Page as Frame, SubSections, Title } from '@/ui/frame'
import { Bytes } from '@/ui/parts/Bytes'
import { State } from '@/ui/parts/State'
import { AddSite } from '@/ui/build/sites/AddSite'
import { buildParts } from './parts'

export const metadata = { title: 'Build' }

export default async function Page({
  searchParams,
}: {
  readonly searchParams: Promise<{ readonly draft?: string; readonly change?: string }>
}) {
  const { draft, change } = await onlyTexts(searchParams)
  const { scope } = await reader()
  const [allSystems, allPools, allDrives, allSites] = await Promise.all([
    systems(scope),
    pools(scope),
    drives(scope, null),
    sites(scope),
  ])
  const free = allDrives.filter(drive => intakeState(drive) === 'unassigned')
  const kept = await keptDraft(change, 'register-system')
  const margin =
    draft === 'register-system' ? (
      <KeyedDraft id={change}>
        <RegisterSystem sites={allSites} kept={kept} />
      </KeyedDraft>
    ) : (
      <Margin foot={<NewDraft href="/build?draft=register-system">Register a system</NewDraft>}>
        <h2>Building</h2>
        <p>A system is registered by its management address. Its drives then become pools, and pools give volumes.</p>
        <h3>Sites</h3>
        {allSites.map(site => (
          <div key={site.id} className="flex justify-between border-b border-rule-fine py-1">
            <span>{site.name}</span>
            <span className="text-second">
              {allSystems
                .filter(system => system.siteId === site.id)
                .map(system => system.name)
                .join(', ') || 'no system yet'}
            </span>
          </div>
        ))}
        {allSites.length === 0 && <p className="text-second">None yet.</p>}
        <AddSite />
      </Margin>
    )
  return (
    <Frame margin={margin}>
      <Title words="Build">
        <SubSections of={buildParts} />
      </Title>
      <p className="sentence">
        <b>
          {allSystems.length === 0
            ? 'No system is registered yet.'
            : `${countAtStart(allSystems.length, 'system has', 'systems have')} ${allDrives.length} drives and ${countWords(allPools.length, 'pool', 'pools')}.`}
        </b>{' '}
        {free.length > 0
          ? `${countAtStart(free.length, 'drive is', 'drives are')} free for a pool or cluster.`
          : allSystems.length === 0
            ? 'Register the first by its management address.'
            : 'No drive is free.'}
      </p>
      <div className="overflow-x-auto">
        <table className="plain">
          <thead>
            <tr>
              <th>System</th>
              <th>Site</th>
              <th>What</th>
              <th className="number">Drives</th>
              <th className="number">Raw</th>
              <th className="number">For volumes</th>
              <th>State</th>
            </tr>
          </thead>
          <tbody>
            {allSystems.map(system => {
              const own = allDrives.filter(drive => drive.systemId === system.id)
              const capacity = allPools
                .filter(pool => pool.systemId === system.id)
                .reduce((sum, pool) => sum + provisionableBytes(pool), 0n)
              return (
                <tr key={system.id}>
                  <td>
                    <Link data-row href={`/build/systems/${system.id}`} className="font-semibold no-underline">
                      {system.name}
                    </Link>
                  </td>
                  <td>{allSites.find(site => site.id === system.siteId)?.name ?? '—'}</td>
                  <td>
                    {system.maker} {system.model}
                  </td>
                  <td className="number">
                    {own.length}
                    {own.some(drive => drive.role === 'unassigned')
                      ? `, ${own.filter(drive => drive.role === 'unassigned').length} free`
                      : ''}
                  </td>
                  <td className="number">
                    <Bytes bytes={own.reduce((sum, drive) => sum + drive.capacityBytes, 0n)} />
                  </td>
                  <td className="number">{capacity === 0n ? '—' : formatBytes(capacity)}</td>
                  <td>
                    {system.reach === 'answering' ? (
                      <State gravity="fine">answers</State>
                    ) : (
                      <State gravity="now">silent</State>
                    )}
                  </td>
                </tr>
              )
            })}
          </tbody>
        </table>
      </div>
    </Frame>
  )
}
