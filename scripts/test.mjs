import { spawn } from 'node:child_process'
import { ROOT, ensurePackages } from './ensure-packages.mjs'

ensurePackages()
const child = spawn(process.execPath, ['--import', 'tsx', 'scripts/run-tests.ts', ...process.argv.slice(2)], { cwd: ROOT, stdio: 'inherit' })
process.on('SIGINT', () => {})
process.on('SIGTERM', () => child.kill('SIGTERM'))
child.on('exit', (code, signal) => process.exit(signal ? 1 : (code ?? 1)))
