import { existsSync } from 'node:fs'
import path from 'node:path'
import { writeBackup } from '../db/backup'
import { withHomeDatabase } from './home'
import { PlainError } from './plain-error'
import { runCommand } from './run-command'

/** npm run backup -- FILE: everything the database holds, at one moment, while it goes on; see docs/backup.md. */
await runCommand(async () => {
	const [file, ...more] = process.argv.slice(2)
	if (!file || more.length > 0) throw new PlainError('Say where to: npm run backup -- FILE, such as dromos.sql.gz')
	if (existsSync(file)) throw new PlainError(`${file} is there already. Name another, so that no backup is lost.`)
	await withHomeDatabase(async (url) => {
		const { rows, tables } = await writeBackup(url, path.resolve(file), new Date())
		console.log(`${file}: ${rows} rows of ${tables} tables. Passwords, sign-ins and links are not in it.`)
	})
})
