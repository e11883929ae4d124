import { NewDraft } from '@/app/(signed)/NewDraft'
import { reader } from '@/app/server/guard'
import { onlyTexts } from '@/app/server/onlyTexts'
import { keptDraft } from '@/app/server/keptDraft'
import { byId } from '@/core/estate'
import { hostGroups, hosts } from '@/records/queries'
import { IntentForm, KeyedDraft } from '@/ui/drafts'
import { Margin, Page as Frame, SubSections, Title } from '@/ui/frame'
import { Copied } from '@/ui/parts/Copied'
import { State } from '@/ui/parts/State'
import { provisionParts } from '../parts'

export const metadata = { title: 'Hosts' }

export default async function Page({
  searchParams,
}: {
  readonly searchParams: Promise<{ readonly draft?: string; readonly change?: string }>
}) {
  const { draft, change } = await onlyTexts(searchParams)
  const { scope } = await reader()
  const [all, groups, kept] = await Promise.all([hosts(scope), hostGroups(scope), keptDraft(change, 'register-host')])
  const blind = all.filter(host => host.initiators.length === 0)
  const margin =
    draft === 'register-host' ? (
      <KeyedDraft id={change}>
        <IntentForm
          kind={draft}
          title="Register a host"
          begin={{}}
          choices={{ 'names of host groups': groups.map(({ name }) => ({ value: name, words: name })) }}
          kept={kept}
        />
      </KeyedDraft>
    ) : (
      <Margin foot={<NewDraft href="/provision/hosts?draft=register-host">Register a host</NewDraft>}>
        <h2>Hosts</h2>
        <p>
          Volumes are mapped to host groups. Through a host&apos;s agent Wendrel proves that it sees what it should, and
          nothing else.
        </p>
      </Margin>
    )
  return (
    <Frame margin={margin}>
      <Title words="Hosts">
        <SubSections of={provisionParts} />
      </Title>
      <p className="sentence">
        <b>{all.length === 0 ? 'No host is registered yet.' : `${all.length} hosts in ${groups.length} groups.`}</b>{' '}
        {blind.length === 0
          ? ''
          : `${blind.map(host => host.name).join(', ')} ${blind.length === 1 ? 'has' : 'have'} no initiator and can log in nowhere.`}
      </p>
      <div className="overflow-x-auto">
        <table className="plain">
          <thead>
            <tr>
              <th>Host</th>
              <th>Group</th>
              <th>Initiators</th>
              <th>System</th>
              <th>Agent</th>
            </tr>
          </thead>
          <tbody>
            {all.map(host => (
              <tr key={host.id}>
                <td className="font-semibold">{host.name}</td>
                <td>{byId(groups, host.hostGroupId)?.name}</td>
                <td>
                  {host.initiators.length === 0 ? (
                    <State gravity="soon">none</State>
                  ) : (
                    host.initiators.map(initiator => (
                      <div key={initiator}>
                        <Copied text={initiator} />
                      </div>
                    ))
                  )}
                </td>
                <td>{host.operatingSystem ?? ''}</td>
                <td>
                  <Copied text={host.agentAddress} />
                </td>
              </tr>
            ))}
          </tbody>
        </table>
      </div>
    </Frame>
  )
}
