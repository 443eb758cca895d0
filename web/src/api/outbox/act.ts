import { v7 } from 'uuid'
import { type ActKind, KINDS } from './kinds'

/** A record's own fields. */
export type Fields = Record<string, unknown>

/** Something done here that the farm has not confirmed yet. */
export interface Act {
  /** UUID version 7: its place in the order in which things were done. */
  id: string
  kind: ActKind
  /** When, RFC 3339. */
  at: string
  /** Who did it; none where nobody signs in. */
  person: string | null
  /** What it was done to: what is done to the same thing later waits behind it. */
  of: string
  path: Record<string, string>
  query?: Record<string, string>
  body?: Fields
  /** What it is, in words. */
  says: string
  /** Of a change, what the record was when it was made. */
  base?: Fields
  /** What the page shows in the meantime and cannot know otherwise, such as a heap that was begun here. */
  shows?: unknown
  /** Why the farm did not take it. */
  trouble?: Trouble
}

export interface Trouble {
  /** Whether somebody else did something that it contradicts; else the farm will not have it as it is. */
  clashes: boolean
  /** The farm's own words. */
  words: string
  /** Of a change, what the record is by now. */
  now?: Fields
  /** The fields that both changed, each otherwise. */
  fields?: string[]
}

export type Doing = Pick<Act, 'kind' | 'of' | 'path' | 'says'> &
  Partial<Pick<Act, 'query' | 'body' | 'base' | 'shows' | 'at'>>

/**
 * Something done just now, as it is now: what a page goes on to change is no part of it, and what it
 * watches cannot be kept.
 */
export const actOf = (doing: Doing, person: string | null): Act => ({
  at: new Date().toISOString(),
  ...(JSON.parse(JSON.stringify(doing)) as Doing),
  id: v7(),
  person,
})

/** What becomes of an act in the eyes of somebody who reads a file: everything that must be there is, or none. */
export function readAct(from: unknown): Act | null {
  const act = from as Act
  const isText = (value: unknown): value is string => typeof value === 'string' && value.length > 0
  const isRecord = (value: unknown) => typeof value === 'object' && value !== null && !Array.isArray(value)
  const isAct =
    isRecord(from) &&
    isText(act.id) &&
    isText(act.kind) &&
    act.kind in KINDS &&
    isText(act.at) &&
    !Number.isNaN(Date.parse(act.at)) &&
    isText(act.of) &&
    isText(act.says) &&
    isRecord(act.path) &&
    Object.values(act.path).every(isText) &&
    (act.body === undefined || isRecord(act.body))
  return isAct ? act : null
}
