/** The value all of a list share, or null. */
export function shared<T>(list: T[]): T | null {
  return list.every((v) => v === list[0]) ? list[0] : null
}
