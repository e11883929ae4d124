import { mkdtempSync, rmSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { Store } from '@/standins/fleet'
import { NameServer } from '@/standins/names/NameServer'
import { nameServer } from '.'

let folder: string
let server: NameServer
let port: number
beforeAll(async () => {
  folder = mkdtempSync(join(tmpdir(), 'names-'))
  server = new NameServer(new Store(folder))
  port = await server.listen(0)
  server.setForward('godwit-1.marrowfield.example', '10.20.30.11')
  server.setReverse('10.20.30.11', 'godwit-1.marrowfield.example')
  server.setForward('six.marrowfield.example', 'fd00:20:0::11')
  server.setReverse('fd00:20::11', 'six.marrowfield.example')
})
afterAll(async () => {
  await server.stop()
  rmSync(folder, { recursive: true })
})

test('names lead to addresses of both families, and addresses back to names', async () => {
  const names = nameServer(`127.0.0.1:${port}`)
  expect(await names.forward('godwit-1.marrowfield.example')).toEqual({ answers: ['10.20.30.11'], why: null })
  expect(await names.forward('six.marrowfield.example')).toEqual({ answers: ['fd00:20::11'], why: null })
  expect(await names.reverse('10.20.30.11')).toEqual({ answers: ['godwit-1.marrowfield.example'], why: null })
  expect(await names.reverse('fd00:20::11')).toEqual({ answers: ['six.marrowfield.example'], why: null })
})

test('what has no record is told apart from a server that does not answer', async () => {
  expect(await nameServer(`127.0.0.1:${port}`).forward('nobody.marrowfield.example')).toEqual({
    answers: [],
    why: 'no such record',
  })
  const silent = await nameServer('127.0.0.1:9').reverse('10.20.30.99')
  expect(silent).toEqual({ answers: [], why: expect.stringContaining('did not answer') })
})
