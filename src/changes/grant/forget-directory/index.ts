import { forgetDirectoryIntent, type ForgetDirectoryIntent } from '@/core/intents'
import { advise } from '../../parts/checks'
import { removingOwn } from '../../parts/removingOwn'

export const forgetDirectory = removingOwn<'directories', ForgetDirectoryIntent>(forgetDirectoryIntent, {
  of: 'directories',
  idOf: ({ directoryId }) => directoryId,
  title: name => `Take the directory ${name} out of the estate`,
  checks({ fileServices }, { baseDn }) {
    const joined = fileServices.filter(({ joinedTo }) => joinedTo?.toLowerCase() === baseDn.toLowerCase())
    return [
      advise(
        'none-joined',
        joined.length === 0,
        'No file service belongs to it.',
        `${joined.map(({ name }) => name).join(', ')} still belongs to it: who may do what there will not be known here.`,
      ),
    ]
  },
  effects: (_estate, found) => [
    {
      figure: 'people',
      label: 'People and groups',
      unit: 'count',
      before: (found?.personCount ?? 0) + (found?.groupCount ?? 0),
      after: 0,
    },
  ],
})
