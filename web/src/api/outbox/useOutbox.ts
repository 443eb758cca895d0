import { useQueryClient } from '@tanstack/vue-query'
import { defineStore } from 'pinia'
import { computed, ref, shallowRef, watch } from 'vue'
import type { Heap, Lot, Me } from '@/api/client'
import { changed, key, type Subject } from '@/api/keys'
import { trouble as farmTrouble } from '@/api/trouble'
import { type Act, actOf, type Doing, type Trouble } from './act'
import { forgetBefore, fromBefore } from './before'
import { type ActKind, rowOf } from './kinds'
import { send, troubleOf } from './send'
import { keepMoved, movedBefore } from './moved'
import * as shelf from './shelf'
import { standing, takerOf } from './undone'

/** How soon what did not reach the farm is tried again, and how seldom at last [ms]. */
const AGAIN_MS = [3_000, 30_000] as const

/** Told apart from an answer of nothing: it waits. */
export const WAITS = Symbol('waits')

/** Somebody on the page who waits for the answer. */
interface Waiter {
  resolve: (answer: unknown) => void
  reject: (failure: unknown) => void
}

/**
 * What was done on this device, on its way to the farm: kept before it is sent, so that no dying phone
 * loses it, and sent in the order in which it was done, through reloads and days. What the farm will not
 * take as it is waits for somebody to decide, and what was done to the same thing after it waits behind it.
 */
