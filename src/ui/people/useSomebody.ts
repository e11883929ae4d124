import { useQuery } from '@tanstack/react-query'
import { signedIn, type SignedIn } from '@/core/access'
import type { Principal } from '@/core/estate'
import type { Somebody } from '@/core/views'
import { ask } from '../api'

/** A person of a directory as a file server takes them after they have signed in; undefined while nobody is chosen, or not known yet. */
export function useSomebody(id: string): { readonly person: Principal; readonly is: SignedIn } | undefined {
  const { data } = useQuery({
    queryKey: ['somebody', id],
    enabled: id !== '',
    queryFn: async ({ signal }) => {
      const answer = await ask<Somebody>('GET', `/principals/${id}`, undefined, signal)
      return answer.ok ? answer.value : null
    },
  })
  if (data == null || id === '') return undefined
  return { person: data.person, is: signedIn(data.person, new Map(data.groups.map(each => [each.durableId, each]))) }
}
