import { randomUUID } from 'node:crypto'
import { beforeAll, beforeEach, describe, expect, it } from 'vitest'
import { insertPerson, listPeople } from '../../db/queries/clubs'
import { writeAddress, addressOf } from '../../db/queries/emergency'
import { insertGround, listGrounds } from '../../db/queries/grounds'
import { markStarted, readSession } from '../../db/queries/sessions'
import { listSquads } from '../../db/queries/squads'
import type { Role } from '../../db/schema/people'
import { draftEntry } from '../../tests/support/draft-entry'
import { planSession } from '../../tests/support/plan-session'
import { NOW, type TestClub, freshDatabase, makeClub } from '../../tests/support/test-club'
import { changeGround, takeGroundOff } from '../field-map/save-map'
import {
	type ClubChanged,
	bringPersonBack,
	changeClub,
	changePerson,
	takePersonOff,
	withdrawInvitation,
} from './change-club'
import { invite, join } from './join'
import { hashPassword } from './password'
import { readClubPage } from './read-club-page'
import { signInWithPassword, whoIs } from './sign-in'

beforeAll(freshDatabase)

const PASSWORD = 'a long enough password'
const FROM = { network: '203.0.113.7', device: null, browser: 'a computer' }
const KEPT = { saved: true }
let club: TestClub
beforeEach(async () => {
	club = await makeClub('Club', 2)
})
const problem = (changed: ClubChanged) => (changed && 'problem' in changed ? changed.problem : changed)

async function somebody(role: Role, name = 'Rey'): Promise<{ id: string; email: string }> {
	const id = randomUUID()
	const email = `${id}@example.org`
	await insertPerson(club.scope, {
		id,
		email,
		name,
		role,
		passwordHash: await hashPassword(PASSWORD),
		athleteId: role === 'athlete' || role === 'guardian' ? club.athletes[0]! : null,
		createdAt: NOW,
	})
	return { id, email }
}
const personOf = async (id: string) => (await listPeople(club.scope)).find((one) => one.id === id)!

