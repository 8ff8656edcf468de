import type { FlowEntry } from '#core/plan/flow'
import { type SearchOptions, type WhatIf, searchPlans } from '#core/plan/what-if'

export interface SearchAsked {
	entries: FlowEntry[]
	options: Pick<SearchOptions, 'maxLanes' | 'minutes'>
}
export type SearchSaid = { share: number } | { plans: WhatIf[]; looked: number }

/** Looks at plans off the page's own thread; it is cancelled by ending the worker. */
self.onmessage = ({ data: { entries, options } }: MessageEvent<SearchAsked>) => {
	const say = (said: SearchSaid) => self.postMessage(said)
	say(
		searchPlans(entries, {
			...options,
			onProgress: (share) => {
				say({ share })
				return true
			},
		}),
	)
}
