// Runs one of the project's commands: node scripts/run.mjs NAME [arguments]. Builds it when its sources are newer.
import path from 'node:path'
import { pathToFileURL } from 'node:url'
import { builtCommands } from './build-commands.mjs'
import { ensurePackages } from './ensure-packages.mjs'

const [name = '', ...rest] = process.argv.slice(2)
await ensurePackages()
const command = path.join(await builtCommands(), `${name}.mjs`)
// React decides at its first import which of its two makes it is; it must be the one the pages were built with.
if (name === 'start' || name === 'serve') process.env.NODE_ENV = 'production'
if (name === 'dev') process.env.NODE_ENV = 'development'
process.argv = [process.argv[0] ?? 'node', command, ...rest]
await import(pathToFileURL(command).href)
