import { readdirSync, statSync, statfsSync } from 'node:fs'
import path from 'node:path'
import { connect } from '../db/connect'
import { NewerDatabase, migrateDatabase } from '../db/migrate'
import { clubCount } from '../db/queries/clubs'
import { installLibraryEverywhere } from '../db/queries/library'
import { DEMO_SIGN_IN } from '../server/demo/sign-in'
import { keyOlderMarks } from '../server/marks/keep-marks'
import { PlainError } from './plain-error'

const MB = 1024 * 1024
/** Beside the copy of the largest table, that one is changed by copying it. */
const ROOM_MB = 256
/**
 * A disk that fills up while a table is made or changed leaves the database server with a log it cannot always recover
 * from when it then ends: changes are not begun on one that is nearly full.
 */
function refuseWithoutRoom(folder: string): void {
	const data = path.join(folder, 'mariadb')
	const largest = readdirSync(data, { recursive: true, withFileTypes: true })
		.filter((file) => file.isFile() && file.name.endsWith('.ibd'))
		.reduce((most, file) => Math.max(most, statSync(path.join(file.parentPath, file.name)).size), 0)
	const { bavail, bsize } = statfsSync(data)
	const [left, needed] = [Math.floor((bavail * bsize) / MB), ROOM_MB + Math.ceil(largest / MB)]
	if (left < needed)
		throw new PlainError(
			`This version changes the database, and there is not enough room for that: ${left} MB are free where ${folder} lies, ${needed} MB are needed. Nothing was changed. Make room and start again.`,
		)
}

/** What a database holds once it is up to date. */
export interface Prepared {
	hasClub: boolean
	hasDemo: boolean
}

/**
 * Brings the tables up to date and fills an empty database with demo data, unless it is to stay empty.
 *
 * @param folder the data directory of a database of ours; null for one that DATABASE_URL names
 * @throws PlainError when it is of a newer version, cannot be used, or has no room to be changed in
 */
export async function prepareDatabase(url: string, empty: boolean, folder: string | null): Promise<Prepared> {
	try {
		await migrateDatabase(url, folder === null ? undefined : () => refuseWithoutRoom(folder))
	} catch (error) {
		if (error instanceof PlainError) throw error
		if (error instanceof NewerDatabase) throw new PlainError(error.message)
		if (process.env.DATABASE_URL)
			throw new PlainError(`The database at DATABASE_URL cannot be used: ${reasonOf(error)}.`)
		throw error
	}
	await withDatabase(url, ({ db }) => installLibraryEverywhere(db, new Date()))
	// Marks of before there were keys, or of older ones: once, before anybody compares them.
	await withDatabase(url, ({ db }) =>
		keyOlderMarks(db, (sessions) =>
			console.log(`Sorting the marks of ${sessions} sessions by what they compare with …`),
		),
	)
	const [hasClub, hasDemo] = await withDatabase(url, async ({ db }) =>
		Promise.all([null, DEMO_SIGN_IN.email].map(async (email) => (await clubCount(db, email)) > 0)),
	)
	if (empty || hasClub) return { hasClub: hasClub!, hasDemo: hasDemo! }
	console.log('Writing nine weeks of demo data …')
	// A first start only: every other one is spared reading it.
	const { loadDemo } = await import('../server/demo/load-demo')
	await withDatabase(url, ({ db }) => loadDemo(db, new Date()))
	return { hasClub: true, hasDemo: true }
}

const reasonOf = (error: unknown): string =>
	error instanceof Error ? error.message || String((error as NodeJS.ErrnoException).code) : String(error)

async function withDatabase<T>(url: string, ask: (connection: ReturnType<typeof connect>) => Promise<T>): Promise<T> {
	const connection = connect(url)
	try {
		return await ask(connection)
	} finally {
		await connection.pool.end()
	}
}
