import { addTo } from '../core/lists/group-by'
import mysql, { type RowDataPacket } from 'mysql2/promise'
import { connect } from '../db/connect'
import { migrateDatabase } from '../db/migrate'
import { loadDemo } from '../server/demo/load-demo'
import { addDays } from '../core/calendar/day-count'

/** Nine weeks of the demo, as often as five years hold them. */
const WEEKS = 9
const TIMES = 29
const OTHER_CLUBS = 20
interface Size {
	times: number
	others: number
}
const WHOLE: Size = { times: TIMES, others: OTHER_CLUBS }
/** The same forty athletes with nine weeks behind them, and nobody beside: what only more of the past and of others is compared with. */
export const YOUNG: Size = { times: 1, others: 0 }
/** Athletes of the open squad who get a twin, so that there are forty. */
const TWINS = 12
/** Rows of a session and what hangs from them; each copy of a session copies them all. */
const OF_SESSIONS = [
	...['session', 'session_athlete', 'entry', 'line', 'mark', 'session_mean', 'observation', 'decision', 'verdict'],
]
const OF_ATHLETES = [
	...['athlete', 'athlete_identity', 'athlete_level', 'ladder_state', 'squad_member', 'session_athlete'],
	...['line', 'mark', 'session_mean', 'observation', 'verdict', 'outside_load'],
]

interface Column {
	name: string
	type: string
}

/** Copies rows inside a database, with other ids made from the old ones: fast enough for a million marks, and the same each time. */
class Copier {
	private constructor(
		private readonly connection: mysql.Connection,
		private readonly columns: Map<string, Column[]>,
	) {}

	static async of(connection: mysql.Connection): Promise<Copier> {
		const [rows] = await connection.query<RowDataPacket[]>(
			'select table_name as tableName, column_name as name, data_type as type from information_schema.columns where table_schema = database()',
		)
		const columns = new Map<string, Column[]>()
		for (const { tableName, name, type } of rows) addTo(columns, tableName, { name, type })
		return new Copier(connection, columns)
	}

	// What counts changes is about rows and is none of them.
	tables = () => [...this.columns.keys()].filter((table) => !table.startsWith('__') && table !== 'change_count')
	has = (table: string, column: string) => this.columns.get(table)!.some(({ name }) => name === column)

	/** Inserts the rows that meet a condition once more; `change` gives a column's new value, or null to leave it. */
	async copy(table: string, where: string, change: (column: Column) => string | null): Promise<void> {
		const columns = this.columns.get(table)!
		const names = columns.map(({ name }) => `\`${name}\``).join(', ')
		const values = columns.map((column) => change(column) ?? `\`${column.name}\``).join(', ')
		await this.connection.query(`insert into \`${table}\` (${names}) select ${values} from \`${table}\` where ${where}`)
	}

	/** Moves every day and moment of the database. */
	async shiftDays(days: number): Promise<void> {
		for (const [table, columns] of this.columns) {
			const moved = columns.filter(({ type }) => type === 'date' || type === 'datetime')
			if (table.startsWith('__') || moved.length === 0) continue
			const sets = moved.map(({ name }) => `\`${name}\` = date_add(\`${name}\`, interval ${days} day)`)
			await this.connection.query(`update \`${table}\` set ${sets.join(', ')}`)
		}
	}
}

/** Another id made from a column's, with the marks of a random one: the database refuses what has none. */
const renamed = (column: string, salt: string) =>
	`cast(insert(insert(md5(concat(\`${column}\`, '${salt}')), 13, 1, '4'), 17, 1, '8') as uuid)`

/**
 * Fills a database, once, with a club of forty athletes and five years, about a million marks, beside twenty
 * clubs of the demo's size; one that was filled on an earlier day is moved to today.
 *
 * @param url of a database that need not exist
 * @param size how many times nine weeks, and how many clubs beside it, where it is to be another size
 */
export async function fillBigClub(url: string, today: string, size: Size = WHOLE): Promise<void> {
	const name = new URL(url).pathname.slice(1)
	const connection = await mysql.createConnection({ uri: url.replace(/[^/]*$/, ''), timezone: 'Z', dateStrings: true })
	try {
		const [[there]] = await connection.query<RowDataPacket[]>(
			"select count(*) as filled from information_schema.tables where table_schema = ? and table_name = '__filled'",
			[name],
		)
		// Written last: a filling that was broken off starts over.
		if (!there!.filled) {
			await connection.query(`drop database if exists \`${name}\``)
			await migrateDatabase(url)
			await connection.query(`use \`${name}\``)
			await connection.query('set foreign_key_checks = 0, unique_checks = 0')
			await fill(url, connection, await Copier.of(connection), today, size)
			await connection.query(`create table __filled (day date not null) select '${today}' as day`)
			return
		}
		await migrateDatabase(url)
		await connection.query(`use \`${name}\``)
		const [[filled]] = await connection.query<RowDataPacket[]>('select day from __filled')
		const days = Math.round((Date.parse(today) - Date.parse(filled!.day)) / 86_400_000)
		if (days === 0) return
		console.log(`moving the filled club by ${days} days …`)
		await connection.query('set foreign_key_checks = 0, unique_checks = 0')
		await (await Copier.of(connection)).shiftDays(days)
		await connection.query('update __filled set day = ?', [today])
	} finally {
		await connection.end()
	}
}

