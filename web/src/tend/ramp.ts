/**
 * The colours of heat: slate when cold, stone, ochre when warm, amber, ember when too hot. Nothing else on a
 * page uses these hues, and a figure or a word always stands beside them.
 */
type Rgb = readonly [number, number, number]

const STOPS: readonly (readonly [number, Rgb])[] = [
  [5, [88, 116, 143]],
  [22, [146, 153, 150]],
  [35, [196, 178, 122]],
  [45, [214, 158, 62]],
  [55, [211, 117, 30]],
  [65, [190, 70, 24]],
  [73, [150, 28, 24]],
]

/** The colour of a temperature, °C. */
function mixed(celsius: number): Rgb {
  const at = STOPS.findIndex(([from]) => celsius < from)
  if (at === 0) return STOPS[0]![1]
  if (at < 0) return STOPS.at(-1)![1]
  const [low, from] = STOPS[at - 1]!
  const [high, to] = STOPS[at]!
  const part = (celsius - low) / (high - low)
  return [0, 1, 2].map((place) =>
    Math.round(from[place]! + part * (to[place]! - from[place]!)),
  ) as unknown as Rgb
}

export const heatColour = (celsius: number): string => `rgb(${mixed(celsius).join(' ')})`

/** Stops of a gradient that runs with the temperature, from cold to hot. */
export const heatStops = () => STOPS.map(([celsius, rgb]) => ({ celsius, colour: `rgb(${rgb.join(' ')})` }))

/** Relative luminance (WCAG 2.2). */
function luminance(rgb: Rgb): number {
  const [r, g, b] = rgb.map((part) => {
    const share = part / 255
    return share <= 0.04045 ? share / 12.92 : ((share + 0.055) / 1.055) ** 2.4
  })
  return 0.2126 * r! + 0.7152 * g! + 0.0722 * b!
}

/** Whether black writing stands out better on it than white. */
export const wantsInk = (celsius: number): boolean => (luminance(mixed(celsius)) + 0.05) ** 2 > 1.05 * 0.05

/** How far black or white writing, whichever is better, stands out on it. */
export function contrast(celsius: number): number {
  const light = luminance(mixed(celsius)) + 0.05
  return wantsInk(celsius) ? light / 0.05 : 1.05 / light
}
