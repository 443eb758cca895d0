import { type Component, defineAsyncComponent, type Ref, watch } from 'vue'
import { cutOff } from '@/api/trouble'
import { controls } from './controls'
import { allWords } from '@/words/i18n'

const parts: (() => Promise<unknown>)[] = []

/**
 * A part of the page that most visits never open: fetched, with the words it says, when it is first
 * drawn. Draw it once it is wanted; what stands on the page before that costs nobody its way here.
 */
export function later<C extends Component>(load: () => Promise<{ default: C }>) {
  parts.push(load)
  return defineAsyncComponent<C>({
    loader: async () => (await Promise.all([load(), allWords(), controls()]))[0].default,
    // What cannot be fetched is said, and tried again when it is next asked for.
    onError(_error, _retry, fail) {
      cutOff()
      fail()
    },
  })
}

/** All that is drawn later, fetched while nobody waits, so that it opens without signal. */
export const fetchLater = () => Promise.allSettled([allWords(), controls(), ...parts.map((load) => load())])

/** A part that is drawn later, once it is there. */
export const there = <T>(part: Readonly<Ref<T | null>>) =>
  new Promise<T>((done) => {
    const stop = watch(
      part,
      (now) => {
        if (!now) return
        done(now)
        queueMicrotask(() => stop())
      },
      { immediate: true, flush: 'post' },
    )
  })
