import type { CauseCode } from '@/api/client'

/** What may be wrong with a heap, in the order of the table: a word more or less breaks the build. */
const ALL = {
  'fire-risk': true,
  leaking: true,
  'too-hot': true,
  'weed-killer': true,
  'scraps-exposed': true,
  'too-wet': true,
  packed: true,
  'dried-out': true,
  'too-dry': true,
  'air-used-up': true,
  'ash-with-manure': true,
  'too-green': true,
  'too-brown': true,
  'too-small': true,
  'too-coarse': true,
  'cold-weather': true,
  'outside-raw': true,
  'was-not-hot': true,
  done: true,
  'too-soon': true,
} satisfies Record<CauseCode, true>

export const CAUSES = Object.keys(ALL) as CauseCode[]
export const isCause = (code: string): code is CauseCode => code in ALL
