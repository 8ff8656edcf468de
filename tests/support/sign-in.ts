import { type Page, expect } from '@playwright/test'
import { DEMO_SIGN_IN } from '../../server/demo/load-demo'
import type { App } from './app-test'

/** Signs somebody in as the sign-in form does, without drawing it; the page is then opened by who asked. */
export async function signIn(page: Page, app: App, email: string, password: string): Promise<void> {
	const response = await page.request.post(`${app.address}/sign-in`, {
		form: { email, password },
		headers: { origin: app.address },
		maxRedirects: 0,
	})
	expect(response.status(), 'signed in').toBe(302)
}

/** Signs somebody of the demo club in; the coach, if nobody else is named. */
export const signInToDemo = (page: Page, app: App, email = DEMO_SIGN_IN.email) =>
	signIn(page, app, email, DEMO_SIGN_IN.password)

/** The demo coach, if nobody else is named, on the field of the demo's session that nobody has begun yet. */
export async function openDemoField(page: Page, app: App, email = DEMO_SIGN_IN.email): Promise<void> {
	await signInToDemo(page, app, email)
	const [today] = await app.rows('select id from session where started_at is null order by day, start_time limit 1')
	await page.goto(`/field?session=${String(today!.id)}`)
}
