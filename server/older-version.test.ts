import type mysql from 'mysql2/promise'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { foldEvents } from '../core/events/fold'
import type { Family } from '../core/vocabulary/words'
import { readPack } from './field/read-pack'
import { readCalendar } from './plan/calendar'
import { readTemplates } from './plan/templates'
import { readSheet } from './sheet/read-sheet'
import { keptVersion, openOlderClub } from '../tests/support/older-version'
import { closePool } from '../tests/support/use-database'
import type { connect } from '../db/connect'
import { readLibrary } from '../db/queries/library'
import { eventsOfSessions } from '../db/queries/log'
import { readEntries, readLines, sessionsBetween } from '../db/queries/sessions'
import { listMembers, readStates } from '../db/queries/squads'

const { said } = keptVersion()
let open: ReturnType<typeof connect>
let scope: { db: ReturnType<typeof connect>['db']; clubId: string }

beforeAll(async () => {
	;({ open, scope } = await openOlderClub())
}, 60_000)
afterAll(async () => {
	await open.pool.end()
	await closePool()
})

const sessions = () => sessionsBetween(scope, '2026-01-01', '2026-12-31')

describe('a club of the version before', () => {
	it('has every row it had', async () => {
		for (const [table, rows] of Object.entries(said.tables)) {
			const [[found]] = await open.pool.query<mysql.RowDataPacket[]>(`select count(*) as n from \`${table}\``)
			// New versions of the built-in documents come beside the old ones.
			if (table === 'library_document') expect(Number(found!.n)).toBeGreaterThan(rows)
			else expect(Number(found!.n), table).toBe(rows)
		}
	})
	it('has a log that says the same', async () => {
		for (const session of await sessions()) {
			const { current, conflicts } = foldEvents(await eventsOfSessions(scope, [session.id]))
			expect(
				{
					current: current.map((event) => event.id).sort(),
					conflicts: conflicts.map((group) => group.map((event) => event.id).sort()).sort(),
				},
				session.id,
			).toEqual(said.folded[session.id])
		}
		expect(Object.values(said.folded).flatMap((one) => one.conflicts)).toHaveLength(1)
		expect(Object.values(said.folded).flatMap((one) => one.current).length).toBeGreaterThan(500)
	})
	it('has everybody on the rung where they stood', async () => {
		const ids = [...new Set((await listMembers(scope)).map((member) => member.id))]
		const states = [...(await readStates(scope, ids))].map(([key, row]) => [key, row.state]).sort()
		// Closures, worries and what stood in for them are the athlete's now: on the ladder stays where they stood.
		const before = said.states as [string, { closed?: unknown; substitute: object | null }][]
		const kept = before.map(([key, state]) => {
			const { closed: _closed, ...rest } = state
			return [key, { ...rest, substitute: null }]
		})
		expect(before.some(([, state]) => state.substitute !== null)).toBe(true)
		expect(JSON.parse(JSON.stringify(states))).toEqual(kept)
		expect(said.states.length).toBeGreaterThan(100)
	})

	/** What one rest meant, in the words of the migration: after every rep of a run, a turn or a throw, between sets of jumps; 8 s between rebounds. */
	const rested = (restS: number, sets: number, family: Family, drillId: string | null) => ({
		setsS: restS,
		repsS:
			sets <= 1 || family === 'sprint' || family === 'agility' || family === 'throw'
				? restS
				: drillId === 'depth-jump' || drillId === 'double-depth-jump' || drillId === 'low-box-rebound'
					? 8
					: 0,
	})
	it('has every entry, with two rests where it had one', async () => {
		const entries = await readEntries(
			scope,
			(await sessions()).map((session) => session.id),
		)
		const byId = new Map(entries.map((entry) => [entry.id, entry]))
		expect(byId.size).toBe(said.entries.length)
		for (const [id, part, family, drillId, ladderId, dose, parameters, restS] of said.entries)
			expect(byId.get(id), id).toMatchObject({
				...{ part, family, drillId, ladderId, dose, parameters },
				rest: rested(restS, dose.sets, family, drillId),
			})
		const forms = entries.flatMap((entry) => Object.values(entry.tuning?.variants ?? {}))
		expect(forms.length).toBeGreaterThan(10)
		for (const form of forms) expect(form).toMatchObject({ rest: { setsS: expect.any(Number) as number } })
		expect(JSON.stringify(entries)).not.toContain('restS')
	})
	it('has every line, with two rests where it had one', async () => {
		const all = (await sessions()).map((session) => session.id)
		const familyOf = new Map((await readEntries(scope, all)).map((entry) => [entry.id, entry.family]))
		const lines = new Map((await readLines(scope, all)).map((line) => [line.id, line]))
		expect(lines.size).toBe(said.lines.length)
		for (const [id, drillId, dose, parameters, restS] of said.lines) {
			const line = lines.get(id)!
			expect(line, id).toMatchObject({ drillId, dose, parameters })
			expect(line.rest, id).toEqual(rested(restS, dose.sets, familyOf.get(line.entryId)!, drillId))
		}
	})
	it('reads its own drill, its own ladder and its template', async () => {
		const library = await readLibrary(scope)
		expect(library.drills.pogo).toMatchObject({
			name: 'Own pogo',
			defaults: { dose: { sets: 3, reps: 15 }, rest: { repsS: 0, setsS: 60 }, parameters: {}, repS: 0.6 },
		})
		const { rungs, about } = library.ladders.stiffness!
		expect(about).toBe('Our own words.')
		expect(rungs.find((rung) => rung.id === 'pogo')!.rest).toEqual({ repsS: 0, setsS: 60 })
		expect(rungs.find((rung) => rung.id === 'low-box-rebound')!.rest).toEqual({ repsS: 8, setsS: 120 })
		expect((await readTemplates(scope, library)).map(({ content }) => content)).toMatchObject([
			{ version: 2, name: 'Kept in November', entries: [{ drillId: 'broad-jump', rest: { repsS: 0, setsS: 60 } }] },
		])
	})
	it('opens its calendar, every sheet and every pack', async () => {
		const calendar = await readCalendar(scope, '2026-05-11', '2026-07-01', '2026-05-20')
		expect(calendar.sessions.length).toBeGreaterThan(15)
		for (const session of await sessions()) {
			expect((await readSheet(scope, session.id))!.entries.length, session.id).toBeGreaterThan(0)
			expect(await readPack(scope, session.id, 'coach'), session.id).not.toBeNull()
		}
	})
})
