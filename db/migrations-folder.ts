import { existsSync } from 'node:fs'
import path from 'node:path'
import { fileURLToPath } from 'node:url'

/** Where the migrations lie, from this file or from a built one further down in the project. */
export const MIGRATIONS = migrationsAbove(path.dirname(fileURLToPath(import.meta.url)))

function migrationsAbove(folder: string): string {
	const here = path.join(folder, 'db', 'migrations')
	if (existsSync(here)) return here
	if (path.dirname(folder) === folder) throw new Error('db/migrations is missing: the project is not whole')
	return migrationsAbove(path.dirname(folder))
}
