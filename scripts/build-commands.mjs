// Plain JavaScript: it builds the commands, so that none of them is compiled each time it is called.
import { createHash } from 'node:crypto'
import { existsSync, mkdirSync, readFileSync, readdirSync, renameSync, rmSync, statSync, writeFileSync } from 'node:fs'
import path from 'node:path'
import { ROOT } from './root.mjs'

/** The commands; each is scripts/NAME.ts. */
export const COMMANDS = [
	'start',
	'dev',
	'build',
	'test',
	'calc',
	'devices',
	'bench',
	'mutants',
	'screenshots',
	'serve',
	'backup',
	'restore',
	'rebuild',
]
/** Those that are waited for: they come with their packages inside, one file instead of hundreds to find and read. */
const WAITED_FOR = ['start', 'serve']
/** Threads of theirs, found beside them. */
const THREADS = ['page-thread']
/** What they do not carry: what the built application shares with them, and what loads parts of itself by name. */
const EXTERNAL = ['react', 'react-dom', 'react-router', '@react-router/node', '@react-router/express', 'mysql2', 'pino']
const FOLDERS = ['core', 'db', 'server', 'scripts', 'benchmarks', 'tests/support']
/** Beside the built application, whose build empties its own folder: commands run while that is made anew. */
const BUILT = path.join(ROOT, '.commands')
const POINTER = path.join(BUILT, 'built.json')

/** @param {string} folder @returns {{ files: string[], newestMs: number }} folders count too: a removed file changes its folder */
function sourcesIn(folder) {
	let newestMs = statSync(folder).mtimeMs
	/** @type {string[]} */
	const files = []
	for (const entry of readdirSync(folder, { withFileTypes: true })) {
		const full = path.join(folder, entry.name)
		if (entry.isDirectory() && entry.name !== 'migrations') {
			const below = sourcesIn(full)
			files.push(...below.files)
			newestMs = Math.max(newestMs, below.newestMs)
		} else if (entry.isFile() && !entry.name.endsWith('.test.ts')) {
			files.push(full)
			newestMs = Math.max(newestMs, statSync(full).mtimeMs)
		}
	}
	return { files, newestMs }
}

/**
 * The folder of the built commands, built anew when the newest source is another one and what they say is different. A
 * build goes into a folder named by its sources and is pointed at when it is whole: two builds at once, or one broken
 * off, leave nothing half made behind. Only times of files are held against each other: a process may go by another
 * clock than they do.
 *
 * @returns {Promise<string>}
 */
export async function builtCommands() {
	const parts = FOLDERS.map((folder) => path.join(ROOT, folder))
		.filter((folder) => existsSync(folder))
		.map(sourcesIn)
	const lock = path.join(ROOT, 'package-lock.json')
	const newestMs = Math.max(statSync(lock).mtimeMs, ...parts.map((part) => part.newestMs))
	const pointed = existsSync(POINTER) ? JSON.parse(readFileSync(POINTER, 'utf8')) : null
	const folderOf = (/** @type {string} */ hash) => path.join(BUILT, hash)
	if (pointed && pointed.newestMs === newestMs && existsSync(folderOf(pointed.hash))) return folderOf(pointed.hash)

	// The time was taken before the sources are read: what is saved meanwhile has a later one.
	const hash = createHash('sha256').update(readFileSync(lock))
	for (const file of parts.flatMap((part) => part.files).sort())
		hash.update(path.relative(ROOT, file)).update(readFileSync(file))
	const wanted = hash.digest('hex').slice(0, 16)
	if (!existsSync(folderOf(wanted))) await build(folderOf(wanted))
	const draft = `${POINTER}.${process.pid}`
	writeFileSync(draft, JSON.stringify({ hash: wanted, newestMs }))
	renameSync(draft, POINTER)
	return folderOf(wanted)
}

/** @param {string} folder */
async function build(folder) {
	const { build } = await import('vite')
	const draft = `${folder}.${process.pid}`
	/** @type {(input: Record<string, string>, external: string[] | null) => Promise<unknown>} */
	const bundle = (input, external) =>
		build({
			configFile: false,
			root: ROOT,
			publicDir: false,
			logLevel: 'error',
			ssr: external ? { noExternal: true, external } : {},
			build: {
				ssr: true,
				target: 'node20',
				outDir: draft,
				emptyOutDir: false,
				minify: false,
				rollupOptions: { input, output: { entryFileNames: '[name].mjs', chunkFileNames: 'part-[name]-[hash].mjs' } },
			},
		})
	mkdirSync(draft, { recursive: true })
	/** @param {string[]} names */
	const entries = (names) => Object.fromEntries(names.map((name) => [name, path.join(ROOT, 'scripts', `${name}.ts`)]))
	// The calculations carry everything.
	await bundle(entries(['calc']), [])
	await bundle(entries([...WAITED_FOR, ...THREADS]), EXTERNAL)
	await bundle(entries(COMMANDS.filter((name) => name !== 'calc' && !WAITED_FOR.includes(name))), null)
	for (const old of readdirSync(path.dirname(folder)).filter((name) => /^[0-9a-f]{16}$/.test(name)))
		if (old !== path.basename(folder)) rmSync(path.join(path.dirname(folder), old), { recursive: true, force: true })
	try {
		renameSync(draft, folder)
	} catch (error) {
		// Another process built the same sources meanwhile and may be running them: its folder stays.
		if (!existsSync(folder)) throw error
		rmSync(draft, { recursive: true, force: true })
	}
}
