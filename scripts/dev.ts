import { createServer } from 'vite'
import { openHome } from './home'
import { ROOT } from './root.mjs'
import { runCommand } from './run-command'

/** npm run dev: the same data directory and database as npm start, with the sources served as they are saved. */
await runCommand(async () => {
	let stop = async () => {}
	const home = await openHome({ empty: false, beforeClosing: () => stop() })
	process.env.DATABASE_URL = home.url
	const vite = await createServer({
		root: ROOT,
		server: { host: process.env.HOST || '127.0.0.1', port: Number(process.env.PORT || 4210) },
	})
	stop = () => vite.close()
	await vite.listen()
	vite.printUrls()
})
