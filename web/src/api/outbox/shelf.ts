import { type DBSchema, type IDBPDatabase, openDB } from 'idb'
import type { Act } from './act'

interface Shelf extends DBSchema {
  acts: { key: string; value: Act }
}

const NAME = 'zymarch-waiting'
let opened: Promise<IDBPDatabase<Shelf> | null> | null = null

/** Where what waits outlives the page; none in a browser that keeps nothing: it waits on the open page alone. */
const shelf = () => (opened ??= open().catch(() => null))

const open = async () =>
  await openDB<Shelf>(NAME, 1, {
    upgrade: (db) => void db.createObjectStore('acts', { keyPath: 'id' }),
    // A page of a later version must not wait for this one.
    blocking: (_, __, event) => (event.target as IDBDatabase).close(),
    terminated: () => (opened = null),
  })

/** All that waits, in the order in which it was done. */
export async function all(): Promise<Act[] | null> {
  const db = await shelf()
  return db ? await db.getAll('acts') : null
}

/** Keeps some acts, or what became of them. What a browser cannot keep is told by `false`. */
export async function keep(...acts: Act[]): Promise<boolean> {
  const db = await shelf()
  if (!db) return false
  try {
    const tx = db.transaction('acts', 'readwrite', { durability: 'strict' })
    await Promise.all([...acts.map((act) => tx.store.put(act)), tx.done])
    return true
  } catch {
    return false
  }
}

/** Takes acts off: the farm has them, or they were let go. */
export async function drop(...ids: string[]) {
  const db = await shelf()
  if (!db) return
  const tx = db.transaction('acts', 'readwrite', { durability: 'strict' })
  await Promise.all([...ids.map((id) => tx.store.delete(id)), tx.done])
}
