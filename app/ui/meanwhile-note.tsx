import { writeMoment } from './write-moment'

export interface Overtaken {
	version: number
	by: string
	at: string
	differences: { label: string; theirs: string; yours: string }[]
}

/** Somebody saved what is being changed here: both writings side by side, and a choice. Nothing typed is lost. */
export function MeanwhileNote({
	overtaken: { version, by, at, differences },
	onMine,
}: {
	overtaken: Overtaken
	/** Sends it again over theirs; without it the button is the form's own. */
	onMine?: () => void
}) {
	return (
		<section className="border-l-[4px] border-attn py-1 pl-4" role="alert">
			<h2 className="text-attn">
				{by} saved this on {writeMoment(at)}, while you were writing
			</h2>
			<p className="mt-1">Nothing of yours is saved or lost yet. Where you differ:</p>
			{differences.length === 0 ? (
				<p className="dim mt-1">Nowhere: both of you wrote the same.</p>
			) : (
				<table className="mt-1 w-full max-w-[760px] border-collapse text-[15px]">
					<thead>
						<tr className="text-left text-[14px]">
							<th className="w-[120px] font-normal">
								<span className="sr-only">What</span>
							</th>
							<th scope="col">{by}</th>
							<th scope="col">You</th>
						</tr>
					</thead>
					<tbody>
						{differences.map(({ label, theirs, yours }) => (
							<tr key={label} className="rule align-top">
								<th scope="row" className="py-1 pr-2 text-left font-normal">
									{label}
								</th>
								<td className="py-1 pr-3">{theirs}</td>
								<td className="py-1">{yours}</td>
							</tr>
						))}
					</tbody>
				</table>
			)}
			<div className="mt-2 flex flex-wrap gap-2">
				{onMine ? (
					<button type="button" className="btn" onClick={onMine}>
						Save mine over it
					</button>
				) : (
					<button className="btn" name="over" value={version}>
						Save mine over it
					</button>
				)}
				<a className="btn btn-quiet" href="?">
					Take theirs
				</a>
			</div>
		</section>
	)
}
