import { beforeAll, expect, it } from 'vitest'
import { lintPlanted } from '../tests/support/lint-planted'

/**
 * Violations as somebody might write them, each in a file of its own in a tree that looks like the
 * project's: what is planted, where, and the rule that must catch it.
 */
const PLANTED: [what: string, file: string, text: string, rule: 'layers' | 'pure'][] = [
	['the database by its short name', 'core/dose/a.ts', `import { connect } from '#db/connect'\nconnect('')`, 'layers'],
	['by a relative path', 'core/dose/b.ts', `import { connect } from '../../db/connect'\nconnect('')`, 'layers'],
	['with an ending', 'core/dose/c.ts', `import { connect } from '../../db/connect.ts'\nconnect('')`, 'layers'],
	['by a detour', 'core/dose/d.ts', `import { connect } from './../../core/../db/connect'\nconnect('')`, 'layers'],
	[
		'by a detour in the short name',
		'core/dose/e.ts',
		`import { connect } from '#core/../db/connect'\nconnect('')`,
		'layers',
	],
	['by a leading slash', 'core/dose/f.ts', `import { connect } from '/db/connect'\nconnect('')`, 'layers'],
	['as types', 'core/dose/g.ts', `import type { Connection } from '#db/connect'\nexport type A = Connection`, 'layers'],
	['as an inline type', 'core/dose/h.ts', `export type A = import('../../db/connect').Connection`, 'layers'],
	['at run time', 'core/dose/i.ts', `export const load = () => import('../../db/connect')`, 'layers'],
	['at run time, in backticks', 'core/dose/j.ts', 'export const load = () => import(`#db/connect`)', 'layers'],
	[
		'at run time, put together',
		'core/dose/k.ts',
		`export const load = (name: string) => import('../../db/' + name)`,
		'layers',
	],
	['passed on', 'core/dose/l.ts', `export { connect } from '../../db/connect'`, 'layers'],
	['passed on whole', 'core/dose/m.ts', `export * from '../../db/connect'`, 'layers'],
	['required', 'core/dose/n.ts', `export const a = require('../../db/connect')`, 'layers'],
	['required the old way', 'core/dose/o.ts', `import a = require('../../db/connect')\nexport default a`, 'layers'],
	['for its effects', 'core/dose/p.ts', `import '../../db/connect'`, 'layers'],
	['by a reference comment', 'core/dose/q.ts', `/// <reference path="../../db/connect.ts" />\nexport {}`, 'layers'],
	[
		'by its address',
		'core/dose/r.ts',
		`export const a = () => new URL('../../db/connect.ts', import.meta.url)`,
		'layers',
	],
	['by a pattern', 'core/dose/s.ts', `export const a = import.meta.glob('../../db/*.ts')`, 'layers'],
	['with the rule turned off', 'core/dose/t.ts', `// eslint-disable-next-line\nimport '../../db/connect'`, 'layers'],
	['a later folder of the core', 'core/dose/u.ts', `import { judge } from '../judge/judge'\njudge()`, 'layers'],
	['a folder without a place', 'core/new-folder/v.ts', `import { a } from '../dose/ramp'\na()`, 'layers'],
	['a part of Node', 'core/dose/w.ts', `import fs from 'node:fs'\nfs.rmSync('')`, 'layers'],
	['a package with a world', 'core/dose/x.ts', `import { useState } from 'react'\nuseState(0)`, 'layers'],
	['a path out of the project', 'core/dose/y.ts', `import a from '../../../other/a'\na()`, 'layers'],
	['a test that reaches down', 'core/dose/z.test.ts', `import { connect } from '#db/connect'\nconnect('')`, 'layers'],
	['the server from the database', 'db/a.ts', `import { may } from '#server/access/roles'\nmay()`, 'layers'],
	['a page from the server', 'server/a.ts', `import { sentences } from '../app/ui/glyphs'\nsentences()`, 'layers'],
	[
		'scripts from the server',
		'server/b.ts',
		`import { ROOT } from '../scripts/root.mjs'\nexport default ROOT`,
		'layers',
	],
	['tests from the server', 'server/c.ts', `export * from '../tests/support/test-club'`, 'layers'],
	[
		'the database from a route',
		'app/routes/a.tsx',
		`import { readLibrary } from '#db/queries/library'\nreadLibrary()`,
		'layers',
	],
	[
		'its types from a route',
		'app/routes/b.tsx',
		`import type { Queryable } from '../../db/connect'\nexport type A = Queryable`,
		'layers',
	],
	[
		'the server from the phone',
		'app/field/a.ts',
		`import type { SignedIn } from '#server/access/sign-in'\nexport type A = SignedIn`,
		'layers',
	],
	['other parts from the phone', 'app/field/b.tsx', `import { a } from '../builder/entry-row'\na()`, 'layers'],
	['a route from the phone', 'app/field/c.tsx', `export const a = () => import('../routes/today')`, 'layers'],
	['the server from a worker', 'app/workers/a.ts', `import { todayAt } from '#server/clock'\ntodayAt('')`, 'layers'],
	['a part of the page from a worker', 'app/workers/b.ts', `import { a } from '../ui/glyphs'\na()`, 'layers'],
	['the server from a shared part', 'app/ui/a.tsx', `import { may } from '#server/access/roles'\nmay()`, 'layers'],
	['a route from a shared part', 'app/ui/b.tsx', `import { a } from '../routes/today'\na()`, 'layers'],
	['a driver from the phone', 'app/field/d.ts', `import mysql from 'mysql2/promise'\nmysql.createPool('')`, 'layers'],
	['now', 'core/dose/pa.ts', `export const a = Date.now()`, 'pure'],
	['a new date of now', 'core/dose/pb.ts', `export const a = new Date()`, 'pure'],
	[
		'a new date of nothing spread',
		'core/dose/pc.ts',
		`export const a = new Date(...([] as unknown as [string]))`,
		'pure',
	],
	['a date as words', 'core/dose/pd.ts', `export const a = Date()`, 'pure'],
	['now by destructuring', 'core/dose/pe.ts', `const { now } = Date\nexport const a = now()`, 'pure'],
	['now by an alias', 'core/dose/pf.ts', `const D = Date\nexport const a = new D()`, 'pure'],
	['now by a computed name', 'core/dose/pg.ts', `export const a = Date['now']()`, 'pure'],
	[
		'Temporal’s now',
		'core/dose/ph.ts',
		`import { Temporal } from 'temporal-polyfill'\nexport const a = Temporal.Now.instant()`,
		'pure',
	],
	[
		'Temporal’s now by destructuring',
		'core/dose/pi.ts',
		`import { Temporal } from 'temporal-polyfill'\nconst { Now } = Temporal\nexport const a = Now.instant()`,
		'pure',
	],
	[
		'Temporal under another name',
		'core/dose/pj.ts',
		`import { Temporal as T } from 'temporal-polyfill'\nexport const a = T.Now.instant()`,
		'pure',
	],
	[
		'all of Temporal’s package',
		'core/dose/pk.ts',
		`import * as all from 'temporal-polyfill'\nexport const a = all.Temporal.Now.instant()`,
		'pure',
	],
	['Temporal passed on', 'core/dose/pl.ts', `export { Temporal } from 'temporal-polyfill'`, 'pure'],
	['chance', 'core/dose/pm.ts', `export const a = Math.random()`, 'pure'],
	['chance by destructuring', 'core/dose/pn.ts', `const { random } = Math\nexport const a = random()`, 'pure'],
	['chance by an alias', 'core/dose/po.ts', `const M = Math\nexport const a = M.random()`, 'pure'],
	['chance passed as a whole', 'core/dose/pp.ts', `export const a = ((m: typeof Math) => m.random())(Math)`, 'pure'],
	['the process', 'core/dose/pq.ts', `export const a = process.env.HOME`, 'pure'],
	['the process by destructuring', 'core/dose/pr.ts', `const { env } = process\nexport const a = env.HOME`, 'pure'],
	['the world by its own name', 'core/dose/ps.ts', `export const a = globalThis.process`, 'pure'],
	['the page', 'core/dose/pt.ts', `export const a = window.location`, 'pure'],
	['the network', 'core/dose/pu.ts', `export const a = () => fetch('/')`, 'pure'],
	['a timer', 'core/dose/pv.ts', `export const a = () => setTimeout(() => {}, 1)`, 'pure'],
	['chance for keys', 'core/dose/pw.ts', `export const a = () => crypto.randomUUID()`, 'pure'],
	['the machine’s language and zone', 'core/dose/px.ts', `export const a = new Intl.DateTimeFormat().format()`, 'pure'],
	['text run as code', 'core/dose/py.ts', `export const a = eval('1')`, 'pure'],
	['a function out of text', 'core/dose/pz.ts', `export const a = (() => 1).constructor('return process')()`, 'pure'],
	['where it runs', 'core/dose/qa.ts', `export const a = import.meta.env`, 'pure'],
	['the console', 'core/dose/qb.ts', `export const a = () => console.log(1)`, 'pure'],
]

