import { type Page, expect } from '@playwright/test'

export async function signIn(page: Page, app: string, email: string, password: string): Promise<void> {
	await page.goto(`${app}/sign-in`)
	await page.getByLabel('Email').fill(email)
	await page.getByLabel('Password').fill(password)
	await page.getByRole('button', { name: 'Sign in' }).click()
	await expect(page).not.toHaveURL(/sign-in/)
}
