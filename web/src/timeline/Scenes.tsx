// The heading of the timeline: scenes along time, each as wide as it lasts, with their transitions between them.
import { Copy, Plus, Redo, SquarePlus } from 'lucide-react'
import { Menu, MenuButton, MenuItem, MenuItems } from '@headlessui/react'
import { useRef, useState } from 'react'
import { engine } from '../engine/engine'
import type { Film } from '../engine/types'
import { apply, run } from '../project/commands'
import { desk, goToScene, refresh, select, set, useDesk } from '../project/desk'
import { seconds } from '../ui/time'
import { strand } from './shape'
import { SceneThumb } from './thumbs'
import type { Scale } from './Timeline'

export function Scenes({ film, scale, top, height }: { film: Film; scale: Scale; top: number; height: number }) {
  const scene = useDesk((d) => d.scene)
  return (
    <div className="absolute inset-x-0" style={{ top, height }}>
      {film.scenes.map((s, i) => {
        const x = (s.start + s.into) * scale.perMs
        const w = Math.max(2, s.stay * scale.perMs - 1)
        const gap = s.into * scale.perMs
        return (
          <div key={s.id}>
            {i > 0 && <Transition film={film} index={i} x={s.start * scale.perMs} w={gap} height={height} scale={scale} />}
            <button
              type="button" data-scene={i} aria-current={i === scene} aria-label={`${s.name}, ${seconds(s.stay)}`}
              onClick={() => { goToScene(i); select([], '') }}
              onKeyDown={(e) => {
                if (e.key === 'Delete' || e.key === 'Backspace') { e.stopPropagation(); apply({ op: 'scene.delete', ids: [s.id] }) }
                if (e.key === 'ArrowRight' || e.key === 'ArrowLeft') {
                  e.preventDefault()
                  e.stopPropagation()
                  const to = document.querySelector<HTMLElement>(`[data-scene="${i + (e.key === 'ArrowRight' ? 1 : -1)}"]`)
                  to?.focus()
                  to?.click()
                }
              }}
              className={`absolute top-0 flex items-center gap-2 overflow-hidden rounded-md p-[3px] text-left ${i === scene ? 'bg-spruce-700 ring-1 ring-inset ring-brass-400' : 'bg-spruce-800 hover:bg-spruce-700'}`}
              style={{ left: x, width: w, height }}
            >
              {w > 30 && <SceneThumb scene={i} height={height - 6} width={Math.min(((height - 6) * film.width) / film.height, w - 6)} />}
              {w > 100 && (
                <span className="min-w-0 leading-tight">
                  <span className="block truncate font-semibold">{i + 1} {s.name}</span>
                  <span className="font-mono text-[12px] text-foam-300">{seconds(s.stay)}</span>
                </span>
              )}
            </button>
            <Edge
              name={`Stay of ${s.name}`} left={x + w} height={height} scale={scale} value={s.stay}
              command={(stay) => ({ op: 'scene.set', ids: [s.id], patch: { stay, autoStay: false } })}
            />
          </div>
        )
      })}
      <AddScene left={film.length * scale.perMs + 8} height={height} />
    </div>
  )
}

function Transition({ film, index, x, w, height, scale }: { film: Film; index: number; x: number; w: number; height: number; scale: Scale }) {
  const s = film.scenes[index]
  const mid = height * 0.42
  const open = () => { goToScene(index); select([], '') }
  const [a, b] = strand(2, Math.max(w - 2, 3), mid, 9)
  return (
    <>
      <button
        type="button" onClick={open} title={`${s.transition} into ${s.name}`} aria-label={`Transition into ${s.name}: ${s.transition}, ${seconds(s.into)}`}
        className="absolute top-0 rounded-md hover:bg-spruce-900" style={w < 24 ? { left: x - (24 - w) / 2, width: 24, height } : { left: x, width: w, height }}
      >
        <svg width={Math.max(w, 24)} height={height} aria-hidden className="absolute inset-0">
          {s.transition === 'morph' && <g fill="none" strokeWidth="1.8"><path d={b} stroke="#4C9AB8" /><path d={a} stroke="#EAF2EC" /></g>}
          {s.transition === 'crossfade' && <g fill="none" strokeWidth="1.8"><path d={`M2 ${mid + 9}L${w - 2} ${mid - 9}`} stroke="#4C9AB8" /><path d={`M2 ${mid - 9}L${w - 2} ${mid + 9}`} stroke="#EAF2EC" /></g>}
          {s.transition === 'cut' && <path d={`M12 8V${height - 8}`} stroke="#8FA8A1" strokeWidth="1.2" strokeDasharray="2 3" />}
        </svg>
        {w > 34 && <span className="absolute inset-x-0 bottom-1 text-center font-mono text-[11px] text-foam-300">{(s.into / 1000).toFixed(1)}{w > 84 ? ` ${s.transition}` : ''}</span>}
      </button>
      {s.into > 0 && (
        <Edge
          name={`Transition into ${s.name}`} left={x + w - 3} height={height} scale={scale} value={s.into} min={10}
          command={(duration) => ({ op: 'scene.set', ids: [s.id], patch: { transition: { duration } } })}
        />
      )}
    </>
  )
}

