// Reads the events of `go test -json`, prints what a person wants to see of
// them and writes "passed failed", counted in tests without subtests.
import { readFileSync, writeFileSync } from 'node:fs'

const [from, to] = process.argv.slice(2)
let passed = 0
let failed = 0
const output = new Map()
for (const line of readFileSync(from, 'utf8').split('\n')) {
  if (!line.startsWith('{')) continue
  const e = JSON.parse(line)
  const key = `${e.Package ?? e.ImportPath} ${e.Test ?? ''}`
  if (e.Action === 'output' || e.Action === 'build-output') {
    if (!output.has(key)) output.set(key, [])
    output.get(key).push(e.Output)
  } else if (e.Test && !e.Test.includes('/')) {
    if (e.Action === 'pass') passed++
    if (e.Action === 'fail') {
      failed++
      for (const [k, v] of output) if (k === key || k.startsWith(`${key}/`)) process.stdout.write(v.join(''))
    }
  } else if (!e.Test && e.Action === 'pass') console.log(`ok    ${e.Package}  ${e.Elapsed} s`)
  else if (!e.Test && (e.Action === 'fail' || e.Action === 'build-fail')) {
    console.log(`FAIL  ${e.Package ?? e.ImportPath}`)
    process.stdout.write((output.get(key) ?? []).join(''))
  }
}
writeFileSync(to, `${passed} ${failed}\n`)
