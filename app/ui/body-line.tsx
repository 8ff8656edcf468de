import type { SaidLimits } from '#core/field/over-today'

/** Who of a session must not do what, in a few lines over its drills: the same on the sheet and on the printed card. */
export function BodyLines({ bodies }: { bodies: ({ id: string; name: string } & SaidLimits)[] }) {
	const over = bodies.filter((body) => body.over.length > 0)
	const spare = bodies.filter((body) => body.spare.length > 0)
	const easy = bodies.filter((body) => body.easyOnly)
	if (over.length + spare.length + easy.length === 0) return null
	const say = (of: typeof bodies, words: (body: (typeof bodies)[number]) => string) =>
		of.map((body) => `${body.name} (${words(body)})`).join(', ')
	return (
		<div className="border-l-4 border-attn pl-3" role="note" aria-label="Closed, spared">
			{over.length > 0 && (
				<p>
					<b className="text-attn">Closed: {say(over, (body) => body.over.join(', '))}</b>
				</p>
			)}
			{spare.length > 0 && <p>To be spared: {say(spare, (body) => body.spare.join(', '))}</p>}
			{easy.length > 0 && <p>Nothing high, shock or maximal: {easy.map((body) => body.name).join(', ')}</p>}
		</div>
	)
}
