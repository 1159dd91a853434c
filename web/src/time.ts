/** Film time, 0:07.40. */
export function filmTime(ms: number): string {
  const cs = Math.round(ms / 10)
  const m = Math.floor(cs / 6000)
  return `${m}:${String(Math.floor(cs / 100) % 60).padStart(2, '0')}.${String(cs % 100).padStart(2, '0')}`
}

/** A duration, 1.25 s; whole tenths are written short. */
export const seconds = (ms: number) => `${ms % 100 === 0 ? (ms / 1000).toFixed(1) : (ms / 1000).toFixed(2)} s`

/** A moment for people: today by its hour, else by its day. */
export function day(iso: string): string {
  const d = new Date(iso)
  const hour = d.toLocaleTimeString(undefined, { hour: '2-digit', minute: '2-digit' })
  if (d.toDateString() === new Date().toDateString()) return `today, ${hour}`
  return `${d.toLocaleDateString(undefined, { day: 'numeric', month: 'short' })}, ${hour}`
}

/** A size in bytes for people. */
export function bytes(n: number): string {
  if (n >= 1e9) return `${(n / 1e9).toFixed(1)} GB`
  if (n < 1e6) return `${Math.max(1, Math.round(n / 1e3))} KB`
  return `${(n / 1e6).toFixed(1)} MB`
}
