import { mkdtempSync, rmSync } from 'node:fs'
import { tmpdir } from 'node:os'
import path from 'node:path'
import { connect } from '../../db/connect'
import { migrateDatabase } from '../../db/migrate'
import { buildApp } from '../../scripts/build-app'
import { startLocalDatabase } from '../../scripts/local-database'
import { loadDemo } from '../../server/demo/load-demo'
import { copyDatabase } from './copy-database'

export default async () => {
	// Once, before several applications would each build it at the same moment.
	await buildApp()
	return startTemplates({ throwaway: true })
}

/** A database server of the browser tests' own, with the two databases their applications start from: empty, and the demo club as of today. */
export async function startTemplates(options: { throwaway: boolean }): Promise<() => Promise<void>> {
	const home = mkdtempSync(path.join(tmpdir(), 'dromos-e2e-'))
	const server = await startLocalDatabase(home, options)
	process.env.TEST_DATABASE_URL = server.url('')
	await migrateDatabase(server.url('dromos_empty'))
	await copyDatabase(server.url(''), 'dromos_empty', 'dromos_demo')
	const demo = connect(server.url('dromos_demo'))
	await loadDemo(demo.db, new Date())
	await demo.pool.end()
	return async () => {
		await server.stop()
		rmSync(home, { recursive: true, force: true })
	}
}
