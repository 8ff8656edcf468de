import { type EntryFlow, type FlowEntry, askedRestS, simulateEntry } from './flow'

export interface WhatIf {
	/** Lanes and how many start together, by entry id. */
	choices: Record<string, { lanes: number; together: number }>
	/** Sort by level before they queue, so that like follows like. */
	order: 'as-they-stand' | 'longest-first'
	minutes: number
	/** Mean waiting beyond the asked rest over all entries, s. */
	waitS: number
	/** How many things differ from what is planned. */
	changes: number
	entries: EntryFlow[]
}
export interface SearchOptions {
	/** Lanes there is room and kit for. */
	maxLanes: number
	minutes: number
	/** Plans to give back. */
	best?: number
	/** Called now and then with the share done; false ends the search with what was found. */
	onProgress?: (share: number) => boolean
}

const ORDERS = ['as-they-stand', 'longest-first'] as const

/**
 * Lanes × grouping × order, plan by plan, and the few best: first those that fit the minutes, then the
 * fewest changes, then the least waiting. Entries do not touch each other, so that each is simulated once
 * per choice and the plans are put together from these; all combinations are looked at.
 */
export function searchPlans(
	entries: readonly FlowEntry[],
	{ maxLanes, minutes, best = 3, onProgress }: SearchOptions,
): { plans: WhatIf[]; looked: number } {
	const free = entries.filter((entry) => !entry.atOnce && entry.athletes.length > 1)
	const options = Array.from({ length: maxLanes }, (_, index) => index + 1).flatMap((lanes) =>
		[1, 2].map((together) => ({ lanes, together })),
	)
	let plans: WhatIf[] = []
	let looked = 0
	const total = ORDERS.length * options.length ** Math.min(free.length, MOST_VARIED)
	// Only the slowest entries are worth changing; the rest stay as planned.
	const planned = new Map(entries.map((entry) => [entry.id, simulateEntry(entry)]))
	const varied = [...free].sort((a, b) => planned.get(b.id)!.minutes - planned.get(a.id)!.minutes).slice(0, MOST_VARIED)
	for (const order of ORDERS) {
		const known = new Map<string, EntryFlow>()
		const flowOf = (entry: FlowEntry, choice: { lanes: number; together: number }): EntryFlow => {
			const key = `${entry.id}/${choice.lanes}/${choice.together}`
			const before = known.get(key)
			if (before) return before
			const athletes =
				order === 'as-they-stand'
					? entry.athletes
					: [...entry.athletes].sort(
							(a, b) => b.turns * (b.turnS + askedRestS(b)) - a.turns * (a.turnS + askedRestS(a)),
						)
			const flow = simulateEntry({ ...entry, ...choice, athletes })
			known.set(key, flow)
			return flow
		}
		const at = varied.map(() => 0)
		for (let more = true; more; ) {
			const choices: WhatIf['choices'] = {}
			let changes = order === 'as-they-stand' ? 0 : 1
			for (const [index, entry] of varied.entries()) {
				const choice = options[at[index]!]!
				choices[entry.id] = choice
				if (choice.lanes !== entry.lanes || choice.together !== entry.together) changes += 1
			}
			const flows = entries.map((entry) => flowOf(entry, choices[entry.id] ?? entry))
			const sum = flows.reduce((all, flow) => all + flow.minutes, 0)
			plans.push({
				choices,
				order,
				changes,
				minutes: sum,
				waitS: flows.reduce((all, flow) => all + flow.waitS, 0) / Math.max(1, flows.length),
				entries: flows,
			})
			looked += 1
			if (plans.length > 400) plans = bestOf(plans, minutes, best)
			if (looked % 200 === 0 && onProgress && !onProgress(looked / total))
				return { plans: bestOf(plans, minutes, best), looked }
			more = false
			for (let index = 0; index < at.length; index++) {
				at[index]! += 1
				if (at[index]! < options.length) {
					more = true
					break
				}
				at[index] = 0
			}
		}
	}
	return { plans: bestOf(plans, minutes, best), looked }
}

const MOST_VARIED = 4

function bestOf(plans: WhatIf[], minutes: number, best: number): WhatIf[] {
	const over = (plan: WhatIf) => Math.max(0, plan.minutes - minutes)
	return [...plans]
		.sort((a, b) => over(a) - over(b) || a.changes - b.changes || a.waitS - b.waitS || a.minutes - b.minutes)
		.slice(0, best)
}
