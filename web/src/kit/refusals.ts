import { Refused } from '@/api/client'

/** What stands for a server that says nothing, and for a record that was changed elsewhere. */
export interface Otherwise {
  noServer: string
  stale?: string
}

/** What a failure says to the person, in one line. */
export function told(failure: unknown, { noServer, stale }: Otherwise): string {
  if (!(failure instanceof Refused)) return noServer
  return failure.isStale && stale ? stale : failure.message
}

/**
 * The reasons of a refusal, each under the field of the form that shows it: the first
 * of a field stands, and what no field shows is said of the whole.
 */
export function atFields(
  failure: unknown,
  otherwise: Otherwise,
  fieldOf: (path: string) => string | null,
): Record<string, string> {
  if (!(failure instanceof Refused) || failure.isStale) return { whole: told(failure, otherwise) }
  const faults: Record<string, string> = {}
  for (const { field, reason } of failure.problem.errors) {
    const at = fieldOf(field)
    if (at) faults[at] ??= reason
    else faults.whole ??= failure.message
  }
  return Object.keys(faults).length ? faults : { whole: failure.message }
}

/** The field that shows a path: by its last name, or else by its first; none if it is none of them. */
export const fieldAmong =
  (...fields: string[]) =>
  (path: string): string | null => {
    const names = path.split('.').map((name) => name.replace(/\[\d+\]/g, ''))
    return (
      fields.find((field) => field === names.at(-1)) ?? fields.find((field) => names.includes(field)) ?? null
    )
  }
