// The family of the selected texts: those of the project and the last used first, each in the words of the text itself.
import { clsx } from 'clsx'
import { Listbox, ListboxButton, ListboxOption, ListboxOptions } from '@headlessui/react'
import { FilePlus } from 'lucide-react'
import { type ReactNode, useEffect, useRef, useState } from 'react'
import { engine } from '../engine/engine'
import { loadFamilies, sampleOf } from '../engine/fonts'
import { run } from '../project/commands'
import { desk, fail, useDesk } from '../project/desk'
import { families, ownFamilies } from '../project/families'
import { takeFonts } from '../project/ownfonts'
import { Sign } from '../ui/controls'
import { keepKeys } from '../ui/typing'
import { isTexts, recall, remember } from '../remember'

const kinds: Record<string, string> = {
  text: 'Text',
  display: 'Display',
  rounded: 'Rounded',
  slab: 'Slab',
  hand: 'By hand',
  own: 'Of this project’s own',
  mono: 'Even widths',
  wide: 'Many scripts',
}

const key = 'capstan-families'

function lately(): string[] {
  const there = [...families(), ...ownFamilies(desk().film?.fonts ?? [])]
  return recall(key, isTexts, []).filter((n) => there.some((f) => f.name === n))
}

function used(name: string) {
  remember(key, [name, ...lately().filter((n) => n !== name)].slice(0, 4))
}

// Fonts of the list are the browser's own business: they only show what a family looks like.
const shown = new Map<string, Promise<unknown>>()

function Sample({ family, words }: { family: string; words: string }) {
  const [ready, setReady] = useState(false)
  useEffect(() => {
    let here = true
    const file = sampleOf(family, desk().film?.fonts ?? [])
    if (!file) return
    if (!shown.has(family))
      shown.set(
        family,
        new FontFace(`sample ${family}`, `url(${file})`).load().then((f) => document.fonts.add(f)),
      )
    shown
      .get(family)!
      .then(() => {
        if (here) setReady(true)
      })
      .catch(() => undefined) // its name in the interface's own font will do
    return () => {
      here = false
    }
  }, [family])
  return (
    <span
      className="truncate text-[1.0625rem] leading-[1.5rem]"
      style={ready ? { fontFamily: `"sample ${family}"` } : undefined}
    >
      {words}
    </span>
  )
}

/** Families that the project has, and those chosen lately: asked for when the list is opened. */
function Recent({ heading, option }: { heading: ReactNode; option: (name: string) => ReactNode }) {
  const [first] = useState(() => [...new Set([...engine.familiesUsed(), ...lately()])])
  return (
    <>
      {first.length > 0 && heading}
      {first.map(option)}
    </>
  )
}

export function FamilyField({
  family,
  words,
  threads,
  stretch,
}: {
  family: string | null
  words: string
  threads: string[]
  stretch: object
}) {
  const own = useDesk((d) => d.film?.fonts) ?? []
  const all = [...ownFamilies(own), ...families()]
  const input = useRef<HTMLInputElement>(null)
  const choose = (name: string) => {
    used(name)
    // Its weights are known once it is there.
    loadFamilies([name])
      .then(() => run('text.family', { threads, family: name, ...stretch }))
      .catch(fail)
  }
  const sample = words.replace(/\s+/g, ' ').trim().slice(0, 40)
  const option = (name: string, group: string) => (
    <ListboxOption
      key={`${group} ${name}`}
      value={name}
      className="flex cursor-default flex-col rounded-md px-2 py-0.5 data-focus:bg-brass-200"
      data-family={name}
    >
      <span className="text-[0.6875rem] leading-[0.8125rem] text-ink-600">
        {name}
        {name === family ? ' ✓' : ''}
      </span>
      <Sample family={name} words={sample || name} />
    </ListboxOption>
  )
  const heading = (word: string) => (
    <div className="px-2 pt-1.5 text-[0.6875rem] font-semibold text-ink-600" role="presentation">
      {word}
    </div>
  )
  return (
    <div className="flex items-center gap-1">
      <Listbox value={family ?? ''} onChange={choose}>
        <ListboxButton
          aria-label={`Family: ${family ?? 'mixed'}`}
          className={clsx(
            'flex h-6.5 w-full min-w-0 items-center justify-between rounded-md border',
            'border-sailcloth-500 bg-sailcloth-100 px-2 hover:border-ink-500',
          )}
          onKeyDown={keepKeys}
        >
          <span className="truncate">{family ?? 'mixed'}</span>
          <svg width="10" height="10" viewBox="0 0 10 10" aria-hidden>
            <path d="M1 3l4 4 4-4" fill="none" stroke="currentColor" strokeWidth="1.5" />
          </svg>
        </ListboxButton>
        <ListboxOptions
          anchor={{ to: 'bottom end', gap: 4, padding: 8 }}
          className={clsx(
            'thin-scroll z-50 !max-h-105 w-62.5 overflow-y-auto rounded-md border',
            'border-sailcloth-300 bg-paper p-1 shadow-[0_8px_28px_rgb(12_37_35/0.25)] focus:outline-none',
          )}
        >
          <Recent heading={heading('In this project and lately')} option={(n) => option(n, 'first')} />
          {[...new Set(all.map((f) => f.kind))].map((k) => (
            <div key={k}>
              {heading(kinds[k] ?? k)}
              {all.filter((f) => f.kind === k).map((f) => option(f.name, k))}
            </div>
          ))}
        </ListboxOptions>
      </Listbox>
      <Sign
        name="Add a font file: TTF, OTF or WOFF"
        className="hover:bg-sailcloth-200"
        onClick={() => input.current?.click()}
      >
        <FilePlus size={16} strokeWidth={1.5} />
      </Sign>
      <input
        ref={input}
        type="file"
        accept=".ttf,.otf,.woff"
        multiple
        hidden
        data-font-input
        aria-label="Font files"
        onChange={(e) => {
          const files = [...(e.target.files ?? [])]
          e.target.value = ''
          void takeFonts(files).then((name) => {
            if (name) choose(name)
          })
        }}
      />
    </div>
  )
}
