import type { Config } from '@react-router/dev/config'

export default {
	ssr: true,
	// The whole route map travels with the first page, so that a later offline client never has to ask for it.
	routeDiscovery: { mode: 'initial' },
	future: {
		v8_middleware: true,
		v8_splitRouteModules: true,
		v8_viteEnvironmentApi: true,
		v8_passThroughRequests: true,
		v8_trailingSlashAwareDataRequests: true,
	},
} satisfies Config
