const MOVED_KEPT_AS = 'zymarch-moved'
const MOST_MOVED = 50

/** Heaps that were begun here, and which ones they are at the farm: whoever comes back to the one finds the other. */
export function movedBefore(): [string, string][] {
  try {
    const found: unknown = JSON.parse(localStorage.getItem(MOVED_KEPT_AS) ?? '[]')
    return Array.isArray(found) ? (found as [string, string][]).filter((one) => one?.length === 2) : []
  } catch {
    return []
  }
}

/** Keeps it beyond the page. */
export function keepMoved(moved: [string, string][]) {
  try {
    localStorage.setItem(MOVED_KEPT_AS, JSON.stringify(moved.slice(-MOST_MOVED)))
  } catch {
    // Where nothing can be kept it is known until the page is closed.
  }
}
