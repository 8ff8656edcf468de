import { useEffect, useRef, useState } from 'react'
import type { Proposal } from '#core/plan/propose-session'
import type { ProposalAsked, ProposalSaid } from '../workers/propose-worker'

/** A proposal from the worker: busy while it is looked for, then given once. */
export function useProposal(onFound: (proposal: Proposal) => void): {
	busy: boolean
	problem: string | null
	propose: (asked: ProposalAsked) => void
} {
	const worker = useRef<Worker | null>(null)
	const [busy, setBusy] = useState(false)
	const [problem, setProblem] = useState<string | null>(null)
	useEffect(() => () => worker.current?.terminate(), [])
	return {
		busy,
		problem,
		propose(asked) {
			worker.current?.terminate()
			setProblem(null)
			setBusy(true)
			const started = new Worker(new URL('../workers/propose-worker.ts', import.meta.url), { type: 'module' })
			worker.current = started
			const end = () => {
				started.terminate()
				setBusy(false)
			}
			started.onmessage = ({ data }: MessageEvent<ProposalSaid>) => {
				end()
				if ('problem' in data) setProblem(data.problem)
				else onFound(data.proposal)
			}
			started.onerror = () => {
				end()
				setProblem('No proposal came of it. Nothing on the sheet has changed.')
			}
			started.postMessage(asked)
		},
	}
}
