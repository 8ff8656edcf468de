import type { Library } from '#core/vocabulary/library'
import { type BuildPack, requestOf } from '#core/plan/build-pack'
import { type Proposal, proposeSession } from '#core/plan/propose-session'

export interface ProposalAsked {
	pack: BuildPack
	library: Library
	options: Parameters<typeof requestOf>[2]
}
export type ProposalSaid = { proposal: Proposal } | { problem: string }

/** Finds a session off the page's own thread. */
self.onmessage = ({ data: { pack, library, options } }: MessageEvent<ProposalAsked>) => {
	const say = (said: ProposalSaid) => self.postMessage(said)
	try {
		say({ proposal: proposeSession(requestOf(pack, library, options)) })
	} catch (error) {
		if (!(error instanceof RangeError)) throw error
		say({ problem: error.message })
	}
}
