// What Capstan says.
import { clsx } from 'clsx'
import { dismiss, useDesk } from '../project/desk'

/**
 * What Capstan says, above what is worked on; presses go through it. Failures stay until they are closed or their
 * cause has gone.
 */
export function Notices() {
  const notices = useDesk((d) => d.notices)
  return (
    <div
      className={clsx(
        'pointer-events-none fixed left-1/2 top-11 z-50 flex w-max max-w-140 -translate-x-1/2',
        'flex-col gap-2',
      )}
      role="status"
      aria-live="polite"
    >
      {notices.map((n) => (
        <div
          key={n.id}
          data-notice={n.kind}
          className={clsx(
            'flex items-start gap-3 rounded-md px-3 py-2 shadow-[0_8px_28px_rgb(12_37_35/0.3)]',
            n.kind === 'failed' ? 'bg-coral-700 text-paper' : 'border border-spruce-700 bg-spruce-900 text-foam-100',
          )}
        >
          <span className={`flex-1 ${n.kind === 'failed' ? 'pointer-events-auto' : ''}`}>{n.text}</span>
          {n.act && (
            <button
              type="button"
              className={clsx(
                'pointer-events-auto -my-0.5 h-6 rounded-md px-1.5 font-semibold text-brass-200 underline',
                'hover:bg-spruce-700',
              )}
              onClick={() => {
                n.act!.run()
                dismiss(n.id)
              }}
            >
              {n.act.word}
            </button>
          )}
          <button
            type="button"
            aria-label="Close this message"
            className="pointer-events-auto -my-0.5 h-6 w-6 opacity-80 hover:opacity-100"
            onClick={() => dismiss(n.id)}
          >
            ×
          </button>
        </div>
      ))}
    </div>
  )
}
