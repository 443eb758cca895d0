/** What has become known of lots since they were put on the bench. */
import type { BatchPart, Lot } from '@/api/client'

type Figures = Pick<BatchPart, 'own' | 'tests'>

/** The figures that lots have now, for the parts that still bear older ones, by their place. */
export function newFigures(parts: BatchPart[], lots: Lot[]): Map<number, Figures> {
  const found = new Map<number, Figures>()
  parts.forEach((part, index) => {
    const lot = lots.find((one) => one.id === part.lot_id)
    if (lot && lot.material === part.material && said(lot) !== said(part))
      found.set(index, { own: lot.own, tests: lot.tests })
  })
  return found
}

/** Figures as text that is equal when they are, whatever is left out or stands in another order. */
function said({ own, tests }: Figures): string {
  const given = Object.entries(own ?? {})
    .filter(([, value]) => value != null)
    .sort()
  const measured = (tests ?? [])
    .map(({ figure, value, test, on }) => [figure, value, test, on].join(' '))
    .sort()
  return JSON.stringify([given, measured])
}
