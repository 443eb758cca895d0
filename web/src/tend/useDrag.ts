import type { Ref } from 'vue'

interface Drag {
  element: Readonly<Ref<SVGSVGElement | null>>
  /** Moved by so many px to the right. */
  pan: (px: number) => void
  /** Drawn apart or together, at so many px from the left. */
  zoom: (by: number, px: number) => void
  /** Pointed at so many px from the left; none when it goes away. */
  point: (px: number | null) => void
}

/** A picture moved with one finger, drawn apart with two, and zoomed by a wheel that is held with Ctrl. */
export function useDrag({ element, pan, zoom, point }: Drag) {
  const fingers = new Map<number, number>()

  const left = () => element.value?.getBoundingClientRect().left ?? 0

  function apart(): { middle: number; width: number } | null {
    const [one, two] = [...fingers.values()]
    if (one === undefined || two === undefined) return null
    return { middle: (one + two) / 2, width: Math.max(20, Math.abs(one - two)) }
  }

  function down(event: PointerEvent) {
    fingers.set(event.pointerId, event.clientX - left())
    point(event.clientX - left())
    if (event.pointerType === 'mouse' || fingers.size > 1)
      (event.currentTarget as Element).setPointerCapture(event.pointerId)
  }

  function move(event: PointerEvent) {
    const px = event.clientX - left()
    const before = fingers.get(event.pointerId)
    if (before === undefined) {
      if (event.pointerType === 'mouse') point(px)
      return
    }
    const was = apart()
    fingers.set(event.pointerId, px)
    const now = apart()
    if (was && now) {
      zoom(now.width / was.width, now.middle)
      pan(now.middle - was.middle)
    } else {
      pan(px - before)
      point(px)
    }
  }

  function up(event: PointerEvent) {
    fingers.delete(event.pointerId)
  }

  function leave(event: PointerEvent) {
    up(event)
    if (event.pointerType === 'mouse') point(null)
  }

  function wheel(event: WheelEvent) {
    if (!event.ctrlKey) return
    event.preventDefault()
    zoom(Math.exp(-event.deltaY / 200), event.clientX - left())
  }

  return {
    pointerdown: down,
    pointermove: move,
    pointerup: up,
    pointercancel: up,
    pointerleave: leave,
    wheel,
  }
}
