// Plain JavaScript on Node alone: it runs before any package is installed.
import { createHash } from 'node:crypto'
import { existsSync, readFileSync, writeFileSync } from 'node:fs'
import path from 'node:path'
import { alone } from './alone.mjs'
import { ROOT } from './root.mjs'
import { runTied } from './tied.mjs'

/** Installs the packages of the lock file when they are missing or the lock file has changed. */
export async function ensurePackages() {
	const [major = 0, minor = 0] = process.versions.node.split('.').map(Number)
	if (major < 20 || (major === 20 && minor < 19)) {
		console.error(`Dromos needs Node 20.19 or newer; this is ${process.versions.node}.`)
		process.exit(1)
	}
	const stamp = path.join(ROOT, 'node_modules', '.dromos-lock')
	const wanted = createHash('sha256')
		.update(readFileSync(path.join(ROOT, 'package-lock.json')))
		.digest('hex')
	const installed = () => existsSync(stamp) && readFileSync(stamp, 'utf8') === wanted
	if (!installed()) await alone('install', async () => installed() || (await install(stamp, wanted)))
}

/** @param {string} stamp @param {string} wanted */
async function install(stamp, wanted) {
	console.error('Installing packages from the lock file …')
	if ((await runTied('npm', ['ci', '--no-audit', '--no-fund', '--loglevel=error'], { cwd: ROOT })) !== 0) {
		console.error(
			'The packages could not be installed. Check the connection to the npm registry and run the command again.',
		)
		process.exit(1)
	}
	writeFileSync(stamp, wanted)
}
