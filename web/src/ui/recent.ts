// The colours that were used last, in this browser.
const key = 'capstan-colours'
const most = 9

export const recent = (): string[] => {
  try {
    const list: unknown = JSON.parse(localStorage.getItem(key) ?? '[]')
    return Array.isArray(list) ? list.filter((c): c is string => typeof c === 'string' && /^#[0-9a-f]{6,8}$/.test(c)).slice(0, most) : []
  } catch {
    return []
  }
}

export function used(colour: string) {
  localStorage.setItem(key, JSON.stringify([colour, ...recent().filter((c) => c !== colour)].slice(0, most)))
}
