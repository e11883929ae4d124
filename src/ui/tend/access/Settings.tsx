import { useRouter } from 'next/navigation'
import type { EstateSettings } from '@/core/estate'
import { ask } from '../../api'
import { TextField } from '../../parts/TextField'
import { toast } from '../../parts/toast'
import { useEntries } from '../../parts/useEntries'

const texts = {
  volumeNaming: {
    label: 'Naming pattern of volumes',
    hint: '{group}, {purpose} and {nn}, the next free number.',
    maxLength: 120,
  },
  nameServer: { label: 'Name server', hint: 'host:port, such as 10.20.0.53:53; empty asks none.', maxLength: 255 },
  addresses: {
    label: 'Addresses that may be registered besides',
    hint: 'Networks such as 127.0.0.0/8, for systems on addresses that are barred by themselves: those of this server, of its link, and groups.',
    maxLength: 2000,
  },
}

/** What is set for the estate as a whole. */
export function Settings({ settings }: { readonly settings: EstateSettings }) {
  const router = useRouter()
  const { volumeNaming, holdingDays, nameServer, addresses } = settings
  const { entry, submit, told, isBusy } = useEntries({
    start: { volumeNaming, holdingDays, nameServer, addresses },
    send: body => ask('PUT', '/settings', body),
    sent: () => {
      toast.success('The settings are kept.')
      router.refresh()
    },
  })
  const days = entry('holdingDays')
  return (
    <section aria-label="Settings of the estate">
      <h3 id="settings">Settings of the estate</h3>
      <form onSubmit={submit}>
        <TextField {...texts.volumeNaming} isMono {...entry('volumeNaming')} />
        <TextField
          label="Days in holding"
          hint="How long a removed volume can be brought back; 1 to 365."
          type="number"
          min={1}
          max={365}
          isMono
          className="w-[100px]"
          value={days.value}
          onChange={value => days.onChange(Number(value))}
        />
        <TextField {...texts.nameServer} isMono {...entry('nameServer')} />
        <TextField {...texts.addresses} isMono {...entry('addresses')} />
        {told}
        <button type="submit" className="button quiet" disabled={isBusy}>
          Keep
        </button>
      </form>
    </section>
  )
}
