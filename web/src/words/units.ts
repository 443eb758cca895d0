/** Figures in the units a person thinks in. What is kept and sent is always kilograms, litres, centimetres. */

export type System = 'metric' | 'us'

export type Quantity =
  | 'mass' // kg
  | 'sample' // g
  | 'volume' // L
  | 'heap' // L, said in cubic metres or yards
  | 'length' // cm
  | 'altitude' // m
  | 'rain' // mm
  | 'temperature' // °C
  | 'swing' // K, a difference of temperatures
  | 'density' // kg/L

interface Unit {
  sign: string
  /** What is shown for one of what is kept. */
  per: number
  /** What is shown for none. */
  from?: number
  /** Decimals that are worth typing. */
  digits: number
}

/** Exact by definition: 1 lb = 0.45359237 kg, 1 in = 2.54 cm, 1 US gal = 231 cu in. */
const LB = 0.45359237
const GALLON_L = 3.785411784
const CUBIC_FOOT_L = 28.316846592

const UNITS: Record<System, Record<Quantity, Unit>> = {
  metric: {
    mass: { sign: 'kg', per: 1, digits: 2 },
    sample: { sign: 'g', per: 1, digits: 1 },
    volume: { sign: 'L', per: 1, digits: 2 },
    heap: { sign: 'm³', per: 1 / 1000, digits: 2 },
    length: { sign: 'cm', per: 1, digits: 1 },
    altitude: { sign: 'm', per: 1, digits: 0 },
    rain: { sign: 'mm', per: 1, digits: 0 },
    temperature: { sign: '°C', per: 1, digits: 1 },
    swing: { sign: '°C', per: 1, digits: 1 },
    density: { sign: 'kg/L', per: 1, digits: 3 },
  },
  us: {
    mass: { sign: 'lb', per: 1 / LB, digits: 2 },
    sample: { sign: 'oz', per: 16 / (LB * 1000), digits: 2 },
    volume: { sign: 'gal', per: 1 / GALLON_L, digits: 2 },
    heap: { sign: 'cu yd', per: 1 / (CUBIC_FOOT_L * 27), digits: 2 },
    length: { sign: 'in', per: 1 / 2.54, digits: 1 },
    altitude: { sign: 'ft', per: 1 / 0.3048, digits: 0 },
    rain: { sign: 'in', per: 1 / 25.4, digits: 1 },
    temperature: { sign: '°F', per: 1.8, from: 32, digits: 1 },
    swing: { sign: '°F', per: 1.8, digits: 1 },
    density: { sign: 'lb/cu ft', per: CUBIC_FOOT_L / LB, digits: 2 },
  },
}

export const signOf = (quantity: Quantity, system: System) => UNITS[system][quantity].sign
export const digitsOf = (quantity: Quantity, system: System) => UNITS[system][quantity].digits

/** What is shown for what is kept. */
export function toShown(value: number, quantity: Quantity, system: System): number {
  const { per, from = 0 } = UNITS[system][quantity]
  return value * per + from
}

/** What is kept for what is shown. */
export function fromShown(value: number, quantity: Quantity, system: System): number {
  const { per, from = 0 } = UNITS[system][quantity]
  return (value - from) / per
}
