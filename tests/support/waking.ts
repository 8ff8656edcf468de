import type { Page, Response } from '@playwright/test'

/** The page's scripts have taken over, or it is a file that has none. */
const AWAKE = 'html[data-awake], :root:not(:has(script))'

/**
 * A page that is awake when it has been opened: what is pressed before its scripts have taken over is sent as it stands, or
 * lost. Whoever opens it with `waitUntil: 'commit'` asks for just that.
 */
export function waking(page: Page): Page {
	const awake = async (opened: Promise<Response | null>, waitUntil?: string) => {
		const answer = await opened
		if (waitUntil !== 'commit') await page.locator(AWAKE).waitFor({ state: 'attached' })
		return answer
	}
	const [goto, reload] = [page.goto.bind(page), page.reload.bind(page)]
	return Object.assign(page, {
		goto: ((url, options) => awake(goto(url, options), options?.waitUntil)) satisfies Page['goto'],
		reload: ((options) => awake(reload(options), options?.waitUntil)) satisfies Page['reload'],
	})
}
