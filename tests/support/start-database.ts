import { mkdtempSync, rmSync } from 'node:fs'
import { tmpdir } from 'node:os'
import path from 'node:path'
import { migrateDatabase } from '../../db/migrate'
import { startLocalDatabase } from '../../scripts/local-database'

/** A database server of the tests' own, gone when they end; it can run beside a running app. Tests copy its template. */
export default async function startDatabase() {
	const home = mkdtempSync(path.join(tmpdir(), 'dromos-test-'))
	const database = await startLocalDatabase(home, { throwaway: true })
	process.env.TEST_DATABASE_URL = database.url('')
	await migrateDatabase(database.url('dromos_template'))
	return async () => {
		await database.stop()
		rmSync(home, { recursive: true, force: true })
	}
}
