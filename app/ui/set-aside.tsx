import { Link, useNavigation } from 'react-router'
import { PostForm } from './post-form'

interface Shown {
	id: string
	sessionId: string
	name: string
	where: string
	typed: string
	usual: string | null
	likely: { value: string; label: string } | null
	unit: string
}

/** Numbers that can hardly be, each settled in one tap: what was meant, what was seen, or another number. */
export function SetAsideList({
	marks,
	maySettle,
	mayReview = false,
	problem,
}: {
	marks: readonly Shown[]
	maySettle: boolean
	/** Who may open the review is led there. */
	mayReview?: boolean
	problem: string | null
}) {
	const busy = useNavigation().state !== 'idle'
	if (marks.length === 0) return null
	return (
		<section className="mb-4 border-l-4 border-attn py-1 pl-4" aria-label="Set aside">
			<h2>
				{marks.length === 1 ? 'One number can hardly be' : `${marks.length} numbers can hardly be`}, set aside until
				somebody says
			</h2>
			{problem && (
				<p className="problem mt-1" role="alert">
					{problem}
				</p>
			)}
			<ul className="mt-1">
				{marks.map((mark) => (
					<li key={mark.id} className="flex flex-wrap items-center gap-x-3 gap-y-1.5 border-t border-chalk py-2">
						<span className="min-w-[16rem] flex-1">
							<b>{mark.name}:</b> <b className="num">{mark.typed}</b>
							{mark.usual && (
								<>
									, usually <span className="num">{mark.usual}</span>
								</>
							)}
							<span className="dim block text-[13.5px]">{mark.where}</span>
						</span>
						{maySettle ? (
							<div className="flex flex-wrap items-center gap-2">
								<PostForm preventScrollReset className="flex flex-wrap gap-2">
									<input type="hidden" name="mark" value={mark.id} />
									{mark.likely && (
										<button className="btn num" name="typed" value={mark.likely.value} disabled={busy}>
											It was {mark.likely.label}
										</button>
									)}
									<button className="btn btn-quiet" name="keep" value="yes" disabled={busy}>
										{mark.typed} was seen
									</button>
									<input type="hidden" name="do" value="settle" />
								</PostForm>
								<PostForm preventScrollReset className="flex items-center gap-1">
									<input type="hidden" name="mark" value={mark.id} />
									<input
										className="input num w-[90px]"
										name="typed"
										inputMode="decimal"
										aria-label={`The right number for ${mark.name}, ${mark.unit}`}
										autoComplete="off"
										required
									/>
									{mark.unit}
									<button className="btn btn-quiet" name="do" value="settle" disabled={busy}>
										Fix
									</button>
								</PostForm>
							</div>
						) : mayReview ? (
							<Link className="link" to={`/sessions/${mark.sessionId}/review`}>
								Settle it in the review
							</Link>
						) : null}
					</li>
				))}
			</ul>
		</section>
	)
}
