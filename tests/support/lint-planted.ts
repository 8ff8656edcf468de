import { spawnSync } from 'node:child_process'
import { mkdirSync, mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs'
import path from 'node:path'

const ROOT = path.resolve(import.meta.dirname, '../..')

/** What is found, its rule or its number of the compiler in brackets: `eslint(no-var)`, `typescript(TS2322)`. */
export interface Finding {
	code: string
	line: number
}

/**
 * Lints a tree that looks like the project's by the project's settings.
 *
 * @param files what is planted, by its path; settings of types among it
 * @param options `types`: with all that asks types
 * @returns what was found in each, in the order of lines
 * @throws when the linter says anything but findings
 */
export function lintPlanted(files: Record<string, string>, options: { types: boolean }): Map<string, Finding[]> {
	mkdirSync(path.join(ROOT, 'test-results'), { recursive: true })
	// Inside the project, so that its packages are found.
	const root = mkdtempSync(path.join(ROOT, 'test-results', 'planted-'))
	try {
		const { $schema: _, ...settings } = JSON.parse(readFileSync(path.join(ROOT, '.oxlintrc.json'), 'utf8'))
		const { typeAware, typeCheck, ...others } = settings.options
		const config = {
			...settings,
			jsPlugins: settings.jsPlugins.map((name: string) => path.join(ROOT, name)),
			options: options.types ? { typeAware, typeCheck, ...others } : others,
		}
		for (const [file, text] of Object.entries({ ...files, '.oxlintrc.json': JSON.stringify(config) })) {
			mkdirSync(path.join(root, path.dirname(file)), { recursive: true })
			writeFileSync(path.join(root, file), `${text}\n`)
		}
		// By name: what version control leaves out is passed over otherwise.
		const code = Object.keys(files).filter((file) => !file.endsWith('.json'))
		const { stdout, stderr } = spawnSync(
			path.join(ROOT, 'node_modules/.bin/oxlint'),
			['--format=json', '--no-ignore', ...code],
			{ cwd: root, encoding: 'utf8' },
		)
		if (!stdout.startsWith('{')) throw new Error(stdout + stderr)
		const said = JSON.parse(stdout) as {
			diagnostics: { filename: string; code: string; labels: { span: { line: number } }[] }[]
		}
		const found = new Map<string, Finding[]>(Object.keys(files).map((file) => [file, []]))
		for (const { filename, code, labels } of said.diagnostics)
			found.get(filename)!.push({ code, line: labels[0]!.span.line })
		for (const findings of found.values()) findings.sort((a, b) => a.line - b.line)
		return found
	} finally {
		rmSync(root, { recursive: true, force: true })
	}
}
