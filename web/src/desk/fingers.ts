// Two fingers move and zoom the page, whatever one of them had begun.
import { useRef } from 'react'
import type { View } from '../engine/painter'
import { desk, set } from '../project/desk'
import { shownAt, toPage, within } from './view'

type Point = [number, number]

/**
 * Tells of a finger that is put down, moved or lifted at a point of the desk; true: it belongs to two that hold the
 * page, and begins nothing.
 */
export function useFingers(view: View | null, size: { w: number; h: number }, cancel: () => void) {
  const fingers = useRef(new Map<number, Point>())
  const pinch = useRef<{ apart: number; page: Point; scale: number } | null>(null)
  return (e: React.PointerEvent, is: 'down' | 'move' | 'up', at: Point): boolean => {
    const { film } = desk()
    if (e.pointerType !== 'touch' || !view || !film) return false
    if (is === 'up') {
      fingers.current.delete(e.pointerId)
      const held = pinch.current !== null
      if (fingers.current.size === 0) pinch.current = null
      return held
    }
    if (is === 'down' || fingers.current.has(e.pointerId)) fingers.current.set(e.pointerId, at)
    if (fingers.current.size < 2) return pinch.current !== null
    const [a, b] = [...fingers.current.values()]
    const apart = Math.max(1, Math.hypot(a[0] - b[0], a[1] - b[1]))
    const middle: Point = [(a[0] + b[0]) / 2, (a[1] + b[1]) / 2]
    if (is === 'down') {
      cancel()
      pinch.current = { apart, page: toPage(view, ...middle), scale: view.scale }
    } else if (pinch.current)
      set(shownAt(film, size, within((pinch.current.scale * apart) / pinch.current.apart), pinch.current.page, middle))
    return true
  }
}
