// Takes from package-lock.json what names a host and pins nothing: the funding keys.
import { readFileSync, writeFileSync } from 'node:fs'

const file = new URL('../package-lock.json', import.meta.url)
const lock = JSON.parse(readFileSync(file, 'utf8'))
for (const entry of Object.values(lock.packages)) delete entry.funding
writeFileSync(file, JSON.stringify(lock, null, 2) + '\n')
