import { type Page, expect } from '@playwright/test'
import { createCookie } from 'react-router'
import { DEMO_SIGN_IN } from '../../server/demo/sign-in'
import { hashToken, newToken } from '../../server/access/sign-in'
import type { App } from './app-test'

/**
 * Signs somebody in past the form, whose sums take a core for a third of a second; the page is then opened by who asked.
 * The form itself is used where signing in is what a test is about.
 */
export async function signIn(page: Page, app: App, email: string): Promise<void> {
	const token = newToken()
	const now = new Date()
	const signedIn = await app.rows(
		`insert into sign_in (token_hash, club_id, person_id, created_at, expires_at, seen_at, device)
			select ?, club_id, id, ?, ?, ?, 'a computer' from person where email = ? returning person_id`,
		[hashToken(token), now, new Date(now.getTime() + 30 * 86_400_000), now, email],
	)
	expect(signedIn, 'people signed in').toHaveLength(1)
	const cookie = await createCookie('dromos-sign-in').serialize(token)
	const [name, value] = cookie.slice(0, cookie.indexOf(';')).split('=', 2)
	await page.context().addCookies([{ name: name!, value: value!, url: app.address, httpOnly: true }])
}

/** Signs somebody of the demo club in; the coach, if nobody else is named. */
export const signInToDemo = (page: Page, app: App, email = DEMO_SIGN_IN.email) => signIn(page, app, email)

/** The demo coach, if nobody else is named, on the field of the demo's session that nobody has begun yet. */
export async function openDemoField(page: Page, app: App, email = DEMO_SIGN_IN.email): Promise<void> {
	await signInToDemo(page, app, email)
	const [today] = await app.rows('select id from session where started_at is null order by day, start_time limit 1')
	await page.goto(`/field?session=${String(today!.id)}`)
}
