import { useQueryClient } from '@tanstack/vue-query'
import { answered, api } from '@/api/client'
import { setDevice } from '@/api/device'
import { key } from '@/api/keys'
import { usePerson } from '@/farm/person'

/** What a person leaves lying on the bench of a device is not the next one's to find. */
const MINE = ['zymarch-draft', 'zymarch-lately', 'zymarch-place']

function forgetMine() {
  try {
    for (const name of MINE) localStorage.removeItem(name)
  } catch {
    // Where nothing can be kept there is nothing to forget.
  }
}

/**
 * Coming in and going. The page begins anew then: whoever comes in sees nothing of what somebody else
 * saw here.
 */
export function useDoor() {
  const queries = useQueryClient()
  const person = usePerson()

  async function signIn(shown: { code?: string; name?: string; passphrase?: string }, device: string) {
    setDevice(device)
    await answered(api.POST('/api/sign-in', { body: shown }))
  }
  async function first(body: { name: string; passphrase: string }, device: string) {
    setDevice(device)
    await answered(api.POST('/api/people/first', { body }))
  }
  async function setPassphrase(body: { old?: string; new: string }) {
    queries.setQueryData(key('me'), await answered(api.PUT('/api/me/passphrase', { body })))
    await queries.invalidateQueries({ queryKey: key('people') })
  }
  async function signOut() {
    await answered(api.POST('/api/sign-out'))
    person.site = null
    forgetMine()
  }
  const anew = (path: string) => location.assign(path)
  return { signIn, first, setPassphrase, signOut, anew }
}
