import { randomUUID, scryptSync } from 'node:crypto'
import { sql } from 'drizzle-orm'
import { beforeEach, describe, expect, it } from 'vitest'
import { insertPerson, listDeeds, readClub } from '../../db/queries/clubs'
import { database } from '../database'
import { NOW, type TestClub, freshDatabase, makeClub } from '../../tests/support/test-club'
import { makePairingCode, pairDevice } from '../devices/pair'
import { takePersonOff } from './change-club'
import { changePassword, endSignIns, readSignIns } from './change-self'
import { join, linkForPassword } from './join'
import { type From, isEnded, signInWithPassword, whoIs } from './sign-in'

const PASSWORD = 'chalk on wet grass'
const ANOTHER = 'violin harbour spoon'
const after = (seconds: number) => new Date(NOW.getTime() + seconds * 1000)
const DAY_S = 86_400
const from = (network: string, device: string | null = null): From => ({ network, device, browser: 'a computer' })
const HOME = '203.0.113.7'
const WRONG = { problem: 'The address and the password do not belong together.' }

/** As it is kept, at a cost that forty tries can pay. */
const salt = Buffer.from('sixteen bytes ..')
const hash = `scrypt$1024$8$1$${salt.toString('base64')}$${scryptSync(PASSWORD, salt, 32, { N: 1024, r: 8, p: 1 }).toString('base64')}`
let club: TestClub
let email = ''
let id = ''
beforeEach(async () => {
	await freshDatabase()
	club = await makeClub('Keys', 1)
	id = randomUUID()
	email = `ada.${id.slice(0, 8)}@example.org`
	await somebody(id, email)
})
const somebody = (personId: string, address: string) =>
	insertPerson(club.scope, {
		id: personId,
		email: address,
		name: 'Ada',
		role: 'assistant',
		passwordHash: hash,
		athleteId: null,
		createdAt: NOW,
	})
async function opened(at = NOW, where = from(HOME), password = PASSWORD) {
	const result = await signInWithPassword(email, password, where, at)
	if ('problem' in result) throw new Error(result.problem)
	return result
}
const readProfile = async () => (await readClub(club.scope)).name
const self = async (token: string, at = NOW) => (await whoIs(token, at))!
const deeds = async () => (await listDeeds(club.scope, 50)).map(({ what }) => what)

