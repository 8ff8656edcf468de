import { beforeAll, expect, it } from 'vitest'
import { freshDatabase } from '../../tests/support/test-club'
import { STARTER_LIBRARY } from '../../core/library/starter-library'
import { judge } from '../../core/progress/judge'
import { hashOf } from '../../db/queries/library'
import { sessionsBetween, sessionsToReview, readLines } from '../../db/queries/sessions'
import { personByEmail } from '../../db/queries/clubs'
import { verdictsOfAthlete } from '../../db/queries/verdicts'
import { listMembers } from '../../db/queries/squads'
import { database } from '../database'
import { documentsOf } from '../review/gather'
import { DEMO_SIGN_IN, loadDemo } from './load-demo'

const NOW = new Date('2026-05-20T10:00:00Z')
let scope: { db: ReturnType<typeof database>['db']; clubId: string }

beforeAll(async () => {
	await freshDatabase()
	await loadDemo(database().db, NOW)
	const coach = await personByEmail(database().db, DEMO_SIGN_IN.email)
	scope = { db: database().db, clubId: coach!.clubId }
}, 120_000)

it('holds 28 athletes, nine weeks behind, a session today and one that waits for review', async () => {
	expect(await listMembers(scope)).toHaveLength(28)
	const past = await sessionsBetween(scope, '2026-03-10', '2026-05-19')
	expect(past.length).toBeGreaterThanOrEqual(52)
	expect(past.some((session) => session.phase === 'unloading')).toBe(true)
	const [today] = await sessionsBetween(scope, '2026-05-20', '2026-05-20')
	expect(today).toMatchObject({ startedAt: null, squadName: 'Open squad' })
	expect((await sessionsToReview(scope)).map((session) => session.squadName)).toEqual(['Under 17'])
	const lines = await readLines(scope, [today!.id])
	const changes = new Set(lines.flatMap((line) => (line.change?.verdict ? [line.change.verdict] : [])))
	for (const verdict of ['advance', 'ease', 'swap']) expect(changes, verdict).toContain(verdict)
})

it('keeps verdicts that replay exactly from their stored input', async () => {
	for (const { id } of (await listMembers(scope)).slice(0, 6)) {
		for (const row of await verdictsOfAthlete(scope, id, 20)) {
			expect(judge(row.input, documentsOf(STARTER_LIBRARY, row.ladderId, 'quality-first'))).toEqual(row.judgement)
			expect(hashOf(row.input)).toBe(row.inputHash)
		}
	}
})

it('lets nobody under 16 or at level 1 near a rebound from a box', async () => {
	const young = (await listMembers(scope)).filter((member) => member.birthDate! > '2010-05-20')
	expect(young.length).toBeGreaterThan(2)
	for (const { id } of young) for (const row of await verdictsOfAthlete(scope, id, 200)) expect(row.after.rungId).not.toMatch(/^depth/)
})
