import { defineStore } from 'pinia'
import { reactive } from 'vue'

/** What a person has and needs, that a way of composting is chosen by. */
export interface Fitness {
  /** A kind of container, or nothing. */
  container: string
  hours: number | null
  weeks: number | null
  /** What the compost is for, or nothing. */
  usedFor: string
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
