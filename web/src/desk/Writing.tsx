// The caret among the letters of a text on the page. The browser's own text field takes what is typed, so that its
// input methods, clipboard and spelling go on working; it lies unseen under the caret, which the engine places.
import { useEffect, useLayoutEffect, useMemo, useRef } from 'react'
import { engine } from '../engine/engine'
import type { View } from '../engine/painter'
import type { XY } from '../engine/types'
import { run } from '../project/commands'
import { desk, useDesk } from '../project/desk'
import {
  compose,
  keepWords,
  markWords,
  placeOf,
  stepWords,
  stopWriting,
  toggleWords,
  typeWords,
  unitOf,
  wordsOf,
} from '../project/writing'
import { toDesk } from './view'

const steps = { ArrowUp: 'up', ArrowDown: 'down', Home: 'begin', End: 'end' } as const

export function Writing({ view, size }: { view: View; size: { w: number; h: number } }) {
  const writing = useDesk((d) => d.writing)!
  const moment = useDesk((d) => d.moment)
  const version = useDesk((d) => d.version)
  const { thread, anchor, caret } = writing
  const shown = useMemo(() => engine.writing(moment, thread, anchor, caret), [moment, version, thread, anchor, caret])
  const field = useRef<HTMLTextAreaElement>(null)
  // What the field itself told last. By the time that is shown, quick keys have moved the field on.
  const told = useRef('')
  const words = wordsOf(thread)
  const name = desk().selected[0]?.layer.name ?? ''

  // The key that began the editing, still held down, is no line end.
  const held = useRef(true)
  useEffect(() => {
    const el = field.current!
    const first = (e: InputEvent) => {
      if (held.current && e.inputType === 'insertLineBreak') e.preventDefault()
    }
    const up = () => {
      held.current = false
    }
    // Not React's own event: it tells of selections that have yet to be set.
    const marked = () => {
      if (document.activeElement !== el || el.value !== wordsOf(thread)) return
      const [a, b] = [placeOf(el.value, el.selectionStart), placeOf(el.value, el.selectionEnd)]
      const [from, to] = el.selectionDirection === 'backward' ? [b, a] : [a, b]
      told.current = `${from} ${to} ${el.value}`
      markWords(from, to)
    }
    el.addEventListener('beforeinput', first)
    document.addEventListener('selectionchange', marked)
    window.addEventListener('keyup', up)
    el.focus({ preventScroll: true })
    return () => {
      el.removeEventListener('beforeinput', first)
      document.removeEventListener('selectionchange', marked)
      window.removeEventListener('keyup', up)
    }
  }, [thread])
  useLayoutEffect(() => {
    const el = field.current
    if (!el || told.current === `${anchor} ${caret} ${words}`) return
    told.current = ''
    const [a, b] = [unitOf(words, Math.min(anchor, caret)), unitOf(words, Math.max(anchor, caret))]
    if (el.selectionStart !== a || el.selectionEnd !== b)
      el.setSelectionRange(a, b, caret < anchor ? 'backward' : 'forward')
  }, [words, anchor, caret])

  if (!shown) return null
  const path = (list: XY[]) => `M${list.map((p) => toDesk(view, p)).join('L')}Z`
  const [top, foot] = shown.caret.map((p) => toDesk(view, p))
  // Out of sight the field would be scrolled to, and the desk with it.
  const clamp = (v: number, to: number) => Math.max(0, Math.min(v, to - 24))
  const high = Math.min(Math.max(Math.hypot(foot[0] - top[0], foot[1] - top[1]), 8), 48)
  const feet = shown.marked.map((q) => `M${toDesk(view, q[3])}L${toDesk(view, q[2])}`).join('')
  const line = `M${top}L${foot}`

  const onKeyDown = (e: React.KeyboardEvent) => {
    if (e.key === 'F6' || e.key === 'Tab') return
    e.stopPropagation()
    if (!e.repeat) held.current = false
    if (e.nativeEvent.isComposing) return
    const control = e.ctrlKey || e.metaKey
    if (e.key === 'Escape') {
      e.preventDefault()
      stopWriting()
      document.querySelector<HTMLElement>('[data-desk]')?.focus()
    } else if (control && (e.key.toLowerCase() === 'z' || e.key.toLowerCase() === 'y')) {
      e.preventDefault()
      stepWords(e.key.toLowerCase() === 'z' && !e.shiftKey)
    } else if (control && (e.key.toLowerCase() === 'b' || e.key.toLowerCase() === 'i')) {
      e.preventDefault()
      toggleWords(e.key.toLowerCase() === 'b' ? 'bold' : 'italic')
    } else if (control && (e.key === 'ArrowUp' || e.key === 'ArrowDown')) {
      e.preventDefault()
      keepWords()
      run('text.grow', { threads: [thread], by: e.key === 'ArrowUp' ? 1 : -1 })
    } else if (e.key in steps && !control) {
      e.preventDefault()
      const to = engine.writingStep(moment, thread, caret, steps[e.key as keyof typeof steps])
      markWords(e.shiftKey ? anchor : to, to)
    }
  }

  return (
    <>
      <svg
        className="pointer-events-none absolute inset-0"
        width={size.w}
        height={size.h}
        aria-hidden
        data-writing={thread}
      >
        <path d={path(shown.frame)} fill="none" stroke="#FFFDF8" strokeWidth="3" strokeOpacity="0.8" />
        <path d={path(shown.frame)} fill="none" stroke="#A8731A" strokeWidth="1" />
        {shown.marked.map((q, i) => (
          <path key={i} d={path(q)} fill="#C99A3B" fillOpacity="0.3" data-marked />
        ))}
        {/* The line below them is seen on any ground. */}
        <path d={feet} fill="none" stroke="#FFFDF8" strokeWidth="4" strokeLinecap="round" />
        <path d={feet} fill="none" stroke="#8A5B10" strokeWidth="1.8" strokeLinecap="round" />
        {anchor === caret && (
          <g key={`${caret} ${words.length}`} className="caret" data-caret={`${top} ${foot}`}>
            <path d={line} stroke="#FFFDF8" strokeWidth="4.5" strokeLinecap="round" />
            <path d={line} stroke="#8A5B10" strokeWidth="2" strokeLinecap="round" />
          </g>
        )}
      </svg>
      <textarea
        ref={field}
        data-words
        aria-label={`Words of ${name}`}
        dir="auto"
        wrap="off"
        spellCheck={false}
        autoComplete="off"
        value={words}
        className="absolute resize-none overflow-hidden border-0 p-0 opacity-0 !outline-none"
        style={{
          left: clamp(foot[0], size.w),
          top: clamp(Math.min(top[1], foot[1]), size.h),
          width: 1,
          height: high,
          fontSize: high * 0.8,
          pointerEvents: 'none',
        }}
        onChange={(e) => {
          const { value, selectionEnd } = e.currentTarget
          const { inputType, data } = e.nativeEvent as InputEvent
          const taken = inputType?.startsWith('delete') ?? false
          const whole =
            ((data ?? '').length > 1 && inputType === 'insertText') ||
            // Pasted, dropped, a line end.
            (inputType !== 'insertText' && inputType !== 'insertCompositionText' && !taken)
          if (whole) keepWords()
          typeWords(value, placeOf(value, selectionEnd), taken ? 'taken' : 'put', whole || /\s$/.test(data ?? ''))
        }}
        onCompositionStart={() => compose(true)}
        onCompositionEnd={() => {
          compose(false)
          keepWords()
        }}
        onBlur={keepWords}
        onKeyDown={onKeyDown}
        onBeforeInput={(e) => {
          const { inputType } = e.nativeEvent as InputEvent
          if (inputType !== 'historyUndo' && inputType !== 'historyRedo') return
          e.preventDefault()
          stepWords(inputType === 'historyUndo')
        }}
      />
    </>
  )
}

/** Lets the next key go to the words that are edited. */
export function focusWords() {
  document.querySelector<HTMLElement>('[data-words]')?.focus({ preventScroll: true })
}
