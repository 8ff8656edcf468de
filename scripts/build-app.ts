import { createHash } from 'node:crypto'
import { existsSync, readFileSync, readdirSync, rmSync, writeFileSync } from 'node:fs'
import path from 'node:path'
import { alone } from './alone.mjs'
import { PlainError } from './plain-error'
import { ROOT } from './root.mjs'
import { spawnTied } from './tied.mjs'

const STAMP = path.join(ROOT, 'build', '.source-hash')

function sourceHash(): string {
	const hash = createHash('sha256')
	const files = ['app', 'core', 'db', 'server', 'public'].flatMap((folder) =>
		readdirSync(path.join(ROOT, folder), { recursive: true, withFileTypes: true })
			.filter((file) => file.isFile() && !file.name.endsWith('.test.ts'))
			.map((file) => path.join(file.parentPath, file.name)),
	)
	const settings = [
		'package-lock.json',
		'vite.config.ts',
		'react-router.config.ts',
		'scripts/build-service-worker.ts',
		'scripts/compress-assets.ts',
	]
	for (const file of [...files.sort(), ...settings.map((name) => path.join(ROOT, name))])
		hash.update(path.relative(ROOT, file)).update(readFileSync(file))
	return hash.digest('hex')
}

/**
 * Builds the application when the sources have changed since the last whole build. Of two commands that want it at
 * once, one builds and the other waits.
 *
 * @throws PlainError with what the build said when it fails
 */
export async function buildApp(): Promise<void> {
	const wanted = sourceHash()
	const built = () => existsSync(STAMP) && readFileSync(STAMP, 'utf8') === wanted
	if (!built()) await alone('build', async () => built() || (await build(wanted)))
}

async function build(wanted: string): Promise<void> {
	console.log('Building …')
	// A build that is broken off must not pass for the one before it.
	rmSync(STAMP, { force: true })
	const child = spawnTied(process.execPath, [path.join(ROOT, 'node_modules/@react-router/dev/bin.js'), 'build'], {
		cwd: ROOT,
		stdio: ['ignore', 'pipe', 'pipe'],
		env: { ...process.env, NODE_ENV: 'production' },
	})
	let printed = ''
	for (const stream of [child.stdout, child.stderr])
		stream?.on('data', (chunk: Buffer) => (printed += chunk.toString()))
	const code = await new Promise<number>((resolve) => child.once('close', (status) => resolve(status ?? 1)))
	if (code !== 0) throw new PlainError(`The build failed:\n${printed}`)
	writeFileSync(STAMP, wanted)
}
