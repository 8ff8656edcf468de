import { isNext } from '#core/field/line-progress'
import { shortName } from '#core/field/say-event'
import type { FeedQuestion } from '#core/field/session/readings'
import type { Stand } from '#core/field/session/stand'
import type { Tap } from '#core/field/session/taps'
import { withSeconds } from './hour-and-minute'
import { useUnits } from './units'

const ANSWER = 'btn btn-quiet min-h-[64px]'
/** Below this somebody is named, and no chance. */
const SAID_FROM = 0.01

/** A reading that somebody should place: what was seen, why it is asked, and whose it may be, likeliest first. */
export function WhoseRun({
	question,
	stand,
	most = 3,
	onTap,
	onSettle,
}: {
	question: FeedQuestion
	stand: Stand
	/** How many are named. */
	most?: number
	onTap: (tap: Tap) => void
	onSettle: (what: string) => void
}) {
	const { asRead } = useUnits()
	const { onLine, queue, nameOf } = stand
	const chances = new Map(question.chances.map(({ progress, chance }) => [progress, chance]))
	const candidates = [
		...chances.keys(),
		...[...onLine, ...queue.filter(isNext)].filter((progress) => !chances.has(progress)),
	]
	const able = [...new Set(candidates)].flatMap((progress) => {
		const mark = question.markFor(progress)
		return mark ? [{ progress, mark }] : []
	})
	return (
		<>
			<span className="grow basis-[240px]">
				<b>From a device, {withSeconds(question.at)}:</b> {asRead(question.words)}. Whose?
			</span>
			{able.slice(0, most).map(({ progress, mark }) => {
				const chance = chances.get(progress) ?? 0
				return (
					<button
						key={progress.line.id}
						type="button"
						className={ANSWER}
						onClick={() => onTap({ tap: 'reading', mark, words: mark.kind === 'missed' ? 'no time' : question.words })}
					>
						{shortName(nameOf(progress.line.athleteId))}
						{mark.kind === 'missed' && ', no time'}
						{chance >= SAID_FROM && (
							<span className="num block text-[13px] font-normal">{Math.round(100 * chance)} %</span>
						)}
					</button>
				)
			})}
			<button type="button" className={ANSWER} onClick={() => onSettle(question.source)}>
				Not a rep
			</button>
		</>
	)
}
