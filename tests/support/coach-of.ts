import { randomUUID } from 'node:crypto'
import type { Page } from '@playwright/test'
import { addDays } from '../../core/calendar/day-count'
import { insertPerson } from '../../db/queries/clubs'
import type { App } from './app-test'
import { signIn } from './sign-in'
import { type TestClub, makeClub } from './test-club'

/** A club of so many athletes who have trained up to a day, yesterday if none is named, with its coach signed in. */
export async function coachOf(
	page: Page,
	app: App,
	athletes: number,
	trainedUntil = addDays(new Date().toISOString().slice(0, 10), -1),
): Promise<TestClub> {
	const club = await makeClub('Club', athletes, trainedUntil)
	const email = `${randomUUID()}@example.org`
	await insertPerson(club.scope, {
		id: randomUUID(),
		email,
		name: 'Rey',
		role: 'coach',
		passwordHash: '-',
		athleteId: null,
		createdAt: new Date(),
	})
	await signIn(page, app, email)
	return club
}
