import path from 'node:path'
import { reactRouter } from '@react-router/dev/vite'
import tailwindcss from '@tailwindcss/vite'
import { type Plugin, defineConfig } from 'vite'

/**
 * What a page shows may not reach the server: a loader's imports are gone before this asks, what is left would be sent
 * to every browser and break there.
 */
const serverStays: Plugin = {
	name: 'server-stays',
	enforce: 'pre',
	async resolveId(id, importer, options) {
		if (this.environment.name !== 'client' || !importer) return null
		const found = await this.resolve(id, importer, { ...options, skipSelf: true })
		const file = found ? path.relative(import.meta.dirname, found.id.split('?')[0]!) : ''
		if (/^(server|db)\//.test(file))
			this.error(`${path.relative(import.meta.dirname, importer)} shows something of ${file}: move that to core.`)
		return found
	},
}

/** What the server does not carry in its own file: what has one state for the whole process, and what loads parts of itself by name. */
const EXTERNAL = ['react', 'react-dom', 'react-router', '@react-router/node', 'mysql2', 'pino']

/** By so many of some fifty pages. */
const SHARED_BY = 12
/**
 * What many pages share comes in two files: on a bad line each file more is another turn of waiting. What the field
 * does not show is apart, so that no phone fetches it for a session; so are schemas, for few pages check anything.
 */
const SHARED = [
	{
		name: 'common',
		priority: 2,
		minShareCount: SHARED_BY,
		test: /preload-helper|[\\/](node_modules[\\/](?!typebox|@floating-ui|@radix-ui[\\/]react-(pop|use-(size|rect)|arrow))|core[\\/](?!vocabulary|library))/,
	},
	{ name: 'desk', priority: 1, minShareCount: SHARED_BY, test: /[\\/](app[\\/](?!field)|@floating-ui|@radix-ui)/ },
]

export default defineConfig(({ command }) => ({
	plugins: [serverStays, tailwindcss(), reactRouter()],
	environments: { client: { build: { rolldownOptions: { output: { codeSplitting: { groups: SHARED } } } } } },
	// One file instead of a thousand to find and read: a start is a second shorter.
	...(command === 'build' ? { ssr: { noExternal: true as const, external: EXTERNAL } } : {}),
}))