/** What is right and must pass. */
const SOUND: [file: string, text: string][] = [
	[
		'core/dose/ok-a.ts',
		`import { addDays } from '../calendar/days'\nimport Type from 'typebox'\nexport const a = [addDays, Type, Math.max(1, 2), new Date(0), Date.UTC(2026, 1)]`,
	],
	[
		'core/dose/ok-b.ts',
		`import { Temporal } from 'temporal-polyfill'\nexport const a = (day: Temporal.PlainDate) => Temporal.PlainDate.from(day)`,
	],
	[
		'core/dose/ok-c.test.ts',
		`import { plainSquad } from '../../tests/support/plain-squad'\nimport { judge } from '../judge/judge'\nexport const a = [plainSquad, judge]`,
	],
	[
		'db/ok.ts',
		`import mysql from 'mysql2/promise'\nimport { addDays } from '#core/calendar/days'\nexport const a = [mysql, addDays]`,
	],
	[
		'server/ok.ts',
		`import { connect } from '../db/connect'\nimport { addDays } from '../core/calendar/days'\nexport const a = [connect, addDays, process.env]`,
	],
	[
		'app/routes/ok.tsx',
		`import type { Route } from './+types/ok'\nimport { may } from '#server/access/roles'\nimport { Glyph } from '../ui/glyphs'\nexport const a = [may, Glyph] as unknown as Route`,
	],
	[
		'app/field/ok.tsx',
		`import { useState } from 'react'\nimport { fold } from '#core/events/fold'\nimport { pad } from './number-pad'\nexport const a = [useState, fold, pad]`,
	],
	[
		'app/ui/ok.ts',
		`import type { Said } from '../workers/plan-worker'\nexport const a = () => new Worker(new URL('../workers/plan-worker.ts', import.meta.url)) as unknown as Said`,
	],
]

let found: ReturnType<typeof lintPlanted>
beforeAll(() => {
	const planted = PLANTED.map(([, file, text]): [string, string] => [file, text])
	found = lintPlanted(Object.fromEntries([...planted, ...SOUND]), { types: false })
})

it.each(PLANTED)('catches %s (%s)', (_, file, _text, rule) => {
	expect(found.get(file)!.map(({ code }) => code)).toContain(`dromos(${rule})`)
})
it.each(SOUND)('lets %s pass', (file) => {
	expect(found.get(file)).toEqual([])
})
