import { useEffect, useRef, useState } from 'react'
import type { FlowEntry } from '#core/plan/flow'
import type { WhatIf } from '#core/plan/what-if'
import type { SearchAsked, SearchSaid } from '../workers/plan-worker'

export interface PlanSearch {
	share: number | null
	found: { plans: WhatIf[]; looked: number } | null
	search: (entries: FlowEntry[], options: SearchAsked['options']) => void
	cancel: () => void
}

/** The what-if search in a worker: progress while it runs, the few best plans at its end. */
export function usePlanSearch(): PlanSearch {
	const worker = useRef<Worker | null>(null)
	const [share, setShare] = useState<number | null>(null)
	const [found, setFound] = useState<PlanSearch['found']>(null)
	const cancel = () => {
		worker.current?.terminate()
		worker.current = null
		setShare(null)
	}
	useEffect(() => () => worker.current?.terminate(), [])
	return {
		share,
		found,
		cancel,
		search(entries, options) {
			cancel()
			setFound(null)
			setShare(0)
			const started = new Worker(new URL('../workers/plan-worker.ts', import.meta.url), { type: 'module' })
			worker.current = started
			started.onmessage = ({ data }: MessageEvent<SearchSaid>) => {
				if ('share' in data) return setShare(data.share)
				setFound(data)
				cancel()
			}
			started.postMessage({ entries, options } satisfies SearchAsked)
		},
	}
}
