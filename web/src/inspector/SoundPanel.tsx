// Sounds that are selected: when they are heard, how loud, and how all of the film's go together.
import { clsx } from 'clsx'
import { useRef, useState } from 'react'
import type { SoundRow } from '../engine/types'
import { deleteSounds, replaceSound } from '../actions/sounds'
import { run } from '../project/commands'
import { fail, useDesk } from '../project/desk'
import { beatsOf, soundFiles } from '../server/server'
import { Check } from '../ui/Check'
import { Choice } from '../ui/Choice'
import { NumberField } from '../ui/NumberField'
import { Section } from '../ui/Section'
import { Button, Label } from '../ui/controls'
import { TextField } from '../ui/TextField'
import { shared } from './shared'
import { SpeakFields } from './SpeakFields'
import { CaptionStyle } from './CaptionPanel'
import { Marks } from './Marks'
import { Together } from './Together'

const uses = { music: 'Music', effect: 'Effect', voice: 'Voice' }
const grid = 'grid grid-cols-[5.25rem_1fr] items-center gap-x-2 gap-y-2'

export function SoundPanel({ rows }: { rows: SoundRow[] }) {
  const ids = rows.map((r) => r.id)
  const [finding, setFinding] = useState(false)
  const one = rows.length === 1 ? rows[0] : null
  const patch = (patch: object) => run('sound.set', { ids, patch })
  const all = <K extends keyof SoundRow>(key: K) => shared(rows.map((r) => r[key] as number))
  return (
    <div data-sound-panel>
      <div className="flex h-10.25 shrink-0 items-center gap-2 border-b border-sailcloth-300 pl-2 pr-4">
        {one ? (
          <TextField
            key={one.id}
            name="Name of the sound"
            value={one.name}
            onSet={(name) => patch({ name })}
            className={clsx(
              '!w-auto flex-1 truncate !border-transparent !bg-transparent text-[0.875rem] font-semibold',
              'hover:!border-sailcloth-500 focus:!bg-paper',
            )}
          />
        ) : (
          <h2 className="flex-1 pl-2 text-[0.875rem] font-semibold">{rows.length} sounds</h2>
        )}
        {one && <span className="shrink-0 text-[0.75rem] text-ink-500">{uses[one.use]}</span>}
      </div>
      {one && <Missing of={one} />}
      {one?.spoken && (
        <Section title="Words" key={one.id}>
          <SpeakFields spoken={one.spoken} id={one.id} />
        </Section>
      )}
      <Section title="Loudness">
        <div className={grid}>
          <NumberField
            label="Volume"
            name="Volume in decibels"
            unit="dB"
            digits={1}
            min={-60}
            max={24}
            value={all('gain')}
            onSet={(gain) => patch({ gain })}
          />
          <NumberField
            label="or"
            name="Volume in per cent of the recording"
            unit="%"
            min={0.1}
            max={1584}
            value={all('percent')}
            onSet={(percent) => run('sound.percent', { ids, percent })}
          />
          <NumberField
            label="Fades in"
            name="How long it fades in"
            unit="s"
            digits={2}
            step={0.1}
            min={0}
            max={7200}
            value={sec(all('fadeIn'))}
            onSet={(v) => patch({ fadeIn: ms(v) })}
          />
          <NumberField
            label="Fades out"
            name="How long it fades out"
            unit="s"
            digits={2}
            step={0.1}
            min={0}
            max={7200}
            value={sec(all('fadeOut'))}
            onSet={(v) => patch({ fadeOut: ms(v) })}
          />
          <Label>Fading</Label>
          <Choice
            name="How it fades"
            value={same(rows.map((r) => r.curve || 'power'))}
            onSet={(v) => patch({ curve: v === 'power' ? null : v })}
            of={[
              { value: 'power', label: 'Even power' },
              { value: 'line', label: 'In a line' },
              { value: 'level', label: 'Even decibels' },
            ]}
          />
          <NumberField
            label="Side"
            name="Side it comes from: -100 is left, 100 is right"
            min={-100}
            max={100}
            value={hundredth(all('pan'))}
            onSet={(v) => patch({ pan: v / 100 })}
          />
          <Check name="Mute" on={rows.every((r) => r.muted)} onSet={(muted) => patch({ muted: muted || null })} />
        </div>
      </Section>
      {one && <When of={one} patch={patch} />}
      {one && <Marks of={one} />}
      <Section title="What it is">
        <div className={grid}>
          <Label>Used as</Label>
          <Choice
            name="What it is used as"
            value={same(rows.map((r) => r.use))}
            onSet={(use) => patch({ use })}
            of={Object.entries(uses).map(([value, label]) => ({ value, label }))}
          />
          <p className="col-span-2 text-[0.75rem] leading-snug text-ink-600">Music steps back under voices.</p>
        </div>
        {one && one.beats.length > 0 && <Beats of={one} />}
        <div className="mt-2 flex flex-wrap gap-1">
          {one && one.use !== 'voice' && (
            <Button
              className="!h-7 text-[0.75rem]"
              disabled={finding}
              title="Bars of moves snap to its beats then"
              onClick={() => {
                setFinding(true)
                beatsOf(one.media)
                  .then((beats) => patch({ beats }))
                  .catch(fail)
                  .finally(() => setFinding(false))
              }}
            >
              {finding ? 'Finding …' : one.beats.length ? 'Find beats again' : 'Find beats'}
            </Button>
          )}
          {one && <Replace id={one.id} word="Replace file" />}
          <Button look="danger" className="!h-7 text-[0.75rem]" onClick={deleteSounds}>
            Delete
          </Button>
        </div>
      </Section>
      <Together />
      <CaptionStyle />
    </div>
  )
}