describe('guessing', () => {
	it('many tries at once are counted one by one: five are made, the rest wait', async () => {
		const answers = await Promise.all(
			Array.from({ length: 24 }, (_, index) => signInWithPassword(email, 'wrong', from(`198.51.100.${index}`), NOW)),
		)
		const made = answers.filter((one) => 'problem' in one && one.problem === WRONG.problem)
		expect(made).toHaveLength(5)
		expect(answers.filter((one) => 'problem' in one && one.problem.startsWith('Too many tries for this'))).toHaveLength(
			19,
		)
	})
	it('tries that wait for each other leave connections for pages', async () => {
		// The first try makes the row of its place; somebody holds it then.
		await signInWithPassword(email, 'wrong', from(HOME), NOW)
		let waiting: Promise<unknown>[] = []
		await database().db.transaction(async (tx) => {
			await tx.execute(sql`select 1 from sign_in_failure for update`)
			waiting = Array.from({ length: 24 }, () => signInWithPassword(email, 'wrong', from(HOME), NOW))
			// A pool has ten connections: each would wait for the row, once they have come so far.
			await new Promise((resolve) => setTimeout(resolve, 500))
			const page = Promise.race([readProfile(), new Promise((resolve) => setTimeout(resolve, 10_000, 'none is left'))])
			expect(await page).toBe('Keys')
		})
		// One before, four more, and the rest are told to wait.
		expect((await Promise.all(waiting)).filter((one) => JSON.stringify(one) === JSON.stringify(WRONG))).toHaveLength(4)
	})
	it('however the address is spelt, it is one address', async () => {
		const spelt = [email, email.toUpperCase(), ` ${email}\u200b`, email.replace('@', '\uff20'), email]
		for (const one of spelt) expect(await signInWithPassword(one, 'wrong', from(HOME), NOW)).toEqual(WRONG)
		expect(await signInWithPassword(email, PASSWORD, from(HOME), after(1))).toHaveProperty(
			'problem',
			expect.stringContaining('for this address'),
		)
	})
	it('an accent is another address, and nobody’s', async () => {
		expect(await signInWithPassword(email.replace('ada', 'adá'), PASSWORD, from(HOME), NOW)).toEqual(WRONG)
		expect(await signInWithPassword(email, PASSWORD, from(HOME), NOW)).toHaveProperty('token')
	})
	it('many addresses from one place get slower too; other places go on', async () => {
		for (let one = 0; one < 40; one++) await somebody(randomUUID(), `nobody${one}@example.org`)
		for (let one = 0; one < 40; one++)
			expect(await signInWithPassword(`nobody${one}@example.org`, 'wrong', from(HOME), NOW)).toEqual(WRONG)
		expect(await signInWithPassword('nobody40@example.org', 'wrong', from(HOME), NOW)).toHaveProperty(
			'problem',
			expect.stringContaining('from here'),
		)
		expect(await signInWithPassword(email, PASSWORD, from('198.51.100.1'), NOW)).toHaveProperty('token')
	})
	it('a stranger who hammers on an address does not lock out the browser that knows it', async () => {
		const { device } = await opened()
		for (let one = 0; one < 8; one++) await signInWithPassword(email, 'wrong', from('198.51.100.1'), NOW)
		expect(await signInWithPassword(email, PASSWORD, from(HOME), NOW)).toHaveProperty('problem')
		expect(await signInWithPassword(email, PASSWORD, from(HOME, device), NOW)).toHaveProperty('token')
		// Known for this person only.
		expect(await signInWithPassword('other@example.org', 'wrong', from(HOME, device), NOW)).toEqual(WRONG)
		// And counted there as well.
		for (let one = 0; one < 5; one++)
			expect(await signInWithPassword(email, 'wrong', from(HOME, device), after(100))).toEqual(WRONG)
		expect(await signInWithPassword(email, PASSWORD, from(HOME, device), after(100))).toHaveProperty(
			'problem',
			expect.stringContaining('for this address'),
		)
	})
	it('what failed a day ago is forgotten', async () => {
		for (let one = 0; one < 12; one++) await signInWithPassword(email, 'wrong', from(HOME), after(one * 1000))
		expect(await signInWithPassword(email, PASSWORD, from(HOME), after(12_000 + DAY_S))).toHaveProperty('token')
	})
	it('wrong pairing codes slow down where they come from and nobody else', async () => {
		const { code } = await makePairingCode(club.scope, NOW)
		let last
		for (let one = 0; one < 24; one++) last = await pairDevice('AAAA-AAAA', 'mat', 'x', '198.51.100.1', NOW)
		expect(last).toMatchObject({ status: 429 })
		expect(await pairDevice(code, 'mat', 'Mat', '198.51.100.1', NOW)).toMatchObject({ status: 429 })
		expect(await pairDevice(code, 'mat', 'Mat', HOME, NOW)).toHaveProperty('token')
	})
})

describe('a sign-in', () => {
	it('ends when nobody uses it for two weeks, and after ninety days however much it is used', async () => {
		const { token } = await opened()
		expect(await whoIs(token, after(14 * DAY_S - 1))).not.toBeNull()
		// Used just now, it counts from now.
		expect(await whoIs(token, after(28 * DAY_S - 3))).not.toBeNull()
		for (let day = 40; day < 90; day += 10) expect(await whoIs(token, after(day * DAY_S))).not.toBeNull()
		expect(await whoIs(token, after(90 * DAY_S + 1))).toBeNull()
		const idle = await opened()
		expect(await whoIs(idle.token, after(14 * DAY_S + 1))).toBeNull()
		// Nobody ended it: what its device holds is still its own.
		expect(await isEnded(idle.token)).toBe(false)
	})
	it('is seen and ended by its owner, and by nobody else', async () => {
		const [first, second] = [await opened(), await opened(after(60))]
		const who = await self(first.token)
		const seen = await readSignIns(who, first.token, after(61))
		expect(seen.map(({ device, isThis }) => [device, isThis])).toEqual([
			['a computer', false],
			['a computer', true],
		])
		expect(await endSignIns(club.coach, 'another', seen[0]!.id, NOW)).toHaveProperty('problem')
		expect(await whoIs(second.token, after(61))).not.toBeNull()
		expect(await endSignIns(who, first.token, seen[0]!.id, NOW)).toEqual({ saved: true })
		expect(await whoIs(second.token, after(61))).toBeNull()
		expect(await Promise.all([second.token, first.token, null].map(isEnded))).toEqual([true, false, false])
		expect(await whoIs(first.token, after(61))).not.toBeNull()
	})
})

