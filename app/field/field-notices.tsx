import { useMemo } from 'react'
import { orderBreak } from '#core/field/session/order-break'
import { pairOf } from '#core/field/likely-doubles'
import type { FeedQuestion } from '#core/field/session/readings'
import type { Stand } from '#core/field/session/stand'
import type { Tap } from '#core/field/session/taps'
import { placeOf } from '#core/rules/bars'
import { WhoseRun } from './whose-run'
import { sayEvent } from '#core/field/say-event'
import type { SessionLog } from './use-session-log'
import { useUnits } from './units'

interface Props {
	log: SessionLog
	stand: Stand
	lasting: boolean
	questions: FeedQuestion[]
	onTap: (tap: Tap) => void
	onSettle: (what: string) => void
	onAsk: () => void
	onQuestions: () => void
}

const ROW = 'flex flex-wrap items-center gap-2 border-b border-chalk px-4 py-1.5'
const ANSWER = 'btn btn-quiet min-h-[64px]'

/** What waits for an answer of whoever holds the phone; nothing here is ever dropped unasked. */
export function FieldNotices({ log, stand, lasting, questions, onTap, onSettle, onAsk, onQuestions }: Props) {
	const { asRead } = useUnits()
	const { doubles, asks, nameOf } = stand
	const broken = useMemo(() => orderBreak(stand, stand.settled), [stand])
	return (
		<>
			{!window.isSecureContext && (
				<p className="border-b border-chalk bg-attn px-4 py-2 font-bold text-paper">
					This address is not secure, so the browser can neither open this page without the server nor keep the screen
					awake: marks are kept, but do not close it. Open Dromos over https.
				</p>
			)}
			{!lasting && (
				<p className="border-b border-chalk bg-attn px-4 py-2 font-bold text-paper">
					This browser keeps nothing on the device: marks are sent at once, and lost if that fails.
				</p>
			)}
			{log.ofOthers > 0 && (
				<div className={ROW} role="alert" aria-label="Logged by somebody else">
					<span className="grow basis-[240px]">
						{log.ofOthers === 1 ? 'One entry' : `${log.ofOthers} entries`} here {log.ofOthers === 1 ? 'was' : 'were'}{' '}
						logged by somebody else who used this phone, and {log.ofOthers === 1 ? 'waits' : 'wait'} for them to sign
						in.
					</span>
					<button type="button" className={ANSWER} onClick={() => void log.handOver()}>
						Send as mine
					</button>
				</div>
			)}
			{log.refused.map((row) => (
				<p key={row.event.id} className={ROW} role="alert">
					<span className="grow basis-[240px]">
						<b>Not taken by the server:</b> {nameOf(row.event.athleteId)}, {asRead(sayEvent(row.event))}: {row.reason}
					</span>
					<button type="button" className={ANSWER} onClick={() => void log.dismiss(row.event.id)}>
						Take off
					</button>
				</p>
			))}
			{log.conflicts.map((heads) => (
				<div key={heads.map((event) => event.id).join()} className={ROW} role="alert">
					<span className="grow basis-[240px]">
						<b>{nameOf(heads[0]?.athleteId ?? null)}:</b> two corrections contradict each other. Which one holds?
					</span>
					{heads.map((event) => (
						<button
							key={event.id}
							type="button"
							className={ANSWER}
							onClick={() =>
								onTap({
									tap: 'take-back',
									events: heads.filter((other) => other !== event),
									label: `${asRead(sayEvent(event))} holds`,
								})
							}
						>
							{asRead(sayEvent(event))}
						</button>
					))}
				</div>
			))}
			{asks.slice(0, 1).map(({ athleteId, ask }) => (
				<div
					key={`${athleteId}${ask.region}`}
					className={`${ROW} bg-ink text-paper`}
					role="alert"
					aria-label="Ask how it was"
				>
					<span className="flex-1 text-[17px]">
						Ask <b>{nameOf(athleteId)}</b> how {ask.afterAnything ? 'the head' : `the ${placeOf(ask)}`} was.
						{asks.length > 1 && ` (${asks.length - 1} more)`}
					</span>
					<button
						type="button"
						className="num min-h-[64px] bg-paper px-5 text-[17px] font-bold text-ink"
						onClick={onAsk}
					>
						Answer
					</button>
				</div>
			))}
			{doubles.slice(0, 1).map(([first, second]) => (
				<div key={pairOf(first, second)} className={ROW} role="alert" aria-label="One rep or two">
					<span className="grow basis-[240px]">
						<b>{nameOf(first.athleteId)}:</b> {asRead(sayEvent(first))} and {asRead(sayEvent(second))}, logged twice
						within moments. One rep?{doubles.length > 1 && ` (${doubles.length - 1} more)`}
					</span>
					<button
						type="button"
						className={ANSWER}
						onClick={() => onTap({ tap: 'take-back', events: [second], label: 'one rep, not two' })}
					>
						One: {asRead(sayEvent(first))}
					</button>
					{asRead(sayEvent(first)) !== asRead(sayEvent(second)) && (
						<button
							type="button"
							className={ANSWER}
							onClick={() => onTap({ tap: 'take-back', events: [first], label: 'one rep, not two' })}
						>
							One: {asRead(sayEvent(second))}
						</button>
					)}
					<button type="button" className={ANSWER} onClick={() => onSettle(pairOf(first, second))}>
						Two reps
					</button>
				</div>
			))}
			{broken && (
				<div className={ROW} role="alert" aria-label="The order">
					<span className="grow basis-[240px]">{asRead(broken.words)}</span>
					<button type="button" className={ANSWER} onClick={() => onTap({ tap: 'reorder', moves: broken.moves })}>
						Yes
					</button>
					<button type="button" className={ANSWER} onClick={() => onSettle(broken.key)}>
						No
					</button>
				</div>
			)}
			{questions.slice(0, 1).map((question) => (
				<div key={question.source} className={ROW} role="alert" aria-label="Whose was it">
					<WhoseRun question={question} stand={stand} onTap={onTap} onSettle={onSettle} />
					{questions.length > 1 && (
						<button type="button" className={ANSWER} onClick={onQuestions}>
							All {questions.length}
						</button>
					)}
				</div>
			))}
		</>
	)
}
