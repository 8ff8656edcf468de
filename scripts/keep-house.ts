import { existsSync, mkdirSync, readdirSync, rmSync } from 'node:fs'
import path from 'node:path'
import { addDays } from '../core/calendar/day-count'
import { writeBackup } from '../db/backup'
import { foldCounts } from '../db/noted-writes'
import { forgetHealthNotes } from '../server/access/change-club'
import { database } from '../server/database'
import { PlainError } from './plain-error'

const LOOK_EVERY_MS = 3_600_000
const NAME = /^dromos-\d{4}-\d{2}-\d{2}\.sql\.gz$/

/**
 * A backup each day into BACKUP_DIR, where it is set; the newest BACKUP_KEEP (14) stay. One that fails is said and tried
 * again an hour later; what is there is only taken away when a new one stands.
 */
export function keepBackups(url: string): void {
	const folder = process.env.BACKUP_DIR
	const keep = Number(process.env.BACKUP_KEEP ?? 14)
	if (!folder) return
	if (!Number.isInteger(keep) || keep < 1) throw new PlainError('BACKUP_KEEP: a whole number from 1 on is expected.')
	const look = async () => {
		const file = path.join(folder, `dromos-${new Date().toISOString().slice(0, 10)}.sql.gz`)
		if (existsSync(file)) return
		try {
			mkdirSync(folder, { recursive: true, mode: 0o700 })
			await writeBackup(url, file, new Date())
			const all = readdirSync(folder)
				.filter((name) => NAME.test(name))
				.sort()
			for (const old of all.slice(0, Math.max(0, all.length - keep))) rmSync(path.join(folder, old))
		} catch (error) {
			console.error(`The backup of today failed: ${error instanceof Error ? error.message : String(error)}`)
		}
	}
	void look()
	setInterval(() => void look(), LOOK_EVERY_MS).unref()
}

/** Sessions are logged for weeks after their day, if ever. */
const COUNTED_BY_DAY = 60
/**
 * Words about health that a club keeps for so many months and no longer, and counts of days long gone; looked at when it
 * starts and then hourly.
 */
export function keepForgetting(): void {
	const look = async () => {
		const now = new Date()
		await forgetHealthNotes(now).catch((error: unknown) =>
			console.error(
				`Old words about health could not be taken away: ${error instanceof Error ? error.name : 'unknown'}`,
			),
		)
		// Whoever logs meanwhile goes first; the next hour does it.
		await foldCounts(database().db, addDays(now.toISOString().slice(0, 10), -COUNTED_BY_DAY)).catch(() => undefined)
	}
	void look()
	setInterval(() => void look(), LOOK_EVERY_MS).unref()
}
