import { beforeAll, beforeEach, describe, expect, it } from 'vitest'
import { freshDatabase, makeClub } from '../../tests/support/test-club'
import { clubCount } from '../../db/queries/clubs'
import { ROLES } from '../../db/schema/people'
import { database } from '../database'
import { invite, join, makeFirstClub, readInvitation } from './join'
import { DECOY_HASH, hashPassword, passwordMatches } from './password'
import { may } from './roles'
import { signInWithPassword, signOut, waitAfter, whoIs } from './sign-in'

beforeAll(freshDatabase)
const FROM = { network: '203.0.113.7', device: null, browser: 'a computer' }
const at = (seconds: number) => new Date(Date.UTC(2026, 2, 1, 12, 0, seconds))
const coach = {
	name: 'Ada',
	email: 'Ada@Example.org',
	password: 'ten letters at least',
	club: 'Island',
	timeZone: 'Atlantic/Madeira',
}

describe('passwords', () => {
	it('are hashed with their own salt and cost, and match only themselves', async () => {
		const [one, two] = [await hashPassword('correct horse'), await hashPassword('correct horse')]
		expect(one).not.toBe(two)
		expect(one).toMatch(/^scrypt\$\d+\$8\$2\$/)
		expect(await passwordMatches('correct horse', one)).toBe(true)
		expect(await passwordMatches('correct hors', one)).toBe(false)
		expect(await passwordMatches('correct horse', 'plain')).toBe(false)
		// What stands in for a stranger's costs as much as a member's, and lets nobody in.
		const shape = (hash: string) => hash.split('$').map((part, at) => (at < 4 ? part : part.length))
		expect(shape(DECOY_HASH)).toEqual(shape(one))
		expect(await passwordMatches('', DECOY_HASH)).toBe(false)
	})
})

describe('signing in', () => {
	beforeEach(freshDatabase)
	it('makes the first club, signs in whatever the case of the address, and out again', async () => {
		const made = await makeFirstClub(coach, FROM, at(0))
		expect('token' in made && (await whoIs(made.token, at(1)))).toMatchObject({
			clubName: 'Island',
			role: 'coach',
			name: 'Ada',
		})
		const signed = await signInWithPassword('ada@example.ORG ', coach.password, FROM, at(2))
		if (!('token' in signed)) throw new Error(signed.problem)
		expect(await whoIs(signed.token, at(3))).toMatchObject({ name: 'Ada' })
		expect(await whoIs(signed.token, new Date(signed.expiresAt.getTime() + 1))).toBeNull()
		await signOut(signed.token)
		expect(await whoIs(signed.token, at(4))).toBeNull()
		expect(await whoIs('made up', at(4))).toBeNull()
	})

	it('slows down after five failed tries, for a stranger’s address too, and forgets after success', async () => {
		expect([0, 4, 5, 6, 7, 40].map(waitAfter)).toEqual([0, 0, 2, 4, 8, 900])
		expect(await makeFirstClub(coach, FROM, at(0))).toHaveProperty('token')
		for (const email of ['ada@example.org', 'nobody@example.org']) {
			for (let i = 0; i < 5; i++)
				expect(await signInWithPassword(email, 'wrong', FROM, at(10 + i))).toEqual({
					problem: 'The address and the password do not belong together.',
				})
			expect(await signInWithPassword(email, coach.password, FROM, at(15))).toEqual({
				problem: 'Too many tries for this address. Wait 1 s and try again.',
			})
		}
		expect(await signInWithPassword('ada@example.org', coach.password, FROM, at(60))).toHaveProperty('token')
		expect(await signInWithPassword('ada@example.org', 'wrong', FROM, at(61))).toHaveProperty(
			'problem',
			'The address and the password do not belong together.',
		)
	})

	it('says what is wrong with which value, and makes nothing', async () => {
		expect(await makeFirstClub(coach, FROM, at(0))).toHaveProperty('token')
		const before = await clubCount(database().db, null)
		const made = await makeFirstClub(
			{ name: ' ', email: 'ada', password: 'short', club: '', timeZone: 'Mars/Olympus' },
			FROM,
			at(0),
		)
		expect('problems' in made && made.problems).toEqual({
			name: 'A name of up to 200 characters is expected.',
			email: '“ada” is not an email address, like coach@example.org.',
			password: '5 characters are too few; 15 or more are expected, such as four words.',
			club: 'A name of up to 200 characters is expected.',
			timeZone: '“Mars/Olympus” is not a time zone; one like Europe/Lisbon is expected.',
		})
		expect(await makeFirstClub(coach, FROM, at(0))).toEqual({
			problems: { email: '“Ada@Example.org” signs in already. Use another address, or sign in with it.' },
		})
		expect(await clubCount(database().db, null)).toBe(before)
	})
})

