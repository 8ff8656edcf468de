import { connect } from '../db/connect'
import { rebuildKept } from '../server/marks/rebuild'
import { withHomeDatabase } from './home'
import { PlainError } from './plain-error'
import { runCommand } from './run-command'

/** npm run rebuild: what is kept of every log is made anew from it, while the application runs or not. */
await runCommand(async () => {
	if (process.argv.length > 2) throw new PlainError('npm run rebuild takes nothing: it looks at every club.')
	await withHomeDatabase(async (url) => {
		const { db, pool } = connect(url)
		try {
			const { sessions, different } = await rebuildKept(db)
			for (const { clubId, sessionId, day } of different)
				console.log(`${day}, session ${sessionId} of club ${clubId}: something was kept otherwise; it is right now.`)
			console.log(`${sessions} sessions looked at, ${different.length} put right.`)
		} finally {
			await pool.end()
		}
	})
})