/** An edge that is dragged, or moved by arrow keys, to change a duration. */
function Edge({ name, left, height, scale, value, min = 0, command }: {
  name: string; left: number; height: number; scale: Scale; value: number; min?: number; command: (ms: number) => object
}) {
  const from = useRef<{ x: number; value: number; perMs: number } | null>(null)
  const [now, setNow] = useState<number | null>(null)
  const rounded = (ms: number) => Math.max(min, Math.round(ms / 10) * 10)
  return (
    <div
      role="slider" tabIndex={0} aria-label={name} aria-valuenow={value / 1000} aria-valuemin={min / 1000} aria-valuetext={seconds(value)}
      className="group absolute z-10 w-[9px] -translate-x-1/2 cursor-ew-resize" style={{ left, height }} data-edge={name}
      onPointerDown={(e) => {
        e.currentTarget.setPointerCapture(e.pointerId)
        from.current = { x: e.clientX, value, perMs: scale.perMs }
        set({ dragging: true })
      }}
      onPointerMove={(e) => {
        const f = from.current
        if (!f) return
        const ms = rounded(f.value + (e.clientX - f.x) / f.perMs)
        if (ms === now) return
        setNow(ms)
        try {
          engine.draft(command(ms))
          set({ film: engine.film(), rows: engine.rows(desk().moment), version: desk().version + 1 })
        } catch { engine.clearDraft() }
      }}
      onPointerUp={() => {
        if (from.current && now !== null && now !== from.current.value) apply(command(now))
        else { engine.clearDraft(); refresh() }
        from.current = null
        setNow(null)
        set({ dragging: false })
      }}
      onKeyDown={(e) => {
        const by = { ArrowLeft: -100, ArrowRight: 100 }[e.key]
        if (!by) return
        e.preventDefault()
        e.stopPropagation()
        apply(command(Math.max(min, value + by)))
      }}
    >
      <span className="absolute inset-y-1 left-[3px] w-[3px] rounded bg-brass-400 opacity-0 group-hover:opacity-100 group-focus-visible:opacity-100" />
      {now !== null && <span className="absolute -top-1 left-3 z-20 whitespace-nowrap rounded-md bg-paper px-2 py-0.5 font-mono text-[12px] text-ink-900">{seconds(now)}</span>}
    </div>
  )
}

function AddScene({ left, height }: { left: number; height: number }) {
  const last = () => desk().film!.scenes.length - 1
  const add = (intent: string) => {
    const at = desk().scene
    if (run(intent)) { goToScene(Math.min(at + 1, last())); select([], '') }
  }
  const item = 'flex w-full items-center gap-2 rounded-md px-2 py-1 text-left data-focus:bg-brass-200'
  return (
    <Menu>
      <MenuButton
        aria-label="Add a scene" title="Add a scene after the current one" className="absolute top-0 flex w-[34px] items-center justify-center rounded-md border border-dashed border-foam-500/60 text-foam-300 hover:bg-spruce-800"
        style={{ left, height }}
      >
        <Plus size={18} strokeWidth={1.5} />
      </MenuButton>
      <MenuItems anchor={{ to: 'top end', gap: 6, padding: 8 }} className="z-50 w-[280px] rounded-md border border-sailcloth-300 bg-paper p-1 text-ink-900 shadow-[0_8px_28px_rgb(12_37_35/0.25)] focus:outline-none">
        <MenuItem><button type="button" className={item} onClick={() => add('scene.continue')}><Redo size={16} strokeWidth={1.5} />Continue scene<span className="ml-auto text-[11px] text-ink-500">from how this one ends</span></button></MenuItem>
        <MenuItem><button type="button" className={item} onClick={() => add('scene.duplicate')}><Copy size={16} strokeWidth={1.5} />Duplicate scene<span className="ml-auto text-[11px] text-ink-500">with all its moves</span></button></MenuItem>
        <MenuItem><button type="button" className={item} onClick={() => add('scene.add')}><SquarePlus size={16} strokeWidth={1.5} />Blank scene</button></MenuItem>
      </MenuItems>
    </Menu>
  )
}
