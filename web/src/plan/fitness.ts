import { defineStore } from 'pinia'
import { reactive } from 'vue'
import type { ShapeKind, UsedFor } from '@/api/client'

/** What a person has and needs, that a method is chosen by. */
export interface Fitness {
  /** A kind of container, or nothing. */
  container: ShapeKind | ''
  hours: number | null
  weeks: number | null
  /** What the compost is for, or nothing. */
  usedFor: UsedFor | ''
  wantsHot: boolean
  onlyChlorinated: boolean
}

/** Kept while the page is open, so that looking at one method does not lose it. */
export const useFitness = defineStore('fitness', () => {
  const wishes = reactive<Fitness>({
    container: '',
    hours: null,
    weeks: null,
    usedFor: '',
    wantsHot: false,
    onlyChlorinated: false,
  })
  return { wishes }
})