export const useOutbox = defineStore('outbox', () => {
  const queries = useQueryClient()
  const acts = shallowRef<Act[]>([])
  /** Acts that no longer are on their first way to the farm. */
  const late = ref(new Set<string>())
  const isCutOff = ref(false)
  /** Whether this browser keeps nothing: what waits is lost with the page. */
  const isForgetful = ref(false)
  /** Things that are another at the farm by now: a heap that two phones had begun. */
  const moved = ref(new Map(movedBefore()))
  const waiters = new Map<string, Waiter>()
  /** Acts that this browser would not keep: they are nowhere but on this page. */
  const unkept = new Set<string>()
  /** Acts that the farm may have, for all that is known here: they were sent, and no answer came. */
  const tried = new Set<string>()
  const others = typeof BroadcastChannel === 'undefined' ? null : new BroadcastChannel('zymarch-waiting')
  let sending = Promise.resolve()
  let isSending = false
  let timer = 0
  let tries = 0

  const me = () => queries.getQueryData<Me>(key('me'))?.id ?? null

  /**
   * Those that somebody else did before they signed out wait for them. What was done before it was known who
   * that is, as on a phone that was started without signal, is of whoever is there.
   */
  const isMine = (act: Act) => act.person === null || act.person === me()
  const waiting = computed(() => acts.value.filter((act) => late.value.has(act.id)))
  const stuck = computed(() => waiting.value.filter((act) => act.trouble))
  const to = (thing: string) => standing(acts.value.filter((act) => act.of === thing))
  /** What comes of all that waits. */
  const comes = computed(() => standing(waiting.value))
  /** Whether an act is nowhere but here: let go it was never done. All others are taken back at the farm. */
  const isOnlyHere = (id: string) => waiting.value.some((act) => act.id === id) && !tried.has(id)

  const began = begin()

  async function begin() {
    const before = fromBefore().map((act) => ({ ...act, person: me() }))
    if (before.length && (await shelf.keep(...before))) forgetBefore()
    const found = await shelf.all()
    isForgetful.value = found === null
    adopt(found ?? before)
    if (acts.value.length) void flush()
  }

  /** Acts from before, or from another page of this browser. */
  function adopt(found: Act[]) {
    const isHere = ({ id }: Act) => waiters.has(id) || unkept.has(id)
    const mine = acts.value.filter(isHere)
    // What came of them before this page knew of them, nobody knows.
    for (const { id } of found) if (acts.value.every((act) => act.id !== id)) tried.add(id)
    acts.value = [...found.filter((act) => !isHere(act)), ...mine].sort((a, b) => (a.id < b.id ? -1 : 1))
    late.value = new Set(acts.value.filter((act) => !waiters.has(act.id)).map((act) => act.id))
  }

  async function readAgain() {
    const found = await shelf.all()
    if (found) adopt(found)
  }
  others?.addEventListener('message', () => void readAgain())

  /** Does something: the farm's answer, or that it waits. What the farm refuses at once is thrown. */
  async function does<T>(doing: Doing): Promise<T | typeof WAITS> {
    await began
    const act = actOf(doing, me())
    const answer = new Promise<T | typeof WAITS>((resolve, reject) => {
      waiters.set(act.id, { resolve: resolve as Waiter['resolve'], reject })
    })
    // A promise that nobody looks at yet is no failure of the page.
    answer.catch(() => undefined)
    acts.value = [...acts.value, act]
    if (!(await shelf.keep(act))) {
      unkept.add(act.id)
      isForgetful.value = true
    }
    others?.postMessage(null)
    void flush()
    return answer
  }

  /** Sends what waits, one page of a browser at a time. */
  function flush(): Promise<void> {
    window.clearTimeout(timer)
    const run = async () => {
      isSending = true
      try {
        if (!navigator.locks) return await sendAll()
        await navigator.locks.request('zymarch-waiting', sendAll)
      } finally {
        isSending = false
      }
    }
    // One after the other: nothing is sent twice at a time.
    sending = sending.then(run).catch(() => undefined)
    return sending
  }

  async function sendAll() {
    // Another page of this browser may have sent some of it meanwhile.
    await readAgain()
    const subjects = new Set<Subject>()
    const passed = new Set<string>()
    let isSilent = false
    for (let act = next(passed); act; act = next(passed)) {
      passed.add(act.id)
      const before = act
      if (navigator.onLine) tried.add(act.id)
      try {
        const answer = await send(act, late.value.has(act.id))
        await shelf.drop(act.id)
        isCutOff.value = false
        arrived(before, answer)
        subjects.add(rowOf(act.kind).about)
      } catch (failure) {
        const trouble = troubleOf(failure)
        if (!trouble) {
          isSilent = true
          break
        }
        await refused(before, failure, trouble)
      }
    }
    if (passed.size) others?.postMessage(null)
    isCutOff.value = isSilent
    if (!isSilent) tries = 0
    else {
      for (const [id, { resolve }] of waiters) {
        late.value.add(id)
        resolve(WAITS)
      }
      waiters.clear()
      const wait = Math.min(AGAIN_MS[0] * 2 ** tries++, AGAIN_MS[1])
      timer = window.setTimeout(() => void flush(), wait)
    }
    if (subjects.size) await changed(queries, ...subjects)
  }

  /** The next that can be sent: nothing in front of it is about the same thing. */
  function next(passed: Set<string>): Act | undefined {
    const blocked = new Set<string>()
    for (const act of acts.value) {
      if (!act.trouble && isMine(act) && !blocked.has(act.of) && !passed.has(act.id)) return act
      blocked.add(act.of)
      // Nobody on the page waits for what waits behind something else.
      const waiter = !passed.has(act.id) && waiters.get(act.id)
      if (!waiter) continue
      late.value.add(act.id)
      waiters.delete(act.id)
      waiter.resolve(WAITS)
    }
    return undefined
  }

  function arrived(act: Act, answer: unknown) {
    shown(act, answer)
    acts.value = acts.value.filter(({ id }) => id !== act.id)
    late.value.delete(act.id)
    waiters.get(act.id)?.resolve(answer)
    waiters.delete(act.id)
  }

  /** What is known from an answer is shown at once. */
  function shown({ kind, of }: Act, answer: unknown) {
    if (kind.startsWith('heap') && isHeap(answer)) {
      if (answer.id !== of) follow(of, answer.id)
      queries.setQueryData(key('heap', answer.id), answer)
    }
    if (LOTS.includes(kind) && isRecord(answer))
      queries.setQueriesData<Lot[]>({ queryKey: ['lots'] }, (lots) =>
        lots?.map((lot) => (lot.id === answer.id ? (answer as Lot) : lot)),
      )
  }

  /** A heap that was begun here is another at the farm: what was done to it was done to that one. */
  function follow(from: string, to: string) {
    moved.value = new Map(moved.value).set(from, to)
    keepMoved([...moved.value])
    acts.value = acts.value.map((act) =>
      act.of === from && act.kind !== 'heap-begin' ? { ...act, of: to, path: { ...act.path, id: to } } : act,
    )
    void shelf.keep(...acts.value.filter((act) => act.of === to))
  }

  async function refused(act: Act, failure: unknown, trouble: Trouble) {
    const waiter = waiters.get(act.id)
    if (waiter) {
      // Who did it is still there, and is told at once.
      await shelf.drop(act.id)
      acts.value = acts.value.filter(({ id }) => id !== act.id)
      waiters.delete(act.id)
      waiter.reject(failure)
      return
    }
    await put({ ...act, trouble })
  }

  async function put(act: Act) {
    acts.value = acts.value.map((one) => (one.id === act.id ? act : one))
    await shelf.keep(act)
  }

  /** An act with all that is nothing without it: what was done to a thing that it began, what takes it back. */
  function withAll(act: Act): Act[] {
    if (BEGINS.includes(act.kind)) return acts.value.filter((one) => one.of === act.of)
    const taker = takerOf(act, acts.value)
    return taker ? [act, taker] : [act]
  }

  /** Lets acts go: they were never done. */
  async function letGo(...ids: string[]) {
    await shelf.drop(...ids)
    acts.value = acts.value.filter(({ id }) => !ids.includes(id))
    for (const id of ids) late.value.delete(id)
    others?.postMessage(null)
    void flush()
  }

  /** Tries again what was refused, as it was or as it is now said. */
  async function again(act: Act, says: Partial<Act> = {}) {
    await put({ ...act, ...says, trouble: undefined })
    await flush()
  }

  /** Takes in acts of another device, to be sent by whoever takes them in; those that are here stay. */
  async function takeIn(found: Act[]): Promise<number> {
    await began
    const unknown = found.filter(({ id }) => acts.value.every((act) => act.id !== id))
    const fresh = unknown.map((act) => ({ ...act, person: me() }))
    await shelf.keep(...fresh)
    for (const { id } of fresh) {
      late.value.add(id)
      // Whoever had them may have sent them.
      tried.add(id)
    }
    acts.value = [...acts.value, ...fresh].sort((a, b) => (a.id < b.id ? -1 : 1))
    void flush()
    return fresh.length
  }

  const now = () => void (acts.value.length && flush())
  window.addEventListener('online', now)
  document.addEventListener('visibilitychange', () => document.visibilityState === 'visible' && now())
  // Any answer of the farm tells that it can be reached again; who came in may be who did it.
  watch(farmTrouble, (is, was) => was && !is && now())
  queries.getQueryCache().subscribe(({ query, type }) => {
    if (type === 'updated' && query.queryKey[0] === 'me' && acts.value.some(isMine) && !isSending) now()
  })

  return {
    acts,
    waiting,
    stuck,
    isCutOff,
    isForgetful,
    moved,
    to,
    comes,
    isOnlyHere,
    isMine,
    does,
    flush,
    withAll,
    letGo,
    again,
    takeIn,
  }
})

/** Before these there is no such thing. */
const BEGINS: readonly ActKind[] = ['lot-add', 'measure-add', 'sorted-out-add', 'heap-begin']

const LOTS: readonly ActKind[] = ['lot-change', 'lot-happened', 'lot-unhappened', 'lot-restore']

const isRecord = (answer: unknown): answer is { id: string } =>
  typeof answer === 'object' && answer !== null && 'id' in answer

const isHeap = (answer: unknown): answer is Heap => isRecord(answer) && 'build' in answer
