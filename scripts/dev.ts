import { createServer } from 'vite'
import { takeHome } from './home'
import { ROOT } from './root.mjs'
import { runCommand } from './run-command'

/** npm run dev: the same data directory and database as npm start, with the sources served as they are saved. */
await runCommand(async () => {
	let stop = async () => {}
	const home = takeHome(() => stop())
	try {
		process.env.DATABASE_URL = (await home.open({ empty: false })).url
	} catch (error) {
		await home.giveUp(error)
	}
	const vite = await createServer({
		root: ROOT,
		server: { host: process.env.HOST || '127.0.0.1', port: Number(process.env.PORT || 4210) },
	})
	stop = () => vite.close()
	await vite.listen()
	vite.printUrls()
})
