import { useEffect, useRef, useState } from 'react'
import type { Alternative } from '#core/plan/alternatives'
import type { Proposal } from '#core/plan/propose-session'
import type { ProposalAsked, ProposalSaid } from '../workers/propose-worker'

/** Another way to the same day, worked out. */
export interface Offer extends Alternative {
	proposal: Proposal
}

/** A proposal from the worker: busy while it is looked for, then given once; what else there is comes after it. */
export function useProposal(onFound: (proposal: Proposal) => void): {
	busy: boolean
	problem: string | null
	offers: readonly Offer[]
	/** Other ways are still being worked out. */
	looking: boolean
	propose: (asked: ProposalAsked) => void
} {
	const worker = useRef<Worker | null>(null)
	const [busy, setBusy] = useState(false)
	const [looking, setLooking] = useState(false)
	const [problem, setProblem] = useState<string | null>(null)
	const [offers, setOffers] = useState<readonly Offer[]>([])
	useEffect(() => () => worker.current?.terminate(), [])
	return {
		busy,
		problem,
		offers,
		looking,
		propose(asked) {
			worker.current?.terminate()
			setProblem(null)
			setOffers([])
			setBusy(true)
			setLooking(true)
			const started = new Worker(new URL('../workers/propose-worker.ts', import.meta.url), { type: 'module' })
			worker.current = started
			const end = () => {
				started.terminate()
				setBusy(false)
				setLooking(false)
			}
			started.onmessage = ({ data }: MessageEvent<ProposalSaid>) => {
				if ('done' in data) end()
				else if ('problem' in data) {
					end()
					setProblem(data.problem)
				} else if ('alternative' in data)
					setOffers((known) => [...known, { ...data.alternative, proposal: data.proposal }])
				else {
					setBusy(false)
					onFound(data.proposal)
				}
			}
			started.onerror = () => {
				end()
				setProblem('No proposal came of it. Nothing on the sheet has changed.')
			}
			started.postMessage(asked)
		},
	}
}
