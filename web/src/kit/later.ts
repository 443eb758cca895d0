import { type Component, markRaw, type Ref, shallowRef, watch } from 'vue'
import { cutOff } from '@/api/trouble'
import { allWords } from '@/words/i18n'

/** A part of the page that is fetched when it is first opened. */
export interface Later {
  /** What is drawn, once it is there. */
  part: Readonly<Ref<Component | null>>
  /** Fetches it, with the words it says; false if that cannot be done now, which the page says. */
  fetch: () => Promise<boolean>
}

const parts: Later[] = []

/**
 * A part that most visits never open: what stands on the page before it costs nobody its way here.
 * Once fetched it is there for good.
 */
export function later(load: () => Promise<{ default: Component }>): Later {
  const part: Ref<Component | null> = shallowRef(null)
  async function fetch() {
    if (part.value) return true
    try {
      const [{ default: fetched }] = await Promise.all([load(), allWords()])
      part.value = markRaw(fetched)
      return true
    } catch {
      cutOff()
      return false
    }
  }
  const made = { part, fetch }
  parts.push(made)
  return made
}

/** Fetches a part once it is to be open, and closes it again where that cannot be done. */
export function opens({ fetch }: Later, ...flags: Ref<unknown>[]) {
  for (const flag of flags)
    watch(flag, async (is) => {
      if (is && !(await fetch())) flag.value = typeof is === 'boolean' ? false : null
    })
}

/** All that is drawn later, fetched while nobody waits, so that it opens without signal. */
export const fetchLater = () => Promise.all(parts.map(({ fetch }) => fetch()))
