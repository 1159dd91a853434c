// A section of the inspector that folds; folded says how it is until it is pressed.
import { Disclosure, DisclosureButton, DisclosurePanel } from '@headlessui/react'
import { clsx } from 'clsx'
import { useId, useLayoutEffect, useRef, type ReactNode } from 'react'
import { useGoneTo } from './Parts'

export function Section({ title, children, folded = false }: { title: string; children: ReactNode; folded?: boolean }) {
  const id = useId()
  return (
    <section className="border-b border-sailcloth-300 px-4 pb-2.5 pt-1.5" aria-labelledby={id}>
      <Folding id={id} title={title} folded={folded} unfolds look="text-[0.8125rem]">
        {children}
      </Folding>
    </section>
  )
}

/** What is rarely used, folded away under its name in a section. */
export function Fold({ title, children, folded = true }: { title: string; children: ReactNode; folded?: boolean }) {
  return (
    <div className="mt-1">
      <Folding id={useId()} title={title} folded={folded} look="text-[0.75rem] text-ink-600">
        {children}
      </Folding>
    </div>
  )
}

// unfolds: going to the part it is in unfolds it.
function Folding({
  id,
  title,
  children,
  folded,
  unfolds = false,
  look,
}: {
  id: string
  title: string
  children: ReactNode
  folded: boolean
  unfolds?: boolean
  look: string
}) {
  const button = useRef<HTMLButtonElement>(null)
  const gone = useGoneTo()
  useLayoutEffect(() => {
    if (gone && unfolds && button.current?.ariaExpanded === 'false') button.current.click()
  }, [gone])
  const Heading = unfolds ? 'h2' : 'h3'
  return (
    <Disclosure defaultOpen={!folded}>
      <Heading id={id}>
        <DisclosureButton
          ref={button}
          data-fold={title}
          className={clsx(
            'group -mx-1 flex h-6.5 w-[calc(100%+0.5rem)] items-center justify-between rounded-md px-1 font-semibold',
            'hover:bg-sailcloth-100',
            look,
          )}
        >
          {title}
          <svg width="10" height="10" viewBox="0 0 10 10" aria-hidden className="-rotate-90 group-data-open:rotate-0">
            <path d="M1 3l4 4 4-4" fill="none" stroke="currentColor" strokeWidth="1.5" />
          </svg>
        </DisclosureButton>
      </Heading>
      <DisclosurePanel>{children}</DisclosurePanel>
    </Disclosure>
  )
}
