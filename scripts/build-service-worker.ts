import { createHash } from 'node:crypto'
import { readFile, readdir } from 'node:fs/promises'
import path from 'node:path'
import { build } from 'vite'

/** What the browser loads to show the field, from the router's own manifest: its modules with all they import, styles and fonts. */
export async function fieldFiles(client: string): Promise<string[]> {
	const assets = await readdir(path.join(client, 'assets'))
	const manifestName = assets.find((name) => /^manifest-[\w-]+\.js$/.test(name))
	if (!manifestName) throw new Error('the build has no route manifest')
	const text = await readFile(path.join(client, 'assets', manifestName), 'utf8')
	const manifest = JSON.parse(text.slice(text.indexOf('{'), text.lastIndexOf('}') + 1)) as {
		entry: { module: string; imports: string[]; css?: string[] }
		routes: Record<
			string,
			{
				module: string
				clientLoaderModule?: string
				hydrateFallbackModule?: string
				imports?: string[]
				css?: string[]
			}
		>
	}
	const wanted = new Set<string>([`/assets/${manifestName}`])
	for (const part of [manifest.entry, manifest.routes.root, manifest.routes['routes/field']]) {
		if (!part) throw new Error('the field route is not in the build')
		for (const file of [
			part.module,
			...('clientLoaderModule' in part ? [part.clientLoaderModule, part.hydrateFallbackModule] : []),
			...(part.imports ?? []),
			...(part.css ?? []),
		])
			if (file) wanted.add(file)
	}
	const files = [...wanted].filter((file) => file.startsWith('/assets/'))
	const fonts = assets.filter((name) => name.endsWith('.woff2') && !/-ext-/.test(name)).map((name) => `/assets/${name}`)
	return [...files, ...fonts, '/favicon.svg', '/manifest.webmanifest', '/icon-192.png', '/icon-512.png']
}

/** Bundles the field's service worker with the list of files it keeps and a version made from their contents. */
export async function buildServiceWorker(root: string, buildDirectory: string): Promise<void> {
	const client = path.join(buildDirectory, 'client')
	const files = await fieldFiles(client)
	const hash = createHash('sha256')
	for (const file of files) hash.update(file).update(await readFile(path.join(client, file)))
	await build({
		configFile: false,
		root,
		publicDir: false,
		logLevel: 'warn',
		define: { __ASSETS__: JSON.stringify(files), __VERSION__: JSON.stringify(hash.digest('hex').slice(0, 12)) },
		build: {
			outDir: client,
			emptyOutDir: false,
			copyPublicDir: false,
			target: 'es2022',
			lib: {
				entry: path.join(root, 'app/workers/service-worker.ts'),
				formats: ['es'],
				fileName: () => 'service-worker.js',
			},
		},
	})
}
