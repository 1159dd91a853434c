// More kinds that are made in the same press.
import { clsx } from 'clsx'
import { engine } from '../engine/engine'
import { useDesk } from '../project/desk'

export function Also({
  format,
  also,
  onAlso,
  lacks,
}: {
  format: string
  also: string[]
  onAlso: (formats: string[]) => void
  lacks: Record<string, string>
}) {
  const sounds = useDesk((d) => d.sounds.rows.some((r) => !r.muted))
  const spoken = useDesk((d) => d.sounds.captions.length > 0)
  return (
    <p className="mt-2 flex flex-wrap items-center gap-1.5 text-[0.75rem] text-ink-600">
      Made in the same press:
      {engine
        .formats()
        .filter(
          (k) => k.format !== format && !lacks[k.format] && (sounds || !k.heard) && (spoken || !(k.heard && k.caption)),
        )
        .map((k) => (
          <button
            key={k.format}
            type="button"
            aria-pressed={also.includes(k.format)}
            className={clsx(
              'h-5.5 rounded-full border px-2',
              also.includes(k.format)
                ? 'border-brass-600 bg-brass-200 text-ink-900'
                : 'border-sailcloth-500 hover:bg-sailcloth-100',
            )}
            onClick={() => onAlso(also.includes(k.format) ? also.filter((f) => f !== k.format) : [...also, k.format])}
          >
            {k.words}
          </button>
        ))}
    </p>
  )
}
