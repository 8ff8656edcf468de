import { MeanwhileNote, type Overtaken } from './meanwhile-note'

/** What became of a small form, beside its button: what is wrong, what it did, or that somebody was faster. */
export function Said({
	answer,
	problem,
}: {
	answer: { did?: string; meanwhile?: Overtaken | undefined } | undefined
	problem?: string | undefined
}) {
	return (
		<>
			{problem && <p className="problem">{problem}</p>}
			{answer?.did && (
				<p role="status">
					<b>{answer.did}</b>
				</p>
			)}
			{answer?.meanwhile && <MeanwhileNote overtaken={answer.meanwhile} />}
		</>
	)
}