describe('somebody who signs in', () => {
	it('gets another name and role, at once', async () => {
		const { id, email } = await somebody('assistant')
		const signed = await signInWithPassword(email, PASSWORD, FROM, NOW)
		expect(await changePerson(club.coach, id, { name: ' Rey Ann ', role: 'clinician' }, 0, NOW)).toEqual(KEPT)
		const who = await whoIs('token' in signed ? signed.token : '', NOW)
		expect([who?.name, who?.role]).toEqual(['Rey Ann', 'clinician'])
	})
	it('whose page is an athlete’s stays that athlete’s: no role reads more than it did', async () => {
		const { id } = await somebody('guardian')
		for (const role of ['coach', 'athlete', 'clinician', 'owner'])
			expect(problem(await changePerson(club.coach, id, { name: 'Rey', role }, 0, NOW)), role).toBe(
				`“${role}” cannot be the role of Rey.`,
			)
		expect(await changePerson(club.coach, id, { name: 'Reya', role: 'guardian' }, 0, NOW)).toEqual(KEPT)
		const { id: assistant } = await somebody('assistant')
		expect(problem(await changePerson(club.coach, assistant, { name: 'Rey', role: 'athlete' }, 0, NOW))).toContain(
			'cannot be',
		)
	})
	it('taken off is signed out at once and cannot sign in, until let in again', async () => {
		const { id, email } = await somebody('assistant')
		const signed = await signInWithPassword(email, PASSWORD, FROM, NOW)
		const token = 'token' in signed ? signed.token : ''
		expect((await whoIs(token, NOW))?.personId).toBe(id)
		expect(await takePersonOff(club.coach, id, NOW)).toEqual(KEPT)
		expect(await whoIs(token, NOW)).toBeNull()
		expect(await signInWithPassword(email, PASSWORD, FROM, NOW)).toEqual({
			problem: 'The address and the password do not belong together.',
		})
		expect(await bringPersonBack(club.coach, id, NOW)).toEqual(KEPT)
		expect(await whoIs(token, NOW), 'the old cookie stays worth nothing').toBeNull()
		expect(await signInWithPassword(email, PASSWORD, FROM, NOW)).toHaveProperty('token')
	})
	it('one coach stays: the last is neither taken off nor made something else', async () => {
		const words = 'A club keeps one coach at least: make somebody else a coach first.'
		const last = club.coach.personId
		expect(problem(await takePersonOff(club.coach, last, NOW))).toBe(words)
		expect(problem(await changePerson(club.coach, last, { name: 'Coach', role: 'assistant' }, 0, NOW))).toBe(words)
		const { id } = await somebody('coach')
		expect(await changePerson(club.coach, last, { name: 'Coach', role: 'assistant' }, 0, NOW)).toEqual(KEPT)
		expect(problem(await takePersonOff(club.coach, id, NOW))).toBe(words)
		// A coach who was taken off does not count as one.
		const { id: other } = await somebody('coach')
		expect(await takePersonOff(club.coach, other, NOW)).toEqual(KEPT)
		expect(problem(await takePersonOff(club.coach, id, NOW))).toBe(words)
	})
	it('two coaches who take each other off at once: one of them stays', async () => {
		const { id } = await somebody('coach')
		const both = await Promise.all([
			takePersonOff(club.coach, id, NOW),
			takePersonOff(club.coach, club.coach.personId, NOW),
		])
		expect(both.filter((one) => one && 'saved' in one)).toHaveLength(1)
	})
	it('changed by two at once: the second is asked', async () => {
		const { id } = await somebody('assistant')
		await changePerson(club.coach, id, { name: 'Ray', role: 'assistant' }, 0, NOW)
		expect(await changePerson(club.coach, id, { name: 'Roy', role: 'assistant' }, 0, NOW)).toMatchObject({
			meanwhile: { version: 1, differences: [{ label: 'Name', theirs: 'Ray', yours: 'Roy' }] },
		})
		expect((await personOf(id)).name).toBe('Ray')
	})
	it('of another club is a stranger', async () => {
		const other = await makeClub('Other', 0)
		const id = other.coach.personId
		expect(await changePerson(club.coach, id, { name: 'X', role: 'coach' }, 0, NOW)).toBeNull()
		expect(await takePersonOff(club.coach, id, NOW)).toBeNull()
		expect(await bringPersonBack(club.coach, id, NOW)).toBeNull()
	})
})

it('a link that was sent to the wrong one is withdrawn, and lets nobody in', async () => {
	const made = await invite(club.scope, club.coach.personId, 'assistant', null, NOW)
	const token = 'token' in made ? made.token : ''
	const [open] = (await readClubPage(club.coach, NOW)).invitations
	expect(open).toMatchObject({ role: 'assistant', of: null, expires: '2026-03-26' })
	expect(await withdrawInvitation(club.coach, open!.id, NOW)).toEqual(KEPT)
	expect((await readClubPage(club.coach, NOW)).invitations).toEqual([])
	expect(await join(token, { name: 'X', email: 'x@example.org', password: PASSWORD }, FROM, NOW)).toHaveProperty(
		'problems',
	)
	expect(problem(await withdrawInvitation(club.coach, open!.id, NOW))).toContain('used or has run out')
})

const starts = () => [draftEntry({ part: 'Starts', drillId: 'three-point-start', sets: 1, reps: 2, rest: 60 })]

