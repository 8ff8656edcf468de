import { spawnSync } from 'node:child_process'
import { copyFileSync, mkdirSync, mkdtempSync, rmSync, writeFileSync } from 'node:fs'
import path from 'node:path'
import { afterAll, beforeAll, expect, it } from 'vitest'

// What the test command asks of types, asked of faults: each planted in a place that another command's settings hold.

const ROOT = path.resolve(import.meta.dirname, '..')
let folder = ''
beforeAll(() => {
	mkdirSync(path.join(ROOT, 'test-results'), { recursive: true })
	// Inside the project, so that its packages and settings are found.
	folder = mkdtempSync(path.join(ROOT, 'test-results', 'planted-'))
	copyFileSync(path.join(ROOT, '.oxlintrc.json'), path.join(folder, '.oxlintrc.json'))
})
afterAll(() => rmSync(folder, { recursive: true, force: true }))

const write = (name: string, text: string) => writeFileSync(path.join(folder, name), text)
const ask = (program: string, ...args: string[]) => {
	const { status, stdout, stderr } = spawnSync(program, args, { cwd: folder, encoding: 'utf8' })
	return { status, said: stdout + stderr }
}
const tsc = (config: string) =>
	ask(path.join(ROOT, 'node_modules/typescript-native/bin/tsc'), '--pretty', 'false', '-p', config)

it.each([
	['the service worker', 'app/workers/tsconfig.json', `self.skipWaiting().then((a: string) => a)`],
	['the core, which has no page', 'tsconfig.core.json', `document.title = ''`],
	['the core, which has no Node', 'tsconfig.core.json', `process.exit(0)`],
	['everything else', 'tsconfig.json', `export const a: number = 'one'`],
])('a fault of types in %s is found, and none without it', (_place, config, fault) => {
	write('tsconfig.json', JSON.stringify({ extends: path.join(ROOT, config), include: ['planted.ts'], exclude: [] }))
	write('planted.ts', 'export const one: number = 1\n')
	expect(tsc('tsconfig.json')).toEqual({ status: 0, said: '' })
	write('planted.ts', `${fault}\nexport {}\n`)
	const found = tsc('tsconfig.json')
	expect(found.status).not.toBe(0)
	expect(found.said).toContain('planted.ts(1,')
})

it('a promise that nobody waits for is found: left alone, as a condition, as a callback that is not waited for', () => {
	write('tsconfig.json', JSON.stringify({ extends: path.join(ROOT, 'tsconfig.json'), include: ['*.ts'], exclude: [] }))
	write(
		'planted.ts',
		`async function send(): Promise<void> {}
export async function fine(): Promise<void> {
	await send()
	void send()
}
export function wrong(): void {
	send()
	if (send()) return
	;[1].forEach(async () => {})
}
`,
	)
	const { status, said } = ask(
		path.join(ROOT, 'node_modules/.bin/oxlint'),
		'--type-aware',
		'--format=unix',
		'planted.ts',
	)
	expect(status).toBe(1)
	expect([...said.matchAll(/planted\.ts:(\d+):/g)].map(([, line]) => Number(line))).toEqual([7, 8, 9])
})
