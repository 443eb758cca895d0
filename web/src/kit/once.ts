import { defineStore } from 'pinia'
import { markRaw } from 'vue'

/**
 * What is the same for every part of a page (its words, its containers, its materials), made once an
 * app, whoever asks first: a list of a thousand rows then watches it once and not a thousand times.
 */
export function once<T extends object>(name: string, make: () => T): () => T {
  const store = defineStore(name, () => ({ made: markRaw(make()) }))
  return () => (store() as unknown as { made: T }).made
}
