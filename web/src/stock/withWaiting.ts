import type { Lot, LotAct, LotFields } from '@/api/client'
import type { Act } from '@/api/outbox/act'

/**
 * Lots with everything done to them that still waits for a signal. What it weighs is reckoned by the
 * farm; until then it weighs in proportion.
 */
export function withWaiting(lots: Lot[], acts: Act[]): Lot[] {
  let stands = lots
  for (const { kind, of, body, shows } of acts) {
    const put = (to: (lot: Lot) => Lot) => (stands = stands.map((lot) => (lot.id === of ? to(lot) : lot)))
    if (kind === 'lot-remove') stands = stands.filter(({ id }) => id !== of)
    if (kind === 'lot-change') put((lot) => changed(lot, body?.lot as LotFields))
    if (kind === 'lot-happened') {
      const { kind: what, amount } = body as unknown as { kind: LotAct; amount: number }
      put((lot) => holding(lot, lot.amount + (what === 'delivered' ? amount : -amount)))
    }
    if (kind === 'lot-unhappened') put((lot) => holding(lot, lot.amount - (shows as number)))
  }
  return stands
}

function changed(lot: Lot, fields: LotFields): Lot {
  const { amount, ...rest } = fields
  const isSame = rest.unit === lot.unit && (rest.measure_id ?? null) === (lot.measure_id ?? null)
  return isSame ? { ...holding(lot, amount), ...rest } : { ...lot, ...rest, amount }
}

function holding(lot: Lot, to: number): Lot {
  const amount = Math.max(0, Math.round(to * 1e6) / 1e6)
  const share = lot.amount > 0 ? amount / lot.amount : 0
  return { ...lot, amount, kg: lot.kg * share, litres: lot.litres * share }
}