describe('invitations', () => {
	it('let one person in, once, within two weeks', async () => {
		const { scope, coach: by } = await makeClub('Invites')
		const made = await invite(scope, by.personId, 'assistant', null, at(0))
		if (!('token' in made)) throw new Error('no link')
		expect(await readInvitation(made.token, new Date(at(0).getTime() + 15 * 86_400_000))).toBeNull()
		const person = { name: 'Bo', email: 'bo@example.org', password: 'long enough for me' }
		const [first, second] = await Promise.all([
			join(made.token, person, FROM, at(1)),
			join(made.token, { ...person, email: 'eve@example.org' }, FROM, at(1)),
		])
		expect([first, second].filter((result) => 'token' in result)).toHaveLength(1)
		expect(await join(made.token, { ...person, email: 'late@example.org' }, FROM, at(2))).toHaveProperty(
			'problems.name',
		)
		const joined = [first, second].find((result) => 'token' in result)
		expect(joined && 'token' in joined && (await whoIs(joined.token, at(2)))).toMatchObject({
			role: 'assistant',
			clubName: 'Invites',
			athleteId: null,
		})
	})

	it('for an athlete name an athlete of this club', async () => {
		const [mine, other] = [await makeClub('Mine'), await makeClub('Other')]
		expect(await invite(mine.scope, mine.coach.personId, 'athlete', null, at(0))).toHaveProperty('problems.athleteId')
		expect(await invite(mine.scope, mine.coach.personId, 'athlete', other.athletes[0]!, at(0))).toHaveProperty(
			'problems.athleteId',
		)
		// A guardian answers for a minor: not for a stranger's athlete, not for somebody of age.
		expect(await invite(mine.scope, mine.coach.personId, 'guardian', null, at(0))).toHaveProperty('problems.athleteId')
		expect(await invite(mine.scope, mine.coach.personId, 'guardian', mine.athletes[0]!, at(0))).toHaveProperty(
			'problems.athleteId',
			'A guardian is for an athlete under 18 whose birth date is known.',
		)
		expect(await invite(mine.scope, mine.coach.personId, 'king', null, at(0))).toHaveProperty('problems.role')
		expect(await invite(mine.scope, mine.coach.personId, 'athlete', mine.athletes[0]!, at(0))).toHaveProperty('token')
	})
})

it('follows the table of who may do what', () => {
	const who = (permission: Parameters<typeof may>[1]) => ROLES.filter((role) => may(role, permission))
	expect(who('plan:write')).toEqual(['coach'])
	expect(who('verdict:write')).toEqual(['coach'])
	expect(who('plan:read')).toEqual(['coach', 'assistant', 'clinician'])
	expect(who('marks:write')).toEqual(['coach'])
	expect(who('marks:write-today')).toEqual(['assistant'])
	expect(who('pain:read')).toEqual(['coach', 'clinician'])
	expect(who('clearance:record')).toEqual(['coach', 'clinician'])
	expect(who('people:write')).toEqual(['coach'])
})
