// Adding a scene, at the end of the film.
import { clsx } from 'clsx'
import { Copy, Plus, Redo, SquarePlus } from 'lucide-react'
import { Menu, MenuButton, MenuItem, MenuItems } from '@headlessui/react'
import type { Intents } from '../engine/types'
import { run } from '../project/commands'
import { desk, goToScene, select } from '../project/desk'

export function AddScene({ left, height }: { left: number; height: number }) {
  const add = (intent: keyof Intents, args: Intents[keyof Intents] = {}) => {
    const before = new Set(desk().film!.scenes.map((s) => s.id))
    if (!run(intent, args)) return
    goToScene(desk().film!.scenes.findIndex((s) => !before.has(s.id)))
    select([], '')
  }
  const item = 'flex w-full items-center gap-2 rounded-md px-2 py-1 text-left data-focus:bg-brass-200'
  const entry = (
    icon: React.ReactNode,
    word: string,
    says: string,
    intent: keyof Intents,
    args?: Intents[keyof Intents],
  ) => (
    <MenuItem>
      <button type="button" className={item} onClick={() => add(intent, args)}>
        {icon}
        {word}
        <span className="ml-auto text-[0.6875rem] text-ink-500">{says}</span>
      </button>
    </MenuItem>
  )
  return (
    <Menu>
      <MenuButton
        aria-label="Add a scene"
        title="Add a scene after the current one"
        className={clsx(
          'absolute top-0 flex w-8.5 items-center justify-center rounded-md border border-dashed',
          'border-foam-500/60 text-foam-300 hover:bg-spruce-800',
        )}
        style={{ left, height }}
      >
        <Plus size={18} strokeWidth={1.5} />
      </MenuButton>
      <MenuItems
        anchor={{ to: 'top end', gap: 6, padding: 8 }}
        className={clsx(
          'z-50 w-72.5 rounded-md border border-sailcloth-300 bg-paper p-1 text-ink-900',
          'shadow-[0_8px_28px_rgb(12_37_35/0.25)] focus:outline-none',
        )}
      >
        {entry(<Redo size={16} strokeWidth={1.5} />, 'Continue scene', 'from how this one ends', 'scene.continue')}
        {entry(<Copy size={16} strokeWidth={1.5} />, 'Duplicate scene', 'with all its moves', 'scene.duplicate')}
        {entry(<SquarePlus size={16} strokeWidth={1.5} />, 'Blank scene', 'after this one', 'scene.add')}
        {entry(<SquarePlus size={16} strokeWidth={1.5} />, 'Blank scene before', 'in front of this one', 'scene.add', {
          before: true,
        })}
      </MenuItems>
    </Menu>
  )
}