async function fill(
	url: string,
	connection: mysql.Connection,
	copier: Copier,
	today: string,
	{ times, others }: Size,
): Promise<void> {
	const began = Date.now()
	console.log(`filling a club of forty athletes and ${times * WEEKS} weeks, once …`)
	const { db, pool } = connect(url)
	await loadDemo(db, new Date())
	await pool.end()

	// More clubs: every row, every id.
	for (let club = 1; club <= others; club++)
		for (const table of copier.tables().filter((name) => name === 'club' || copier.has(name, 'club_id')))
			await copier.copy(table, table === 'club' ? `id = (${DEMO})` : `club_id = (${DEMO})`, ({ name, type }) =>
				type === 'uuid' ? renamed(name, `club ${club}`) : name === 'email' ? `concat('${club}.', email)` : null,
			)

	const own = `club_id = (${DEMO})`
	const [twins] = await connection.query<RowDataPacket[]>(
		`select m.athlete_id as id from squad_member m join squad s on s.id = m.squad_id and s.club_id = m.club_id where m.${own} and s.name like 'Open%' order by 1 limit ${TWINS}`,
	)
	const list = twins.map(({ id }) => `'${id}'`).join(', ')
	for (const table of OF_ATHLETES)
		await copier.copy(table, `${own} and ${table === 'athlete' ? 'id' : 'athlete_id'} in (${list})`, ({ name }) =>
			name === 'athlete_id' || name === 'id' || (name === 'line_id' && table !== 'line')
				? renamed(name, 'twin')
				: table === 'athlete_identity' && name === 'name'
					? "concat(name, ' II')"
					: null,
		)

	// What was begun, again and again, each time nine weeks earlier.
	await connection.query(
		`create temporary table begun as select id from session where ${own} and reviewed_at is not null`,
	)
	for (let time = 1; time < times; time++) {
		const earlier = ({ name, type }: Column) =>
			type === 'date' || type === 'datetime' ? `date_sub(\`${name}\`, interval ${time * WEEKS * 7} day)` : null
		for (const table of OF_SESSIONS)
			await copier.copy(
				table,
				`${own} and ${table === 'session' ? 'id' : 'session_id'} in (select id from begun)`,
				(column) =>
					['id', 'session_id', 'entry_id', 'line_id', 'replaces_id'].includes(column.name)
						? renamed(column.name, `time ${time}`)
						: earlier(column),
			)
		await copier.copy(
			'outside_load',
			`${own} and day > '${addDays(today, -WEEKS * 7)}' and day <= '${today}'`,
			(column) => (column.name === 'id' ? renamed('id', `time ${time}`) : earlier(column)),
		)
	}
	// Twice the reps of each set, to a million in all.
	await copier.copy(
		'mark',
		`${own} and session_id not in (select id from session where ${own} and day > '${addDays(today, -WEEKS * 7)}')`,
		({ name }) => (name === 'id' ? renamed('id', 'again') : name === 'rep_no' ? 'rep_no + 40' : null),
	)
	await connection.query(`update squad_member set since = date_sub(since, interval 5 year) where ${own}`)
	for (const table of copier.tables()) await connection.query(`analyze table \`${table}\``)
	const [[count]] = await connection.query<RowDataPacket[]>(
		`select (select count(*) from mark where ${own}) as marks, (select count(*) from mark) as everywhere`,
	)
	console.log(
		`filled in ${Math.round((Date.now() - began) / 1000)} s: ${Number(count!.marks).toLocaleString('en')} marks, ${Number(count!.everywhere).toLocaleString('en')} with the other clubs\n`,
	)
}

/** The club the demo made; the others are copies of it. */
const DEMO = "select club_id from person where email = 'coach@demo.invalid'"

/** Another mark than those the filling uses: their ids may not meet. */
const TWIN = 'here for a while'

/**
 * Does something while some athletes of a club are there twice, in its squads and sessions, with what they have done since
 * a day; they are gone again afterwards.
 */
export async function withTwins<T>(
	connection: mysql.Connection,
	clubId: string,
	{ athleteIds, since }: { athleteIds: readonly string[]; since: string },
	work: () => Promise<T>,
): Promise<T> {
	const copier = await Copier.of(connection)
	const own = `club_id = '${clubId}'`
	const list = athleteIds.map((id) => `'${id}'`).join(', ')
	// An athlete who signs in is one person.
	const tables = copier
		.tables()
		.filter((name) => name !== 'person' && (name === 'athlete' || copier.has(name, 'athlete_id')))
	const idOf = (table: string) => (table === 'athlete' ? 'id' : 'athlete_id')
	await connection.query('set foreign_key_checks = 0')
	try {
		for (const table of tables) {
			const recent = copier.has(table, 'session_id')
				? ` and session_id in (select id from session where ${own} and day >= '${since}')`
				: ''
			await copier.copy(table, `${own} and ${idOf(table)} in (${list})${recent}`, ({ name }) =>
				['id', 'athlete_id', 'line_id', 'replaces_id'].includes(name)
					? renamed(name, TWIN)
					: table === 'athlete_identity' && name === 'name'
						? "concat(name, ' III')"
						: null,
			)
		}
		return await work()
	} finally {
		await connection.query(
			`create temporary table twin as select ${renamed('id', TWIN)} as id from athlete where ${own} and id in (${list})`,
		)
		for (const table of tables)
			await connection.query(`delete from \`${table}\` where ${own} and ${idOf(table)} in (select id from twin)`)
		await connection.query('drop temporary table twin')
		await connection.query('set foreign_key_checks = 1')
	}
}
