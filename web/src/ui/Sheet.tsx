// A panel over everything, closed by Escape or a press beside it. What has data-autofocus gets the keyboard.
import { Dialog, DialogPanel, DialogTitle } from '@headlessui/react'
import { clsx } from 'clsx'
import type { ReactNode } from 'react'
import { Sign } from './controls'
import { Notices } from './Notices'
import { Spoken } from './Spoken'

export function Sheet({
  title,
  onClose,
  children,
  wide,
}: {
  title: string
  onClose: () => void
  children: ReactNode
  wide?: boolean
}) {
  return (
    <Dialog
      open
      onClose={onClose}
      className="relative z-40"
      // Keys of the page are not its.
      onKeyDown={(e: React.KeyboardEvent) => {
        e.stopPropagation()
        if (e.key === 'Escape') onClose()
      }}
    >
      <div className="fixed inset-0 flex items-center justify-center bg-spruce-950/45">
        <DialogPanel
          className={clsx(
            'thin-scroll max-h-[calc(100vh-48px)] max-w-[calc(100vw-32px)] overflow-auto rounded-md bg-paper',
            'shadow-[0_12px_40px_rgb(12_37_35/0.35)] focus:!outline-none',
            wide ? 'w-215' : 'w-140',
          )}
        >
          <div className="flex items-center justify-between border-b border-sailcloth-300 px-5 py-3">
            <DialogTitle as="h1" className="text-[1rem] font-semibold">
              {title}
            </DialogTitle>
            <Sign name="Close" onClick={onClose} className="hover:bg-sailcloth-200">
              <svg width="12" height="12" viewBox="0 0 12 12" aria-hidden>
                <path d="M1 1l10 10M11 1L1 11" stroke="currentColor" strokeWidth="1.5" />
              </svg>
            </Sign>
          </div>
          {children}
          {/* What lies outside a dialog cannot be pressed, and is not said. */}
          <Notices />
          <Spoken />
        </DialogPanel>
      </div>
    </Dialog>
  )
}
