import { ESLint } from 'eslint'
import { expect, it } from 'vitest'

const eslint = new ESLint()
/** Rule ids that fire on a text as if it stood in an existing file of that layer. */
async function broken(file: string, text: string): Promise<string[]> {
	const [result] = await eslint.lintText(text, { filePath: file })
	return (result?.messages ?? []).filter((message) => message.severity === 2).map((message) => message.ruleId ?? 'parse')
}

it.each([
	['core/dose/scale-dose.ts', "import { connect } from '#db/connect'\nconnect('')\n"],
	['core/dose/scale-dose.ts', "import { connect } from '../../db/connect'\nconnect('')\n"],
	['core/dose/scale-dose.ts', "import fs from 'node:fs'\nfs.rmSync('')\n"],
	['core/dose/scale-dose.ts', "import { useState } from 'react'\nuseState(0)\n"],
	['db/connect.ts', "import { may } from '#server/access/roles'\nmay('coach', 'plan:read')\n"],
	['server/clock.ts', "import { sentences } from '../app/ui/sentence'\nsentences([])\n"],
])('keeps imports pointing downwards: %s', async (file, text) => {
	expect(await broken(file, text)).toContain('no-restricted-imports')
})

it.each(['export const now = Date.now()\n', 'export const now = new Date()\n', 'export const luck = Math.random()\n'])('keeps clock and chance out of core: %s', async (text) => {
	expect(await broken('core/dose/scale-dose.ts', text)).toContain('no-restricted-syntax')
})

it('lets downward imports pass', async () => {
	expect(await broken('server/clock.ts', "import { addDays } from '../core/calendar/days'\naddDays('2026-01-01', 1)\n")).toEqual([])
	expect(await broken('core/dose/scale-dose.ts', "import { addDays } from '../calendar/days'\naddDays('2026-01-01', 1)\n")).toEqual([])
})