describe('another password', () => {
	it('needs the one before, ends everything else, and nothing of it is in the record but that it was', async () => {
		const [here, there] = [await opened(), await opened(after(1))]
		const who = await self(here.token)
		const change = (old: string, fresh: string, at = after(2)) => changePassword(who, here.token, { old, fresh }, at)
		expect(await change('wrong', ANOTHER)).toEqual({ problem: 'The password you have is another.' })
		expect(await change(PASSWORD, 'short')).toHaveProperty('problem', expect.stringContaining('too few'))
		expect(await change(PASSWORD, email)).toHaveProperty('problem', expect.stringContaining('own address'))
		expect(await change(PASSWORD, ANOTHER)).toEqual({ saved: true })
		expect(await whoIs(there.token, after(3))).toBeNull()
		expect(await Promise.all([there.token, here.token].map(isEnded))).toEqual([true, false])
		expect(await whoIs(here.token, after(3))).not.toBeNull()
		expect(await signInWithPassword(email, PASSWORD, from(HOME), after(4))).toEqual(WRONG)
		expect(await signInWithPassword(email, ANOTHER, from(HOME), after(4))).toHaveProperty('token')
		expect(await deeds()).toContain('password-changed')
		// The browser that was known is a stranger again.
		for (let one = 0; one < 5; one++) await signInWithPassword(email, 'wrong', from('198.51.100.1'), after(5))
		expect(await signInWithPassword(email, ANOTHER, from(HOME, there.device), after(5))).toHaveProperty('problem')
	})
	it('is not guessed from an unlocked phone', async () => {
		const { token } = await opened()
		const who = await self(token)
		for (let one = 0; one < 5; one++) await changePassword(who, token, { old: `wrong ${one}`, fresh: ANOTHER }, NOW)
		expect(await changePassword(who, token, { old: PASSWORD, fresh: ANOTHER }, NOW)).toHaveProperty(
			'problem',
			expect.stringContaining('Too many tries'),
		)
	})
	it('by a link of the coach: once, for two days, the newest link only, and not of another club', async () => {
		const signed = await opened()
		const other = await makeClub('Other', 0)
		expect(await linkForPassword(other.scope, other.coach.personId, id, NOW)).toBeNull()
		const old = (await linkForPassword(club.scope, club.coach.personId, id, NOW))!
		const link = (await linkForPassword(club.scope, club.coach.personId, id, NOW))!
		const use = (token: string, at = after(1), password = ANOTHER) =>
			join(token, { name: '', email: '', password }, from(HOME), at)
		expect(await use(old.token)).toHaveProperty('problems')
		expect(await use(link.token, after(2 * DAY_S + 1))).toHaveProperty('problems')
		expect(await use(link.token, after(1), 'password1234567')).toHaveProperty('problems.password')
		const results = await Promise.all([use(link.token), use(link.token, after(1), 'another four word one')])
		expect(results.filter((one) => 'token' in one)).toHaveLength(1)
		expect(await use(link.token)).toHaveProperty('problems')
		expect(await whoIs(signed.token, after(2))).toBeNull()
		expect(await signInWithPassword(email, PASSWORD, from(HOME), after(3))).toEqual(WRONG)
		expect(await deeds()).toEqual(expect.arrayContaining(['password-link', 'password-reset', 'signed-in']))
	})
	it('a link lets nobody in who was taken off meanwhile', async () => {
		const link = (await linkForPassword(club.scope, club.coach.personId, id, NOW))!
		await takePersonOff(club.coach, id, NOW)
		expect(await join(link.token, { name: '', email: '', password: ANOTHER }, from(HOME), NOW)).toHaveProperty(
			'problems',
		)
		expect(await linkForPassword(club.scope, club.coach.personId, id, NOW)).toBeNull()
		expect(await deeds()).toContain('taken-off')
	})
})
