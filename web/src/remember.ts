// What a browser remembers between visits, by key. Storage may be full, blocked or hold rubbish: then nothing is
// remembered, and nothing stops.

/** What was remembered under a key, where it is what is looked for; else otherwise. */
export function recall<T>(
  key: string,
  fits: (v: unknown) => v is T,
  otherwise: T,
  of: () => Storage = () => localStorage,
): T {
  try {
    const v: unknown = JSON.parse(of().getItem(key) ?? 'null')
    return fits(v) ? v : otherwise
  } catch {
    return otherwise
  }
}

/** Remembers a value under a key; null forgets it. False: it could not be. */
export function remember(key: string, value: unknown, of: () => Storage = () => localStorage): boolean {
  try {
    if (value === null) of().removeItem(key)
    else of().setItem(key, JSON.stringify(value))
    return true
  } catch {
    return false
  }
}

export const isNumber = (v: unknown): v is number => typeof v === 'number' && Number.isFinite(v)
export const isText = (v: unknown): v is string => typeof v === 'string'
export const isTexts = (v: unknown): v is string[] => Array.isArray(v) && v.every(isText)
export const isRecord = (v: unknown): v is Record<string, unknown> =>
  typeof v === 'object' && v !== null && !Array.isArray(v)
