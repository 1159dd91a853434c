// The points of a drawn path: how many, and what is done to those that are selected.
import { useMemo, useRef, useState } from 'react'
import { outlineNow } from '../actions/outline'
import { openPoints, leavePoints, partHandles, withPoints } from '../actions/drawing'
import { engine } from '../engine/engine'
import type { Intents, Selected } from '../engine/types'
import { run } from '../project/commands'
import { useDesk } from '../project/desk'
import { NumberField } from '../ui/NumberField'
import { Section } from '../ui/Section'
import { Button, Label } from '../ui/controls'

export function PointsPanel({ selected }: { selected: Selected }) {
  const { layer } = selected
  const editing = useDesk((d) => d.editing === layer.thread)
  const points = useDesk((d) => d.points)
  const moment = useDesk((d) => d.moment)
  const version = useDesk((d) => d.version)
  const [tolerance, setTolerance] = useState(2)
  const dragging = useDesk((d) => d.dragging)
  const before = useRef(0) // while something is dragged the count stays
  const count = useMemo(() => {
    if (!dragging || editing)
      before.current = layer.kind === 'path' ? outlineNow(moment, version, layer.thread).count : 0
    return before.current
  }, [moment, version, layer, dragging, editing])
  // Past a few hundred points the count would cost a moment at every edit.
  const kept = useMemo(
    () => (!dragging && count > 0 && count <= 200 ? engine.simplifiedTo(moment, layer.thread, tolerance) : undefined),
    [moment, version, layer, count, tolerance, dragging],
  )
  const some = points.length > 0
  const act = (word: string, intent: keyof Intents & `points.${string}`, needs = true) => (
    <Button className="!px-1" disabled={!editing || (needs && !some)} onClick={() => withPoints(intent)}>
      {word}
    </Button>
  )
  const several = (word: string, more: object) => (
    <Button className="!px-1" disabled={points.length < 2} onClick={() => withPoints('points.place', more)}>
      {word}
    </Button>
  )
  return (
    <Section title="Points">
      <div className="mb-2 flex items-center justify-between text-[0.75rem] text-ink-600">
        <span>
          {count} points{some && editing ? `, ${points.length} selected` : ''}
        </span>
        {editing ? (
          <Button onClick={leavePoints}>Done</Button>
        ) : (
          <Button title="Show its points on the page (Enter)" onClick={openPoints}>
            Open points
          </Button>
        )}
      </div>
      {editing && (
        <div className="grid grid-cols-3 gap-1.5">
          {act('Smooth', 'points.smooth')}
          {act('Corner', 'points.corner')}
          {act('Take out', 'points.remove')}
          {act('Join', 'points.join')}
          <Button
            className="!px-1"
            disabled={!editing || !some}
            title="Each of its handles goes by itself"
            onClick={partHandles}
          >
            Part
          </Button>
          {act('Cut here', 'points.cut')}
          {act('Close', 'points.close', false)}
          {act('Reverse', 'points.reverse', false)}
          {several('Row', { line: 'row' })}
          {several('Column', { line: 'column' })}
          {several('Half turn', { degree: 180 })}
        </div>
      )}
      {editing && points.length > 1 && (
        <div className="mt-2 grid grid-cols-[4rem_1fr_1fr] items-center gap-1.5">
          <Label>Turn, scale</Label>
          <NumberField
            quiet
            name="Turn the selected points by"
            unit="°"
            digits={1}
            min={-3600}
            max={3600}
            value={0}
            onSet={(degree) => withPoints('points.place', { degree })}
          />
          <NumberField
            quiet
            name="Scale the selected points to"
            unit="%"
            digits={0}
            min={1}
            max={10000}
            value={100}
            onSet={(k) => withPoints('points.place', { scale: k / 100 })}
          />
        </div>
      )}
      <div className="mt-2 grid grid-cols-[4rem_4.375rem_1fr] items-center gap-1.5">
        <Label>Simplify</Label>
        <NumberField
          quiet
          name="How far the line may move"
          unit="px"
          digits={1}
          min={0.1}
          max={1000}
          value={tolerance}
          onSet={setTolerance}
        />
        <Button
          title="Keeps as few points as hold the line within that"
          onClick={() => run('points.simplify', { thread: layer.thread, tolerance })}
        >
          {count} → {kept ?? 'fewer'}
        </Button>
      </div>
    </Section>
  )
}
