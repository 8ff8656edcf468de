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

	/** Picks a drill from the list of them. */
	async goTo(drill: string): Promise<void> {
		const name = this.page.getByTestId('drill')
		// The sheet may still be on its way.
		await expect(name).toBeVisible({ timeout: 30_000 })
		if ((await name.textContent()) === drill) return
		await name.click()
		await this.page
			.getByRole('dialog', { name: 'Drills' })
			.getByRole('listitem')
			.filter({ has: this.page.getByText(drill, { exact: true }) })
			.getByRole('button', { pressed: false })
			.first()
			.click()
		await expect(name).toHaveText(drill)
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

	/** A button that is there for whoever comes next, too: a hand presses it again once it has let go, one that shakes sooner. */
	async press(name: string): Promise<void> {
		await this.page.waitForTimeout(250)
		await this.page.getByRole('button', { name, exact: true }).click()
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
