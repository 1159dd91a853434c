import { useLayoutEffect, useState } from 'react'

/** What part of the timeline is in view: sounds are drawn there alone. */
export function useScrolled() {
  const [view, setView] = useState({ left: 0, width: 0 })
  useLayoutEffect(() => {
    const el = document.querySelector<HTMLElement>('[data-timeline]')
    if (!el) return
    const look = () => {
      const head = el.querySelector<HTMLElement>('[data-rows]')?.offsetWidth ?? 0
      setView((v) =>
        v.left === el.scrollLeft && v.width === el.clientWidth - head
          ? v
          : { left: el.scrollLeft, width: el.clientWidth - head },
      )
    }
    look()
    el.addEventListener('scroll', look, { passive: true })
    const o = new ResizeObserver(look)
    o.observe(el)
    return () => {
      el.removeEventListener('scroll', look)
      o.disconnect()
    }
  }, [])
  return view
}
