import { createHash } from 'node:crypto'
import { readFile, readdir } from 'node:fs/promises'
import path from 'node:path'
import { build } from 'vite'

/**
 * What the browser loads to show the field, from the router's own manifest: its modules with all they import, styles
 * and fonts; and what it loads when a panel asks for it.
 */
export async function fieldFiles(client: string): Promise<{ shown: string[]; onDemand: string[] }> {
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
	const filesOf = (part: (typeof manifest)['entry'] | (typeof manifest)['routes'][string] | undefined) => {
		if (!part) throw new Error('the field route is not in the build')
		return [
			part.module,
			...('clientLoaderModule' in part ? [part.clientLoaderModule, part.hydrateFallbackModule] : []),
			...(part.imports ?? []),
			...(part.css ?? []),
		].filter((file) => file?.startsWith('/assets/'))
	}
	const own = filesOf(manifest.routes['routes/field']) as string[]
	const shown = new Set([
		`/assets/${manifestName}`,
		...filesOf(manifest.entry),
		...filesOf(manifest.routes.root),
		...own,
	] as string[])
	// What the field's own code names beside what it imports is what it loads when asked.
	const named = new Set<string>()
	for (const file of own.filter((one) => one.endsWith('.js')))
		for (const [name] of (await readFile(path.join(client, file), 'utf8')).matchAll(/[\w.-]+\.js\b/g))
			if (assets.includes(name)) named.add(`/assets/${name}`)
	const onDemand = [...named].filter((file) => !shown.has(file))
	const fonts = assets.filter((name) => name.endsWith('.woff2') && !/-ext-/.test(name)).map((name) => `/assets/${name}`)
	return {
		shown: [...shown, ...fonts, '/favicon.svg', '/manifest.webmanifest', '/icon-192.png', '/icon-512.png'],
		onDemand,
	}
}

/** Bundles the field's service worker with the list of files it keeps and a version made from their contents. */
export async function buildServiceWorker(root: string, buildDirectory: string): Promise<void> {
	const client = path.join(buildDirectory, 'client')
	const { shown, onDemand } = await fieldFiles(client)
	// Without a signal nothing can be asked for: all of it is kept.
	const files = [...shown, ...onDemand]
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
