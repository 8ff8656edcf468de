// Writes the next migration from the schema: npm run migrations -- NAME
import { spawnSync } from 'node:child_process'
import { readFileSync, readdirSync, writeFileSync } from 'node:fs'

const [name] = process.argv.slice(2)
if (!name || !/^[a-z0-9-]+$/.test(name)) {
	console.error('Say what it is for: npm run migrations -- a-short-name')
	process.exit(1)
}
const made = spawnSync('npx', ['drizzle-kit', 'generate', '--name', name], { stdio: 'inherit' })
if (made.status !== 0) process.exit(1)

// MariaDB commits each DDL statement at once, so that a broken-off migration starts over: every
// statement is given its "if not exists" form.
const folder = new URL('../db/migrations/', import.meta.url)
for (const file of readdirSync(folder)
	.filter((entry) => entry.endsWith('.sql'))
	.map((entry) => new URL(entry, folder))) {
	const before = readFileSync(file, 'utf8')
	const after = before
		.replace(/CREATE TABLE `/g, 'CREATE TABLE IF NOT EXISTS `')
		.replace(/CREATE INDEX `/g, 'CREATE INDEX IF NOT EXISTS `')
		.replace(/(ALTER TABLE `\w+` ADD) `/g, '$1 COLUMN IF NOT EXISTS `')
		.replace(/DROP COLUMN `/g, 'DROP COLUMN IF EXISTS `')
		.replace(/DROP INDEX `/g, 'DROP INDEX IF EXISTS `')
		.replace(/ADD CONSTRAINT `([^`]+)` UNIQUE\(/g, 'ADD UNIQUE INDEX IF NOT EXISTS `$1` (')
		.replace(/ADD CONSTRAINT `([^`]+)` FOREIGN KEY \(/g, 'ADD CONSTRAINT `$1` FOREIGN KEY IF NOT EXISTS `$1` (')
	if (after !== before) writeFileSync(file, after)
}
