// Writes path data with the commands M L C Q Z alone (svgpath, of npm). Standard input: [path data]. Standard output: the same, plain.
import { createRequire } from 'node:module'
import { readFileSync } from 'node:fs'
const require = createRequire(new URL('../../../web/package.json', import.meta.url))
const svgpath = require('svgpath')
const plain = (d) => svgpath(d).abs().unshort().unarc().toString()
process.stdout.write(JSON.stringify(JSON.parse(readFileSync(0, 'utf8')).map(plain)))
