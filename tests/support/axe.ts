import { readFileSync } from 'node:fs'
import { createRequire } from 'node:module'
import type { Page } from '@playwright/test'
import type axe from 'axe-core'

/** What runs in the page; no page of ours has frames that it would have to go into. */
const SOURCE = readFileSync(createRequire(import.meta.url).resolve('axe-core/axe.min.js'), 'utf8')

/** What an automatic check of accessibility finds on a page as it is now: the rule and the element of each. */
export async function findings(page: Page): Promise<string[]> {
	if (!(await page.evaluate(() => 'axe' in window))) await page.evaluate(SOURCE)
	// Only what was found comes back: what passed is most of it, and is not looked at.
	return page.evaluate(async () => {
		const { violations } = await (window as unknown as { axe: typeof axe }).axe.run({ resultTypes: ['violations'] })
		return violations.flatMap(({ id, nodes }) => nodes.map(({ html }) => `${id}: ${html.slice(0, 120)}`))
	})
}
