import { spawnSync } from 'node:child_process'
import { mkdtempSync, rmSync } from 'node:fs'
import { tmpdir } from 'node:os'
import path from 'node:path'
import type { Page } from '@playwright/test'
import { firstExisting, installDebianPackages } from '../../scripts/debian-packages'

/** A page as the browser prints it, read back by a program of its own: its words and how many sheets of paper. */
export async function printed(
	page: Page,
	format: 'A4' | 'Letter',
	landscape = false,
): Promise<{ text: string; pages: number }> {
	if (!firstExisting('/usr/bin/pdftotext'))
		installDebianPackages(['poppler-utils'], 'pdftotext, which reads what was printed,')
	const folder = mkdtempSync(path.join(tmpdir(), 'dromos-print-'))
	try {
		const file = path.join(folder, 'page.pdf')
		await page.pdf({ path: file, format, landscape })
		const { stdout } = spawnSync('pdftotext', ['-layout', file, '-'], { encoding: 'utf8' })
		return { text: stdout, pages: stdout.split('\f').filter((one) => one.trim() !== '').length }
	} finally {
		rmSync(folder, { recursive: true, force: true })
	}
}
