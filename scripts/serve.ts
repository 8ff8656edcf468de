import path from 'node:path'
import { ROOT } from './root.mjs'
import { SERVING } from './pages'
import { runCommand } from './run-command'
import { onEnd } from './tied.mjs'
import { webOptions } from './web-options'
import { type WebSettings, startWebServer } from './web-server'
import { HEARS, isNews } from './web-workers'

/** One of several processes behind one port; `npm start -- --workers N` starts them, nobody else does. */
async function main(): Promise<void> {
	let isUp = true
	const settings = new Promise<WebSettings>((resolve) =>
		process.on('message', (message) => {
			if (!isNews(message)) return
			isUp = message.isUp
			resolve(message.settings)
		}),
	)
	process.send!(HEARS)
	const web = await startWebServer({ ...webOptions(), build: path.join(ROOT, 'build'), settings, isUp: () => isUp })
	let ending = false
	const end = () => {
		if (ending) return
		ending = true
		void web.stop().then(() => process.exit(0))
	}
	onEnd(end)
	// Whoever started it has ended, however that was.
	process.once('disconnect', end)
	process.send!(SERVING)
}

await runCommand(main)
