import { readFileSync, readdirSync } from 'node:fs'
import path from 'node:path'
import { beforeAll, expect, it } from 'vitest'
import { type Finding, lintPlanted } from '../tests/support/lint-planted'

// What the linter is told to ask, asked of faults: one for each rule, and of types where other settings hold.

const ROOT = path.resolve(import.meta.dirname, '..')
const settings = JSON.parse(readFileSync(path.join(ROOT, '.oxlintrc.json'), 'utf8')) as {
	rules: Record<string, unknown>
	overrides: { rules: Record<string, unknown> }[]
}

const REACT = `import { useEffect, useState } from 'react'\n`
/** Code with one fault on its last line but for what closes it, by the rule that must find it. */
const FAULTS: Record<string, string> = {
	'no-var': `var a = 1\nexport { a }`,
	'prefer-const': `let a = 1\nexport { a }`,
	'prefer-rest-params': `export function a() {\n\treturn arguments\n}`,
	'prefer-spread': `export const a = (f: (...rest: number[]) => number, b: number[]) => f.apply(undefined, b)`,
	'no-unused-expressions': `export function a(b: number) {\n\tb + 1\n}`,
	'no-unused-vars': `const a = 1\nexport const b = 2`,
	'no-array-constructor': `export const a = new Array(1, 2)`,
	'typescript/ban-ts-comment': `// @ts-ignore\nexport const a = 1`,
	'typescript/consistent-type-imports': `import { Dirent } from 'node:fs'\nexport type A = Dirent`,
	'typescript/no-duplicate-enum-values': `export enum A {\n\tb = 1,\n\tc = 1,\n}`,
	'typescript/no-empty-object-type': `export type A = {}`,
	'typescript/no-explicit-any': `export type A = any`,
	'typescript/no-extra-non-null-assertion': `export const a = (b: string | null) => b!!`,
	'typescript/no-floating-promises': `async function send() {}\nexport function a() {\n\tsend()\n}`,
	'typescript/no-import-type-side-effects': `import { type Dirent } from 'node:fs'\nexport type A = Dirent`,
	'typescript/no-misused-new': `export interface A {\n\tnew (): A\n}`,
	'typescript/no-misused-promises': `async function send() {}\nexport function a() {\n\tif (send()) return\n\t;[1].forEach(async () => {})\n}`,
	'typescript/no-namespace': `export namespace A {\n\texport const b = 1\n}`,
	'typescript/no-non-null-asserted-optional-chain': `export const a = (b?: { c: string }) => b?.c!`,
	'typescript/no-require-imports': `export const a = require('node:fs')`,
	'typescript/no-this-alias': `export class A {\n\tb() {\n\t\tconst that = this\n\t\treturn that\n\t}\n}`,
	'typescript/no-unnecessary-type-constraint': `export const a = <T extends unknown>(b: T) => b`,
	'typescript/no-unsafe-declaration-merging': `export interface A {\n\tb: string\n}\nexport class A {}`,
	'typescript/no-unsafe-function-type': `export type A = Function`,
	'typescript/no-wrapper-object-types': `export type A = String`,
	'typescript/prefer-as-const': `export const a = 'b' as 'b'`,
	'typescript/prefer-namespace-keyword': `declare module A {\n\tconst b: number\n}\nexport const c = A.b`,
	'typescript/triple-slash-reference': `/// <reference path="other.d.ts" />\nexport const a = 1`,
	'react/rules-of-hooks': `${REACT}export function A({ b }: { b: boolean }) {\n\tif (b) useState(1)\n\tuseEffect(() => {})\n\treturn null\n}`,
	'react/exhaustive-deps': `${REACT}export function A({ b }: { b: number }) {\n\tconst [, set] = useState(1)\n\tuseEffect(() => set(b), [])\n\treturn null\n}`,
}
const fileOf = (rule: string) => `app/ui/${rule.replace('/', '-')}.tsx`

/** A fault of types, and the settings it is one by; without it all is well. */
const TYPES: [place: string, settings: string, fault: string][] = [
	['worker', 'app/workers/tsconfig.json', `self.skipWaiting().then((a: string) => a)`],
	['core-page', 'core/tsconfig.json', `document.title = ''`],
	['core-node', 'core/tsconfig.json', `process.exit(0)`],
	['rest', 'tsconfig.json', `export const a: number = 'one'`],
	['script', 'tsconfig.json', `export const a = Math.max('one')`],
]
const ending = (place: string) => (place === 'script' ? 'mjs' : 'ts')

/** Nobody waits for it: left alone, as a condition, as a callback that is not waited for. */
const PROMISES = `async function send(): Promise<void> {}
export async function fine(): Promise<void> {
	await send()
	void send()
}
export function wrong(): void {
	send()
	if (send()) return
	;[1].forEach(async () => {})
}`

let found: Map<string, Finding[]>
beforeAll(() => {
	const files: Record<string, string> = {
		'tsconfig.json': JSON.stringify({ extends: path.join(ROOT, 'tsconfig.json'), include: ['app'], exclude: [] }),
		'app/promises.ts': PROMISES,
	}
	for (const [rule, text] of Object.entries(FAULTS)) files[fileOf(rule)] = text
	for (const [place, by, fault] of TYPES) {
		files[`${place}/tsconfig.json`] = JSON.stringify({ extends: path.join(ROOT, by), include: ['.'], exclude: [] })
		files[`${place}/planted.${ending(place)}`] = `${fault}\nexport {}`
		files[`${place}/sound.${ending(place)}`] = 'export const one = 1'
	}
	found = lintPlanted(files, { types: true })
})

it('every rule that is asked has its fault here', () => {
	const asked = [settings, ...settings.overrides].flatMap(({ rules }) => Object.keys(rules))
	expect(asked.filter((rule) => !rule.startsWith('dromos/')).sort()).toEqual(Object.keys(FAULTS).sort())
})
it.each(Object.keys(FAULTS))('%s finds its fault', (rule) => {
	const name = rule.slice(rule.indexOf('/') + 1)
	expect(found.get(fileOf(rule))!.map(({ code }) => code.slice(code.indexOf('(')))).toContain(`(${name})`)
})
it.each(TYPES)('a fault of types is found in %s (%s), and none without it', (place) => {
	expect(
		found.get(`${place}/planted.${ending(place)}`)!.map(({ code, line }) => [code.slice(0, 13), line]),
	).toContainEqual(['typescript(TS', 1])
	expect(found.get(`${place}/sound.${ending(place)}`)).toEqual([])
})
it('a promise that nobody waits for is found wherever it is left', () => {
	// A promise as a condition is a fault of types, too.
	expect([...new Set(found.get('app/promises.ts')!.map(({ line }) => line))]).toEqual([7, 8, 9])
})

it('no comment turns a rule off', () => {
	const files = ['app', 'server', 'db', 'core', 'scripts', 'lint', 'benchmarks', 'tests'].flatMap((folder) =>
		readdirSync(path.join(ROOT, folder), { recursive: true, encoding: 'utf8' })
			.filter((file) => /\.(tsx?|m?js)$/.test(file))
			.map((file) => path.join(ROOT, folder, file)),
	)
	expect(files.length).toBeGreaterThan(500)
	const comment = /(ox|es)lint-(disable|enable)/
	// Where such a comment is planted, to no effect.
	const planted = [path.join(ROOT, 'lint/layers.test.ts')]
	expect(files.filter((file) => comment.test(readFileSync(file, 'utf8')))).toEqual(planted)
})
