// To a scene by its name, or its number.
import { useState } from 'react'
import { Combobox, ComboboxInput, ComboboxOption, ComboboxOptions } from '@headlessui/react'
import type { Heading } from '../engine/types'
import { goToScene, select, set, useDesk } from '../project/desk'
import { seconds } from '../time'
import { Sheet } from '../ui/Sheet'
import { SceneThumb } from './thumbs'

/** More than these need more letters. */
const most = 60

export function SceneFinder() {
  const film = useDesk((d) => d.film)!
  const [typed, setTyped] = useState('')
  const close = () => set({ sheet: 'none' })
  const words = typed.trim().toLowerCase()
  const found = film.scenes
    .map((scene, index) => ({ scene, index }))
    .filter(({ scene, index }) => !words || scene.name.toLowerCase().includes(words) || String(index + 1) === words)
  const go = (v: { scene: Heading; index: number } | null) => {
    if (!v) return
    close()
    goToScene(v.index)
    select([], '')
  }
  return (
    <Sheet title="To a scene" onClose={close}>
      <div className="px-5 pb-4 pt-3" data-scene-finder>
        <Combobox immediate onChange={go}>
          <ComboboxInput
            data-autofocus
            autoFocus
            aria-label="Name or number of the scene"
            placeholder="Name or number"
            className="h-8 w-full rounded-md border border-sailcloth-500 bg-paper px-2.5 text-[0.875rem]"
            onChange={(e) => setTyped(e.target.value)}
          />
          <ComboboxOptions static modal={false} className="thin-scroll mt-2 h-84 overflow-auto focus:outline-none">
            {found.slice(0, most).map((v) => (
              <ComboboxOption
                key={v.scene.id}
                value={v}
                className="flex cursor-pointer items-center gap-2.5 rounded-md px-1.5 py-1 data-focus:bg-brass-200"
              >
                <span className="flex w-14 shrink-0 justify-center">
                  <SceneThumb scene={v.index} height={30} width={Math.min(56, (30 * film.width) / film.height)} />
                </span>
                <span className="w-8 text-right font-mono text-[0.75rem] text-ink-500">
                  {v.scene.aside ? '' : v.index + 1}
                </span>
                <span className="min-w-0 flex-1 truncate">{v.scene.name}</span>
                <span className="font-mono text-[0.75rem] text-ink-500">
                  {v.scene.template ? 'template' : v.scene.aside ? 'aside' : seconds(v.scene.stay)}
                </span>
              </ComboboxOption>
            ))}
          </ComboboxOptions>
        </Combobox>
        <p className="mt-1.5 text-[0.6875rem] text-ink-500">
          {found.length === 0
            ? 'No scene is called like that.'
            : found.length > most
              ? `${most} of ${found.length} scenes. Type more of the name.`
              : `${found.length === 1 ? 'One scene' : `${found.length} scenes`}. Arrow keys choose, Enter goes there.`}
        </p>
      </div>
    </Sheet>
  )
}
