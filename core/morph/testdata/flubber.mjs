// Lets a library that is not ours lead outlines of one part into each other. Standard input: [[from, to]], path data. Standard output:
// [[points at each time]] at 0 (nearly), 0.25, 0.5, 0.75 and 1 (nearly), points of one ring as [x, y, …].
import { createRequire } from 'node:module'
import { readFileSync } from 'node:fs'
const require = createRequire(new URL('../../../web/package.json', import.meta.url))
const flubber = require('flubber')

const times = [1e-9, 0.25, 0.5, 0.75, 1 - 1e-9]
const out = JSON.parse(readFileSync(0, 'utf8')).map(([a, b]) => {
  const at = flubber.interpolate(a, b, { string: false, maxSegmentLength: 2 })
  return times.map((t) => at(t).flat())
})
process.stdout.write(JSON.stringify(out))
