import { byId, type Directory, type Estate } from '@/core/estate'
import { registerDirectoryIntent, type RegisterDirectoryIntent as Intent } from '@/core/intents'
import type { Plan, PlanCheck } from '@/core/plan'
import type { ChangeKind, Evidence, Facts } from '../../ChangeKind'
import type { ChangePorts } from '@/ports'
import { absent, rule } from '../../parts/checks'
import { fact } from '../../parts/known'
import { outlined } from '../../parts/outline'

type Kept = Pick<Directory, 'name' | 'address' | 'fingerprint' | 'baseDn' | 'readAs'>
type Step = Readonly<{ step: 'keep'; kept: Kept; secretId: string }> | Readonly<{ step: 'read' }>

const isAddress = (text: string) => /^ldaps:\/\/(\[[0-9a-f:.]+\]|[a-z0-9.-]+)(:\d{1,5})?\/?$/i.test(text)
const isName = (text: string) => /^[a-z0-9.-]+=.+/i.test(text)
const isFingerprint = (text: string) => /^[0-9A-F]{2}(:[0-9A-F]{2}){31}$/.test(text)

/** A directory as the intent says it. */
const keptOf = ({ name, address, fingerprint, baseDn, readAs }: Intent): Kept => ({
  name: name.trim(),
  address: address.trim().replace(/\/$/, ''),
  fingerprint: fingerprint.trim().toUpperCase(),
  baseDn: baseDn.trim(),
  readAs: readAs.trim(),
})

function plan(estate: Estate, intent: Intent): Plan<Step> {
  const kept = keptOf(intent)
  return outlined<Step>(estate, {
    title: `Register the directory ${kept.name === '' ? '…' : kept.name}`,
    checks: checksOf(estate, intent, kept),
    effects: [
      {
        figure: 'directories',
        label: 'Directories',
        unit: 'count',
        before: estate.directories.length,
        after: estate.directories.length + 1,
      },
    ],
    undo: { possible: true, how: 'It is forgotten again, with the password by which it is read.' },
    steps: [
      { words: `Keep ${kept.address}`, seconds: 0.1, step: { step: 'keep', kept, secretId: intent.secretId } },
      { words: `Read everybody below ${kept.baseDn}`, seconds: 1, step: { step: 'read' } },
    ],
    reads: [],
    claims: [`directory:${kept.name}`, `directory:${kept.address}/${kept.baseDn}`],
    proof: 'It is read once more; people must have been found, and each known again as before.',
  })
}

function checksOf({ directories }: Estate, intent: Intent, kept: Kept): PlanCheck[] {
  const there = directories.find(({ address, baseDn }) => address === kept.address && baseDn === kept.baseDn)
  const namesake = directories.find(({ name }) => name === kept.name)
  return [
    rule(
      'address',
      isAddress(kept.address),
      'It can be asked, over TLS.',
      'Give an address such as ldaps://directory.example: passwords go there, so that only TLS will do.',
      {
        field: 'address',
      },
    ),
    rule(
      'certificate',
      isFingerprint(kept.fingerprint),
      'Name and password go to that certificate only.',
      'See who answers there, and accept its certificate.',
      { field: 'fingerprint' },
    ),
    rule('name', kept.name !== '', 'It has a name.', 'Give it a name.', { field: 'name' }),
    absent('name-free', namesake, 'No other directory has that name.', () => 'Another directory has that name.', {
      field: 'name',
    }),
    rule('base', isName(kept.baseDn), 'It is read below that base.', 'Give a base such as dc=marrowfield,dc=example.', {
      field: 'baseDn',
    }),
    rule('reader', isName(kept.readAs), 'It is read by that account.', 'Give the distinguished name of an account.', {
      field: 'readAs',
    }),
    rule('password', intent.secretId !== '', 'Its password is kept, sealed.', 'Give its password.', {
      field: 'secretId',
    }),
    absent('new', there, 'It is not registered yet.', each => `It is registered already, as ${each.name}.`, {
      field: 'address',
    }),
  ]
}

async function read(ports: ChangePorts, id: string) {
  // How many there are nobody knows before all have come: how many have come is said, and no ratio.
  const skipped = await ports.records.readDirectory(id, count =>
    ports.progress(0, `${count.toLocaleString('en')} entries have come`),
  )
  const directory = byId((await ports.estate()).directories, id)
  return { skipped, people: directory?.personCount ?? 0, groups: directory?.groupCount ?? 0 }
}

async function prove(id: string, found: number, ports: ChangePorts): Promise<Evidence[]> {
  const { skipped, people, groups } = await read(ports, id)
  return [
    {
      claim: 'The directory lets itself be read, and people are found',
      holds: people > 0,
      measured: { people: `${people}`, groups: `${groups}` },
    },
    {
      claim: 'Read again, everybody is known as before',
      holds: people + groups >= found,
      measured: { before: `${found}`, after: `${people + groups}`, notUsed: skipped.slice(0, 5).join(' ') || 'none' },
    },
  ]
}

export const registerDirectory: ChangeKind<Intent, Step> = {
  ...registerDirectoryIntent,
  needs: () => [],
  plan,
  async runStep(step, { key, facts }, ports): Promise<Facts> {
    if (step.step === 'keep')
      return { directoryId: await ports.records.keepOwn('directories', step.kept, null, key, step.secretId) }
    const { people, groups } = await read(ports, fact(facts, 'directoryId'))
    return { found: `${people + groups}` }
  },
  async undoStep(step, { facts }, ports) {
    if (step.step === 'read') return undefined
    if (facts['directoryId'] !== undefined) await ports.records.dropOwn('directories', facts['directoryId'])
    await ports.records.dropSecret(step.secretId)
    return undefined
  },
  prove: (_intent, _plan, facts, ports) => prove(fact(facts, 'directoryId'), Number(fact(facts, 'found')), ports),
  collects: () => [],
  reverse: (_intent, facts) =>
    facts['directoryId'] === undefined
      ? undefined
      : { kind: 'forget-directory', intent: { directoryId: facts['directoryId'] } },
}
