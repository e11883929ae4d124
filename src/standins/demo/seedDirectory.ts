import { baseDn, type DirectoryEntry, type DirectoryTree } from '../people'

/** The people of the museum, by account. Every name is invented. */
const people: readonly (readonly [account: string, name: string, isLocked?: true])[] = [
  ['a.brenn', 'Alva Brenn'],
  ['b.tolland', 'Bryce Tolland'],
  ['c.ismere', 'Cato Ismere'],
  ['d.warrick', 'Dunya Warrick'],
  ['e.foss', 'Edda Foss'],
  ['f.quarles', 'Finn Quarles'],
  ['g.ashby', 'Gita Ashby'],
  ['h.lorne', 'Hale Lorne'],
  ['i.merrow', 'Ines Merrow'],
  ['j.pell', 'Jory Pell'],
  ['k.sand', 'Kaja Sand'],
  ['l.orrin', 'Lev Orrin'],
  ['m.venn', 'Mirela Venn'],
  ['n.hask', 'Nils Hask'],
  ['o.dray', 'Odile Dray'],
  ['p.carrow', 'Petra Carrow'],
  ['q.holt', 'Quill Holt', true],
  ['r.stane', 'Runa Stane'],
  ['s.ebbing', 'Sora Ebbing'],
  ['t.maddern', 'Tove Maddern'],
  ['u.fenn', 'Ulla Fenn'],
  ['v.grier', 'Vasco Grier'],
  ['w.loame', 'Wren Loame'],
  ['y.archer', 'Yara Archer'],
]

/** Groups, by name: their number, and who is in them; a name with an @ is another group. */
const groups: readonly (readonly [name: string, gid: number | null, members: string])[] = [
  ['photographers', 3101, 'a.brenn b.tolland c.ismere q.holt'],
  ['retouchers', 3102, 'd.warrick e.foss'],
  ['photo-studio', 3100, '@photographers @retouchers f.quarles'],
  ['curators', 3200, 'g.ashby h.lorne i.merrow j.pell k.sand'],
  ['ct-operators', 3301, 'l.orrin m.venn'],
  ['ct-readers', 3300, '@ct-operators @curators'],
  ['sound-archive', 3400, 'n.hask o.dray'],
  ['conservation-lab', 3500, 'p.carrow r.stane s.ebbing'],
  ['ticket-desk', 3600, 't.maddern u.fenn'],
  ['directory-operators', 3900, 'v.grier'],
  ['storage-operators', null, 'v.grier w.loame'],
  [
    'staff',
    3000,
    '@photo-studio @curators @ct-operators @sound-archive @conservation-lab @ticket-desk y.archer v.grier w.loame',
  ],
]

const personDn = (account: string) => `uid=${account},ou=people,${baseDn}`
const groupDn = (name: string) => `cn=${name},ou=groups,${baseDn}`
const firstUid = 20_001
const gidOf = (name: string) => `${groups.find(([each]) => each === name)?.[1] ?? 3000}`

/** Who the directory has at first, and the accounts by which it is read and joined. */
export function seedDirectory(tree: DirectoryTree): void {
  const unit = (name: string): DirectoryEntry => ({
    dn: `ou=${name},${baseDn}`,
    attributes: { objectClass: ['top', 'organizationalUnit'], ou: [name] },
  })
  tree.put([
    { dn: baseDn, attributes: { objectClass: ['top', 'domain'], dc: ['marrowfield'] } },
    ...['people', 'groups', 'computers', 'services'].map(unit),
    {
      dn: `cn=reader,ou=services,${baseDn}`,
      attributes: { objectClass: ['top', 'applicationProcess'], cn: ['reader'] },
      password: 'directory-demo',
    },
    ...people.map(([account, name, isLocked], index): DirectoryEntry => {
      const home =
        groups.find(([, gid, members]) => gid !== null && members.split(' ').includes(account))?.[0] ?? 'staff'
      return {
        dn: personDn(account),
        attributes: {
          objectClass: ['top', 'inetOrgPerson', 'posixAccount'],
          uid: [account],
          cn: [name],
          displayName: [name],
          sn: [name.split(' ').at(-1) ?? name],
          uidNumber: [`${firstUid + index}`],
          gidNumber: [gidOf(home)],
          homeDirectory: [`/homes/${account}`],
          ...(isLocked === true ? { pwdAccountLockedTime: ['000001010000Z'] } : {}),
        },
        password: `${account}-demo`,
      }
    }),
    ...groups.map(
      ([name, gid, members]): DirectoryEntry => ({
        dn: groupDn(name),
        attributes: {
          objectClass: ['top', 'groupOfNames', ...(gid === null ? [] : ['posixGroup'])],
          cn: [name],
          ...(gid === null ? {} : { gidNumber: [`${gid}`] }),
          member: members.split(' ').map(each => (each.startsWith('@') ? groupDn(each.slice(1)) : personDn(each))),
        },
      }),
    ),
  ])
}