describe('the club’s clock', () => {
	it('moves what is ahead, at the same time of day, and nothing that began', async () => {
		const begun = await planSession(club, '2026-03-12', starts())
		await markStarted(club.scope, begun, NOW)
		const ahead = await planSession(club, '2026-03-16', starts())
		expect(await changeClub(club.coach, { name: 'Club', timeZone: 'Pacific/Auckland' }, 0, NOW)).toEqual(KEPT)
		const held = async (id: string) => {
			const row = (await readSession(club.scope, id))!
			return [row.day, row.startTime, row.timeZone]
		}
		expect(await held(begun)).toEqual(['2026-03-12', '17:30', 'Atlantic/Madeira'])
		expect(await held(ahead)).toEqual(['2026-03-16', '17:30', 'Pacific/Auckland'])
	})
	it.each([
		[{ name: 'Club', timeZone: 'Mars/Base' }, '“Mars/Base” is not a time zone; one like Europe/Lisbon is expected.'],
		[{ name: ' ', timeZone: 'Europe/Lisbon' }, 'A name of up to 200 characters is expected.'],
		[{ name: 'x'.repeat(201), timeZone: 'Europe/Lisbon' }, 'A name of up to 200 characters is expected.'],
	])('refuses %o', async (typed, words) => {
		expect(problem(await changeClub(club.coach, typed, 0, NOW))).toBe(words)
	})
})

describe('a ground', () => {
	const typed = { name: 'Meadow', lengthM: '60', widthM: '40', surface: 'grass' }
	let id: string
	beforeEach(async () => {
		id = randomUUID()
		await insertGround(club.scope, { id, name: 'Field', lengthM: 60, widthM: 40, surface: 'grass' })
	})
	it('by another name takes along who trains there, what is ahead, and where help has to come to', async () => {
		await writeAddress(club.scope, {
			place: 'Field',
			address: 'Mill Lane, north gate',
			changedBy: club.coach.personId,
			changedAt: NOW,
		})
		const ahead = await planSession(club, '2026-03-16', starts(), { place: 'Field' })
		const begun = await planSession(club, '2026-03-13', starts(), { place: 'Field' })
		await markStarted(club.scope, begun, NOW)
		expect(await changeGround(club.coach, id, { ...typed, surface: 'track' }, 0, NOW)).toEqual(KEPT)
		const place = async (session: string) => {
			const row = (await readSession(club.scope, session))!
			return [row.place, row.surface]
		}
		expect(await place(ahead)).toEqual(['Meadow', 'track'])
		expect((await place(begun))[0]).toBe('Field')
		expect((await listSquads(club.scope)).map((one) => one.place)).toEqual(['Meadow'])
		expect(await addressOf(club.scope, 'Meadow')).toBe('Mill Lane, north gate')
	})
	it('taken off comes back as it was', async () => {
		await takeGroundOff(club.coach, id, true)
		expect(await listGrounds(club.scope)).toEqual([])
		expect((await readClubPage(club.coach, NOW)).groundsOff).toEqual([{ id, name: 'Field' }])
		await takeGroundOff(club.coach, id, false)
		expect(await listGrounds(club.scope)).toEqual([{ id, name: 'Field', lengthM: 60, widthM: 40, surface: 'grass' }])
	})
	it('changed by two at once: the second is asked; of another club it is a stranger’s', async () => {
		await changeGround(club.coach, id, typed, 0, NOW)
		expect(await changeGround(club.coach, id, { ...typed, lengthM: '70' }, 0, NOW)).toMatchObject({
			meanwhile: { differences: [{ label: 'Size', theirs: '60 × 40 m', yours: '70 × 40 m' }] },
		})
		const other = await makeClub('Other', 0)
		expect(await changeGround(other.coach, id, typed, 0, NOW)).toBeNull()
	})
	it.each([
		[{ ...typed, name: ' ' }, 'A ground has a name of up to 200 characters.'],
		[{ ...typed, lengthM: '9.9' }, '“9.9” by “40”: 10 to 400 m by 5 to 400 m are expected.'],
		[{ ...typed, widthM: '4.9' }, '“60” by “4.9”: 10 to 400 m by 5 to 400 m are expected.'],
		[{ ...typed, surface: 'ice' }, 'Say what is under foot there.'],
	])('refuses %o', async (one, words) => {
		expect(await changeGround(club.coach, id, one, 0, NOW)).toEqual({ problem: words })
	})
})
