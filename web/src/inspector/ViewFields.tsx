// Views: what part of the page is seen, and how far layers are from it.
import type { Selected } from '../engine/types'
import { run } from '../project/commands'
import { desk, select, useDesk } from '../project/desk'
import { Check } from '../ui/Check'
import { NumberField } from '../ui/NumberField'
import { Fold, Section } from '../ui/Section'
import { Button } from '../ui/controls'
import { addMove } from '../actions/adding'
import { shared } from './shared'

/** A view: how many times as large it shows the page. */
export function ViewFields({ of }: { of: Selected }) {
  const film = useDesk((d) => d.film)!
  const { thread, place } = of.layer
  return (
    <Section title="View">
      <div className="grid grid-cols-[3.875rem_1fr] items-center gap-x-2 gap-y-2">
        <NumberField
          label="Zoom"
          name="Zoom of the view"
          unit="%"
          min={100 / 64}
          max={6400}
          value={Math.round((film.width / (place.w || film.width)) * 1000) / 10}
          onSet={(v) => run('view.zoom', { threads: [thread], zoom: v / 100 })}
        />
      </div>
      <div className="mt-2 flex flex-wrap gap-1">
        <Button className="!h-7 !px-2 text-[0.75rem]" onClick={() => run('view.whole', { threads: [thread] })}>
          The whole page
        </Button>
        {(['push', 'pull', 'pan'] as const).map((variant) => (
          <Button
            key={variant}
            className="!h-7 !px-2 text-[0.75rem]"
            onClick={() => addMove({ kind: 'change', effect: 'becomes', variant })}
          >
            {{ push: 'Push in', pull: 'Pull out', pan: 'Pan across' }[variant]}
          </Button>
        ))}
      </div>
      <p className="mt-2 text-[0.75rem] leading-snug text-ink-600">
        Its frame on the page is what is seen. A change of it pans, pushes in or turns; drag the frame while one is
        edited.
      </p>
    </Section>
  )
}

/** How far away layers are, and whether they stay while the view moves. */
export function DepthFields({ selected }: { selected: Selected[] }) {
  const threads = selected.map((s) => s.layer.thread)
  const depth = shared(selected.map((s) => s.layer.depth || 1))
  const stays = selected.every((s) => s.layer.stays)
  return (
    <Fold title="Depth" folded={depth === 1 && !stays}>
      <div className="grid grid-cols-[3.875rem_1fr] items-center gap-x-2 gap-y-2 pt-1">
        <NumberField
          label="Depth"
          name="How many times as far away as the page"
          digits={1}
          step={0.1}
          min={0.1}
          max={1000}
          value={depth}
          onSet={(v) => run('depth', { threads, depth: v })}
        />
        <Check name="Stays while the view moves" on={stays} onSet={(v) => run('depth', { threads, stays: v })} />
        {selected.length > 1 && (
          <Button
            className="col-span-2 !h-7 text-[0.75rem]"
            title="By their order: the front-most where the page is, each next 1.6 times as far"
            onClick={() => run('depth.spread', { threads })}
          >
            Spread in depth
          </Button>
        )}
      </div>
    </Fold>
  )
}

/** The view of the scene that is shown: added, or selected where there is one. */
export function SceneView() {
  const frame = useDesk((d) => d.rows.find((r) => r.here && r.kind === 'view')?.thread)
  const add = (variant = '') => {
    if (!frame && !run('view.add', {})) return
    const thread = frame ?? desk().rows.find((r) => r.here && r.kind === 'view')?.thread
    if (!thread) return
    select([thread], '')
    if (variant) addMove({ kind: 'change', effect: 'becomes', variant })
  }
  return (
    <Section title="View">
      <div className="flex flex-wrap gap-1">
        <Button className="!h-7 !px-2 text-[0.75rem]" onClick={() => add()}>
          {frame ? 'Select the view' : 'Add a view'}
        </Button>
        <Button className="!h-7 !px-2 text-[0.75rem]" onClick={() => add('push')}>
          Push in
        </Button>
        <Button className="!h-7 !px-2 text-[0.75rem]" onClick={() => add('pan')}>
          Pan across
        </Button>
      </div>
      {!frame && <p className="mt-1.5 text-[0.75rem] text-ink-500">The scene shows all of the page.</p>}
    </Section>
  )
}
