import path from 'node:path'
import { ROOT } from './root.mjs'
import { SERVING } from './pages'
import { runCommand } from './run-command'
import { onEnd } from './tied.mjs'
import { webOptions } from './web-options'
import { startWebServer } from './web-server'
import { isNews } from './web-workers'

/** One of several processes behind one port; `npm start -- --workers N` starts them, nobody else does. */
async function main(): Promise<void> {
	let isUp = true
	process.on('message', (message) => {
		if (isNews(message)) isUp = message.isUp
	})
	const web = await startWebServer({ ...webOptions(), build: path.join(ROOT, 'build'), isUp: () => isUp })
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
