import type { Library } from '#core/vocabulary/library'
import { type Alternative, alternativesOf } from '#core/plan/alternatives'
import { type BuildPack, type ProposeOptions, requestOf } from '#core/plan/build-pack'
import { type Proposal, proposeSession } from '#core/plan/propose-session'

export interface ProposalAsked {
	pack: BuildPack
	library: Library
	options: ProposeOptions
}
/** The proposal first, then what else there is, one after the other, and the end. */
export type ProposalSaid =
	| { proposal: Proposal }
	| { problem: string }
	| { alternative: Alternative; proposal: Proposal }
	| { done: true }

/** Finds a session off the page's own thread. */
self.onmessage = ({ data: { pack, library, options } }: MessageEvent<ProposalAsked>) => {
	const say = (said: ProposalSaid) => self.postMessage(said)
	const propose = (asked: ProposeOptions) => proposeSession(requestOf(pack, library, asked))
	try {
		const proposal = propose(options)
		say({ proposal })
		for (const alternative of alternativesOf(options, proposal, options.surface ?? pack.surface, library.themes))
			say({ alternative, proposal: propose(alternative.options) })
		say({ done: true })
	} catch (error) {
		if (!(error instanceof RangeError)) throw error
		say({ problem: error.message })
	}
}
