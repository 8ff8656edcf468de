import { expect } from '@playwright/test'
import { test } from '../support/app-test'
import { signInToDemo } from '../support/sign-in'

test('what was done is seen, put right, and added to from paper', async ({ app, page }) => {
	await signInToDemo(page, app)
	const [session] = await app.rows(
		"select s.id from session s join squad q on q.club_id = s.club_id and q.id = s.squad_id where s.started_at is not null and s.reviewed_at is null and q.name = 'Under 17' order by s.day desc limit 1",
	)
	const id = String(session!.id)
	await page.goto(`/sessions/${id}/review`)
	await page.getByRole('link', { name: 'What was done' }).click()
	await expect(page.getByRole('heading', { level: 1 })).toHaveText(/^\d+ marks of \d+ athletes$/)

	// A time is put right: the digits are read as on the phone, and the history says what it was.
	const starts = page.getByRole('region', { name: 'Acceleration' })
	const row = starts.getByRole('row').filter({ hasText: 'Rafe Lindholm' })
	const rep = row.getByRole('button', { name: / s$/ }).first()
	const before = await rep.textContent()
	await rep.click()
	const dialog = page.getByRole('dialog')
	await dialog.getByLabel('10 m, s').fill('255')
	await dialog.getByRole('button', { name: 'Correct' }).click()
	await expect(page.getByRole('status')).toHaveText('Kept.')
	await expect(rep).toHaveText('2.55 s')
	await rep.click()
	await expect(dialog).toContainText(`${before} → `)
	await expect(dialog).toContainText('by Marit Solano')
	expect(
		await app.rows(
			'select n.id from mark n join mark o on o.club_id = n.club_id and o.id = n.replaces_id where n.session_id = ? and n.time_s = 2.55',
			[id],
		),
	).toHaveLength(1)

	// Taken back, and back again.
	await dialog.getByRole('button', { name: 'Take it back' }).click()
	const gone = page.getByRole('region', { name: 'Taken back' })
	await expect(gone).toContainText('Rafe Lindholm, 2.55 s')
	await gone.getByRole('button', { name: 'Bring back' }).click()
	await expect(gone).toHaveCount(0)
	await expect(rep).toHaveText('2.55 s')

	// Written up: what is noted of an athlete on a drill stands beside their reps.
	await page.getByLabel('About').selectOption({ label: 'Rafe Lindholm' })
	await page.getByRole('combobox', { name: 'On', exact: true }).selectOption({ label: 'Acceleration' })
	await page.getByLabel('Note').fill('Left foot lands late.')
	await page.getByRole('button', { name: 'Keep the note' }).click()
	await expect(row).toContainText('“Left foot lands late.”')
	await expect(page.getByLabel('Note')).toHaveValue('')

	// From paper: pasted as a spreadsheet copies it; one that cannot be read keeps all from being written.
	await page.getByText('Walk and breathe', { exact: true }).last().click()
	const grid = page.locator('details[open]')
	const cells = grid.getByRole('textbox')
	const athletes = await cells.count()
	await cells.first().focus()
	await page.evaluate(
		(text) => {
			const data = new DataTransfer()
			data.setData('text/plain', text)
			document.activeElement!.dispatchEvent(
				new ClipboardEvent('paste', { clipboardData: data, bubbles: true, cancelable: true }),
			)
		},
		Array.from({ length: athletes }, (_, index) => (index === 1 ? 'many' : '1')).join('\n'),
	)
	await expect(cells.nth(athletes - 1)).toHaveValue('1')
	await grid.getByRole('button', { name: 'Keep these' }).click()
	await expect(page.getByRole('alert')).toHaveText('Nothing was kept: 1 number cannot be read.')
	await expect(cells.nth(1)).toHaveAttribute('aria-invalid', 'true')
	await cells.nth(1).fill('1')
	await cells.nth(1).press('Enter')
	await expect(cells.nth(2)).toBeFocused()
	await grid.getByRole('button', { name: 'Keep these' }).click()
	await expect(page.getByRole('status')).toHaveText('Kept.')
	const walked = page.getByRole('region', { name: 'Walk and breathe' })
	await expect(walked.getByRole('button', { name: '1 rep' })).toHaveCount(athletes)
	expect(
		await app.rows(
			"select m.id from mark m join entry e on e.club_id = m.club_id and e.id = m.entry_id where m.session_id = ? and e.drill_id = 'easy-close' and m.kind = 'done'",
			[id],
		),
	).toHaveLength(athletes)
})
