// The selected layers in the scenes that follow: carried on, or a step further in each.
import { useState } from 'react'
import type { Selected } from '../engine/types'
import { run } from '../project/commands'
import { useDesk } from '../project/desk'
import { NumberField } from '../ui/NumberField'
import { Section } from '../ui/Section'
import { Button } from '../ui/controls'
import { counted } from '../words'

export function AcrossScenes({ selected }: { selected: Selected[] }) {
  const film = useDesk((d) => d.film)!
  const scene = useDesk((d) => d.scene)
  if (film.shown < 2 || film.scenes[scene].aside) return null
  const threads = selected.map((s) => s.layer.thread)
  const later = Math.max(...selected.map((s) => s.later))
  const last = scene === film.shown - 1
  return (
    <Section title="Across scenes" folded>
      <p className="text-[0.75rem] text-ink-600">
        {later === 0
          ? 'In no later scene.'
          : `Goes on in ${counted(later, 'later scene')}: one thread, which is one layer through the scenes.`}
      </p>
      <div className="mt-1.5 grid grid-cols-2 gap-1.5">
        <Button
          className="!px-1"
          disabled={last}
          title="Puts it into the next scene, without its moves; where it is there already, its moves get these numbers"
          onClick={() => run('carry.all', { threads, next: true })}
        >
          Carry to next
        </Button>
        <Button
          className="!px-1"
          title="Puts it into all scenes that lack it, without its moves"
          onClick={() => run('carry.all', { threads })}
        >
          Carry to all
        </Button>
        <Button
          className="col-span-2 !px-1"
          disabled={later === 0 && scene === 0}
          title="Place and look in all scenes in which it lives as they are here; words stay"
          onClick={() => run('thread.same', { threads })}
        >
          Same in all
        </Button>
      </div>
      {later > 0 && (
        <ShiftBy
          key={`${threads.join()} ${JSON.stringify(selected[0].shift)}`}
          threads={threads}
          shift={selected[0].shift}
        />
      )}
    </Section>
  )
}

/** A step from scene to scene. Its fields are for what is selected now: other layers begin with none. */
function ShiftBy({ threads, shift }: { threads: string[]; shift: Selected['shift'] }) {
  const step = shift?.step
  const [by, setBy] = useState({
    dx: step?.x ?? 0,
    dy: step?.y ?? 0,
    turn: step?.turn ?? 0,
    size: 100 * (step?.size || 1),
    opacity: 100 * (step?.opacity ?? 0),
    hue: step?.hue ?? 0,
    light: 100 * (step?.light ?? 0),
  })
  return (
    <>
      {shift && (
        <p className="mt-2 rounded-md bg-brass-200/55 px-2 py-1 text-[0.75rem]" data-shift={shift.scenes}>
          Goes on by this step through {shift.scenes} scenes, from scene {shift.first + 1} on. A scene put between takes
          its place.
        </p>
      )}
      <div className="mt-2 grid grid-cols-[2.75rem_1fr_2.75rem_1fr] items-center gap-x-2 gap-y-1.5">
        <NumberField
          quiet
          label="Across"
          name="Shift across, a scene"
          unit="px"
          value={by.dx}
          onSet={(dx) => setBy({ ...by, dx })}
        />
        <NumberField
          quiet
          label="Down"
          name="Shift down, a scene"
          unit="px"
          value={by.dy}
          onSet={(dy) => setBy({ ...by, dy })}
        />
        <NumberField
          quiet
          label="Turn"
          name="Turn, a scene"
          unit="°"
          digits={1}
          value={by.turn}
          onSet={(turn) => setBy({ ...by, turn })}
        />
        <NumberField
          quiet
          label="Size"
          name="Size, a scene"
          unit="%"
          min={1}
          max={10000}
          value={by.size}
          onSet={(size) => setBy({ ...by, size })}
        />
        <NumberField
          quiet
          label="Opacity"
          name="Opacity added, a scene"
          unit="%"
          min={-100}
          max={100}
          value={by.opacity}
          onSet={(opacity) => setBy({ ...by, opacity })}
        />
        <NumberField
          quiet
          label="Hue"
          name="Hue added, a scene"
          unit="°"
          onSet={(hue) => setBy({ ...by, hue })}
          value={by.hue}
        />
        <NumberField
          quiet
          label="Light"
          name="Lightness added, a scene"
          unit="%"
          min={-100}
          max={100}
          value={by.light}
          onSet={(light) => setBy({ ...by, light })}
        />
      </div>
      <Button
        className="mt-1.5 w-full"
        title="In each scene that follows it stands a step further, from where it is here"
        onClick={() =>
          run('shift.by', {
            threads,
            dx: by.dx,
            dy: by.dy,
            turn: by.turn,
            size: by.size / 100,
            opacity: by.opacity / 100,
            hue: by.hue,
            light: by.light / 100,
          })
        }
      >
        Shift by
      </Button>
    </>
  )
}
