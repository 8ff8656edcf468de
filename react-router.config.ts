import type { Config } from '@react-router/dev/config'
import path from 'node:path'
import { buildServiceWorker } from './scripts/build-service-worker.ts'
import { compressAssets } from './scripts/compress-assets.ts'

export default {
	ssr: true,
	// The whole route map travels with the first page: without a connection nobody could be asked for it.
	routeDiscovery: { mode: 'initial' },
	future: {
		v8_middleware: true,
		v8_splitRouteModules: true,
		v8_viteEnvironmentApi: true,
		v8_passThroughRequests: true,
		v8_trailingSlashAwareDataRequests: true,
	},
	async buildEnd({ viteConfig, reactRouterConfig }) {
		await buildServiceWorker(viteConfig.root, reactRouterConfig.buildDirectory)
		await compressAssets(path.join(reactRouterConfig.buildDirectory, 'client/assets'))
	},
} satisfies Config