const sec = (v: number | null) => (v === null ? null : v / 1000)
const ms = (v: number) => Math.round(v * 1000)
const hundredth = (v: number | null) => (v === null ? null : Math.round(v * 100))
const same = (list: string[]) => (list.every((v) => v === list[0]) ? list[0] : '')

/** When a sound is heard, and which part of its recording. */
function When({ of: r, patch }: { of: SoundRow; patch: (p: object) => boolean }) {
  const rows = useDesk((d) => d.rows)
  const film = useDesk((d) => d.film)!
  const scene = film.scenes[Math.max(0, r.scene)]
  const zero = r.scene < 0 ? 0 : scene.start + scene.into
  const moves = rows.flatMap((row) =>
    row.bars
      .filter((b) => r.scene < 0 || b.scene === r.scene)
      .map((b) => ({ value: b.move, label: `${b.name} of ${row.name}` })),
  )
  const goes = r.move ? 'move' : r.scene < 0 ? 'film' : 'scene'
  return (
    <Section title="When">
      <div className={grid}>
        <Label>Goes with</Label>
        <Choice
          name="What it goes with"
          value={goes}
          onSet={(to) => run('sound.bind', { id: r.id, to, move: to === 'move' ? (moves[0]?.value ?? '') : '' })}
          of={[
            { value: 'film', label: 'The film' },
            { value: 'scene', label: r.scene < 0 ? 'A scene' : scene.name },
            { value: 'move', label: 'A move', disabled: moves.length === 0 },
          ]}
        />
        {goes === 'move' ? (
          <>
            <Label>The move</Label>
            <Choice
              name="The move it goes with"
              value={r.move}
              onSet={(move) => run('sound.bind', { id: r.id, to: 'move', move })}
              of={moves}
            />
            <Check name="Comes from where the layer is" on={r.along} onSet={(v) => patch({ along: v || null })} />
          </>
        ) : (
          <NumberField
            label="Begins"
            name={r.scene < 0 ? 'When it begins in the film' : 'When it begins on the scene’s clock'}
            unit="s"
            digits={2}
            step={0.1}
            min={-3600}
            max={7200}
            value={(r.begin - zero) / 1000}
            onSet={(v) => run('sound.move', { ids: [r.id], by: ms(v) - (r.begin - zero) })}
          />
        )}
        {!r.ends && (
          <NumberField
            label="Lasts"
            name="How long it is heard"
            unit="s"
            digits={2}
            step={0.1}
            min={0.01}
            max={7200}
            value={r.length / 1000}
            onSet={(v) => run('sound.trim', { id: r.id, part: 'end', by: ms(v) - r.length })}
          />
        )}
        <NumberField
          label="From"
          name="Where in the recording it begins"
          unit="s"
          digits={2}
          step={0.1}
          min={0}
          max={Math.max(0, r.lasts / 1000 - 0.01)}
          value={r.from / 1000}
          onSet={(v) => patch({ from: ms(v) || null })}
        />
        <NumberField
          label="Speed"
          name="Speed of the recording"
          unit="×"
          digits={2}
          step={0.05}
          min={0.25}
          max={4}
          value={r.speed}
          onSet={(v) => patch({ speed: v === 1 ? null : v })}
        />
        {r.speed !== 1 && (
          <Check name="Its pitch stays" on={r.keepsPitch} onSet={(v) => patch({ keepsPitch: v || null })} />
        )}
        <Check name="Begins again at its end, without a seam" on={r.loops} onSet={(v) => patch({ loops: v || null })} />
      </div>
      <p className="mt-1.5 text-[0.75rem] leading-snug text-ink-600" data-sound-words>
        Heard {r.words}.
      </p>
    </Section>
  )
}

/** The beats of a sound, and scenes that end on bars of them. */
function Beats({ of: r }: { of: SoundRow }) {
  const scenes = useDesk((d) => d.film!.scenes)
  const [bar, setBar] = useState(4)
  return (
    <div className="mt-1 text-[0.75rem] text-ink-600" data-beats>
      {r.beats.length} beats, {r.pace || '?'} a minute.
      <div className="mt-1 flex items-center gap-1.5">
        <Button
          className="!h-7 text-[0.75rem]"
          title="Their stays change by as little as it takes"
          onClick={() => run('scene.bars', { ids: scenes.filter((s) => !s.aside).map((s) => s.id), beats: bar })}
        >
          Scenes end on bars
        </Button>
        of
        <span className="w-14">
          <NumberField quiet name="Beats of a bar" min={1} max={64} value={bar} onSet={(v) => setBar(Math.round(v))} />
        </span>
      </div>
    </div>
  )
}

function Missing({ of: r }: { of: SoundRow }) {
  const missing = useDesk((d) => d.missing.includes(r.media))
  if (!missing) return null
  return (
    <div className="border-b border-sailcloth-300 bg-brass-200 px-4 py-2 text-[0.75rem]">
      <p className="mb-1.5">The file of this sound is missing. The project is as it was.</p>
      <Replace id={r.id} word="Replace file" />
    </div>
  )
}

function Replace({ id, word }: { id: string; word: string }) {
  const input = useRef<HTMLInputElement>(null)
  return (
    <>
      <Button className="!h-7 text-[0.75rem]" onClick={() => input.current?.click()}>
        {word}
      </Button>
      <input
        ref={input}
        type="file"
        accept={soundFiles}
        hidden
        aria-label="File of the sound"
        onChange={(e) => {
          const file = e.target.files?.[0]
          if (file) void replaceSound(id, file)
          e.target.value = ''
        }}
      />
    </>
  )
}
