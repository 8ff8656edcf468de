/** A verdict as far as it says who needs the coach. */
interface Undecided {
	athleteId: string
	/** It wants a look. */
	needsYou: boolean
	/** Nothing of the athlete was logged in the whole session. */
	absent: boolean
}

export interface ReviewHead {
	/** People, each once, where they weigh most: who needs the coach, who reads well, who did not come. */
	needYou: string[]
	readWell: string[]
	absent: string[]
}

/** Who is behind the open verdicts of a session: people, not ladder rows. */
export function reviewHead(rows: readonly Undecided[]): ReviewHead {
	const people = [...new Set(rows.map(({ athleteId }) => athleteId))]
	const own = (id: string) => rows.filter(({ athleteId }) => athleteId === id)
	const needYou = people.filter((id) => own(id).some((row) => row.needsYou))
	const others = people.filter((id) => !needYou.includes(id))
	return {
		needYou,
		readWell: others.filter((id) => own(id).some((row) => !row.absent)),
		absent: others.filter((id) => own(id).every((row) => row.absent)),
	}
}

/** @example sayReviewHead(…) // "3 need you, 16 read well, 1 did not come" */
export function sayReviewHead({ needYou, readWell, absent }: ReviewHead): string {
	const open =
		needYou.length === 0 ? 'None needs you' : needYou.length === 1 ? 'One needs you' : `${needYou.length} need you`
	return [
		open,
		...(readWell.length > 0 ? [`${readWell.length} ${readWell.length === 1 ? 'reads' : 'read'} well`] : []),
		...(absent.length > 0 ? [`${absent.length} did not come`] : []),
	].join(', ')
}
