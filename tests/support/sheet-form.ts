import type { Page } from '@playwright/test'

/** Finds a drill or a ladder by its words and puts it at the end of the sheet. */
export async function addToSheet(page: Page, words: string): Promise<void> {
	const search = page.getByRole('combobox', { name: 'Add a drill or a ladder' })
	await search.fill(words)
	await page.getByRole('listbox', { name: 'Add a drill or a ladder' }).getByRole('option').first().waitFor()
	await search.press('Enter')
}
