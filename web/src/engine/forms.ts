// Answers of the engine: numbers in its memory that fill a form, which is JSON with 0 for each of them. A form comes
// once and is kept by its number (cmd/engine/answers.go): what is asked for again and again crosses as numbers alone.

const forms: unknown[] = []

/** Reads the answer at an address of the engine's memory. fresh is its form where it has not come before. */
export function readAnswer(memory: ArrayBuffer, at: number, fresh: string | undefined): unknown {
  const [slot, count] = new Float64Array(memory, at, 2)
  if (fresh !== undefined) forms[slot] = JSON.parse(fresh)
  numbers = new Float64Array(memory, at + 16, count)
  next = 0
  return fill(forms[slot])
}

let numbers: Float64Array
let next = 0

function fill(form: unknown): unknown {
  if (typeof form === 'number') return numbers[next++]
  if (form === null || typeof form !== 'object') return form
  if (Array.isArray(form)) return form.map(fill)
  const out: Record<string, unknown> = {}
  for (const [k, v] of Object.entries(form)) out[k] = fill(v)
  return out
}
