/** What the fold needs to know of an event. */
export interface FoldableEvent {
	id: string
	/** The event this one corrects; it may arrive later, or never. */
	replacesId?: string | null
	/** A correction that takes the event back altogether. */
	void?: boolean
}

export interface Folded<E> {
	/** What stands now, in the order the events were given. */
	current: E[]
	/** Corrections that contradict each other: each group is one event with two or more successors. */
	conflicts: E[][]
}

/**
 * "Now" from an append-only log: an event stands when no event replaces it and it is not void. Two
 * standing successors of one event are a conflict; they are left out of `current` and returned as a
 * question. The same id twice is one event. The result does not depend on the order of arrival.
 */
export function foldEvents<E extends FoldableEvent>(events: readonly E[]): Folded<E> {
	const byId = new Map<string, E>()
	for (const event of events) if (!byId.has(event.id)) byId.set(event.id, event)
	const replaced = new Set<string>()
	for (const event of byId.values()) if (event.replacesId) replaced.add(event.replacesId)

	// Nearly all events, thousands in a season, correct nothing and are corrected by nothing: only the rest has chains.
	const firstHeads: E[] = []
	const chains = new Map<string, E[]>()
	for (const event of byId.values()) {
		if (replaced.has(event.id)) continue
		const chain = event.replacesId ? chains.get(rootOf(event, byId)) : undefined
		if (chain) chain.push(event)
		else {
			firstHeads.push(event)
			if (event.replacesId) chains.set(rootOf(event, byId), [event])
		}
	}
	const current: E[] = []
	const conflicts: E[][] = []
	for (const event of firstHeads) {
		const root = event.replacesId ? rootOf(event, byId) : event.id
		const heads = chains.get(root) ?? [event]
		// Taking a correction back closes its branch; that is how a conflict is settled.
		const open = heads.length > 1 ? heads.filter((head) => !(head.void && head.replacesId !== root)) : heads
		const [only] = open
		if (open.length > 1) conflicts.push(open)
		else if (only && !only.void) current.push(only)
	}
	return { current, conflicts }
}

/** The first event of a chain of corrections; its id alone when that one has not arrived. */
function rootOf<E extends FoldableEvent>(event: E, byId: Map<string, E>): string {
	const seen = new Set<string>([event.id])
	let at: FoldableEvent = event
	while (at.replacesId && !seen.has(at.replacesId)) {
		seen.add(at.replacesId)
		const before = byId.get(at.replacesId)
		if (!before) return at.replacesId
		at = before
	}
	return at.id
}
