import { type Page, expect } from '@playwright/test'

/** What a thumb does on the field screen. */
export class FieldHand {
	constructor(readonly page: Page) {}

	onTheLine = () => this.page.getByRole('region', { name: 'On the line' }).getByRole('heading')
	suggestion = () => this.page.getByRole('status', { name: 'Suggestion' })
	marks = () => this.page.getByRole('list', { name: 'Marks so far' })

	/** Turns the drills forward until one is shown. */
	async goTo(drill: string): Promise<void> {
		const shown = this.page.locator('header').getByText(drill, { exact: true })
		const after = this.page.getByRole('button', { name: 'Drill after' })
		await expect(after).toBeVisible()
		for (let i = 0; i < 12 && !(await shown.isVisible()); i++) await after.click({ timeout: 5000 })
		await expect(shown).toBeVisible()
	}

	async type(digits: string): Promise<void> {
		for (const digit of digits) await this.page.getByRole('group', { name: 'Number pad' }).getByRole('button', { name: digit, exact: true }).click()
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

	/** Everything tapped so far has reached the server. */
	async allSafe(): Promise<void> {
		await expect(this.page.getByLabel('Where the marks are')).toContainText(/^0 only on this device/, { timeout: 20_000 })
	}
}
