import { type Page, expect } from '@playwright/test'
import type { App } from './app-test'

/** What a thumb does on the field screen. */
export class FieldHand {
	constructor(
		readonly page: Page,
		private readonly app: App,
	) {}

	onTheLine = () => this.page.getByRole('region', { name: 'On the line' }).getByRole('heading')
	suggestion = () => this.page.getByRole('status', { name: 'Suggestion' })
	marks = () => this.page.getByRole('list', { name: 'Marks so far' })

	/** Turns the drills forward until one is shown. */
	async goTo(drill: string): Promise<void> {
		const shown = this.page.locator('header').getByText(drill, { exact: true })
		const after = this.page.getByRole('button', { name: 'Drill after' })
		// The sheet may still be on its way.
		await expect(after).toBeVisible({ timeout: 30_000 })
		for (let i = 0; i < 12 && !(await shown.isVisible()); i++) await after.click({ timeout: 5000 })
		await expect(shown).toBeVisible()
	}

	async type(digits: string): Promise<void> {
		for (const digit of digits)
			await this.page
				.getByRole('group', { name: 'Number pad' })
				.getByRole('button', { name: digit, exact: true })
				.click()
	}

	async save(digits: string): Promise<void> {
		await this.type(digits)
		await this.page.getByRole('button', { name: 'Save', exact: true }).click()
	}

	async pick(name: string): Promise<void> {
		await this.page.getByRole('button', { name: 'Queue' }).click()
		await this.page.getByRole('dialog', { name: 'Queue' }).getByText(name, { exact: true }).click()
		await expect(this.onTheLine()).toHaveText(name)
	}

	/** Everything tapped so far has reached the server: the screen says so, and the database holds each event of the device. */
	async allSafe(): Promise<void> {
		await expect(this.page.getByLabel('Where the marks are')).toContainText(/^0 only on this device/, {
			timeout: 20_000,
		})
		// The newest tap may be on its way into the device's store still.
		await expect(async () => {
			const onDevice = await this.page.evaluate(
				() =>
					new Promise<{ id: string; athleteId: string | null; kind: string }[]>((resolve, reject) => {
						const asked = indexedDB.open('dromos-field')
						asked.onerror = () => reject(new Error('the device has no store'))
						asked.onsuccess = () => {
							const all = asked.result.transaction('events').objectStore('events').getAll()
							all.onsuccess = () => {
								asked.result.close()
								const rows = all.result as {
									id: string
									status: string
									event: { athleteId: string | null; kind: string }
								}[]
								resolve(
									rows
										.filter(({ status }) => status !== 'refused')
										.map(({ id, event }) => ({ id, athleteId: event.athleteId, kind: event.kind })),
								)
							}
						}
					}),
			)
			const kept = await this.app.rows(
				['mark', 'observation', 'decision']
					.map((table) => `select id, athlete_id as athleteId, kind from ${table} where id in (?)`)
					.join(' union all '),
				Array(3).fill(onDevice.length > 0 ? onDevice.map(({ id }) => id) : [null]),
			)
			const inOrder = (rows: { id: string }[]) => [...rows].sort((a, b) => (a.id < b.id ? -1 : 1))
			expect(inOrder(kept.map((row) => ({ id: row.id, athleteId: row.athleteId, kind: row.kind })))).toEqual(
				inOrder(onDevice),
			)
		}).toPass({ timeout: 10_000 })
	}
}
