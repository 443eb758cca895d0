import { type Act, readAct } from '@/api/outbox/act'

const FORMAT = 'zymarch-waiting/1'

/** What waits, as a file that another device takes in. */
export const asFile = (acts: Act[], device: string) =>
  JSON.stringify({ format: FORMAT, device, acts }, null, 1)

/** The acts of a file; none if it is no such file, or not whole. */
export function fromFile(text: string): Act[] | null {
  try {
    const { format, acts } = JSON.parse(text) as { format?: unknown; acts?: unknown }
    if (format !== FORMAT || !Array.isArray(acts)) return null
    const read = acts.map(readAct)
    return read.every((act) => act !== null) ? read : null
  } catch {
    return null
  }
}
