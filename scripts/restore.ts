import { existsSync } from 'node:fs'
import path from 'node:path'
import { BackupProblem, restoreBackup } from '../db/backup'
import { connect } from '../db/connect'
import { coachesEverywhere } from '../db/queries/clubs'
import { linkForPassword } from '../server/access/join'
import { withHomeDatabase } from './home'
import { PlainError } from './plain-error'
import { runCommand } from './run-command'

/** npm run restore -- FILE: a backup into an empty database, also of a version before; see docs/backup.md. */
await runCommand(async () => {
	const [file, ...more] = process.argv.slice(2)
	if (!file || more.length > 0 || !existsSync(file))
		throw new PlainError(file ? `${file} is not there.` : 'Say which: npm run restore -- FILE')
	await withHomeDatabase(async (url) => {
		try {
			await restoreBackup(url, path.resolve(file))
		} catch (error) {
			if (error instanceof BackupProblem) throw new PlainError(error.message)
			throw error
		}
		console.log(
			'Read back, and brought up to this version. No password stands any more: each coach sets a new one here,',
		)
		console.log('within two days, after npm start; they make links for everybody else on the club’s page.\n')
		const { db, pool } = connect(url)
		try {
			for (const { clubId, clubName, personId, name } of await coachesEverywhere(db)) {
				const link = await linkForPassword({ db, clubId }, personId, personId, new Date())
				if (link) console.log(`    ${name}, ${clubName}: /join/${link.token}`)
			}
		} finally {
			await pool.end()
		}
	})
})
