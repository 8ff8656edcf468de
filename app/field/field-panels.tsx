import { Suspense, lazy, useEffect } from 'react'
import type { Mark } from '#core/vocabulary/events'
import { doseLeft } from '#core/field/dose-left'
import { remaining, mayDo } from '#core/field/session/press'
import type { Asked } from '#core/field/session/read-field'
import type { FeedQuestion } from '#core/field/session/readings'
import { lineOn } from '#core/field/session/stand'
import type { Tap } from '#core/field/session/taps'
import { sayEvent, shortName } from '#core/field/say-event'
import { marksOfSession, takenBack } from '#core/field/session-marks'
import { placeOf } from '#core/rules/bars'
import { capital } from '#core/words/write-numbers'
import { AllMarksPanel } from './all-marks-panel'
import { AskPanel } from './ask-panel'
import { AthletePanel } from './athlete-panel'
import { DrillsPanel } from './drills-panel'
import { JoinPanel } from './join-panel'
import { MarkPanel } from './mark-panel'
import { NotePanel } from './note-panel'
import { OverPanel } from './over-panel'
import { PainPanel } from './pain-panel'
import { type FieldSettings, SessionPanel } from './session-panel'
import { SheetPanel } from './sheet-panel'
import type { Afternoon } from './use-afternoon'
import type { SessionLog } from './use-session-log'
import { WhoseRun } from './whose-run'
import { useUnits } from './units'

// Dragging weighs more than the rest of the panels: it comes when the field stands, and the worker keeps it.
const loadQueue = () => import('./queue-panel')
const QueuePanel = lazy(() =>
	loadQueue().then(
		({ QueuePanel: default_ }) => ({ default: default_ }),
		() => ({ default: QueueMissing }),
	),
)
function QueueMissing({ onClose }: { onClose: () => void }) {
	return (
		<SheetPanel title="Queue" onClose={onClose}>
			<p className="mt-3 text-[17px]">This list was never on this device: with a connection, open the field anew.</p>
		</SheetPanel>
	)
}

export type Panel =
	| 'pain'
	| 'ask'
	| 'queue'
	| 'session'
	| 'marks'
	| 'athlete'
	| 'note'
	| 'join'
	| 'questions'
	| 'drills'

/** A panel, and what was on the screen when it was opened: that does not change under the thumb, whatever comes in. */
export interface OpenPanel {
	which: Panel
	/** Whoever was on the line. */
	athleteId: string | null
	/** What was to be asked first. */
	asked: Asked | null
}

interface Props {
	afternoon: Afternoon
	log: SessionLog
	panel: OpenPanel | null
	/** A mark that is looked at; over any panel. */
	markId: string | null
	settings: FieldSettings
	feed: boolean
	/** What devices saw and nobody has placed. */
	questions: readonly FeedQuestion[]
	onSettle: (what: string) => void
	onPanel: (panel: Panel | null) => void
	onMark: (id: string | null) => void
	onSettings: (change: Partial<FieldSettings>) => void
	onFeed: (on: boolean) => void
}

/** Whatever is opened over the line: at most one panel, a mark over it, and a report that was just kept over all. */
export function FieldPanels({
	afternoon,
	log,
	panel: open,
	markId,
	settings,
	feed,
	questions,
	onSettle,
	onPanel,
	onMark,
	onSettings,
	onFeed,
}: Props) {
	useEffect(() => {
		// Fetched ahead, so that the first look at the queue waits for nothing; what fails is tried again when it is opened.
		void loadQueue().catch(() => undefined)
	}, [])
	const { stand } = afternoon
	const { sheet, current } = stand
	const panel = open?.which ?? null
	const athleteId = open?.athleteId ?? null
	const seen = athleteId === null ? null : lineOn(stand, athleteId)
	const asked = open?.asked ?? null
	const close = () => onPanel(null)
	const tap = (one: Tap) => void afternoon.tap(one)
	const closing = (one: Tap) => {
		close()
		tap(one)
	}
	return (
		<>
			{panel === 'marks' && (
				<AllMarksPanel
					marks={marksOfSession(sheet, current)}
					gone={takenBack(log.all)}
					nameOf={stand.nameOf}
					onMark={onMark}
					onBringBack={({ event, before }) => tap({ tap: 'bring-back', event, before })}
					onClose={close}
				/>
			)}
			{panel === 'session' && (
				<SessionPanel
					onAllMarks={() => onPanel('marks')}
					settings={settings}
					feed={feed}
					windMps={stand.windMps}
					surface={stand.surface}
					cutShort={stand.cutShort}
					onSettings={onSettings}
					onFeed={onFeed}
					onConditions={(value) => tap({ tap: 'conditions', value })}
					onGoOn={() => closing({ tap: 'go-on' })}
					onCutShort={(reason) => closing({ tap: 'cut-short', reason })}
					onClose={close}
				/>
			)}
			{panel === 'queue' && (
				<Suspense fallback={null}>
					<QueuePanel
						stand={stand}
						clock={log.now}
						onTap={tap}
						onPick={(athleteId) => closing({ tap: 'pick', athleteId })}
						onJoin={() => onPanel('join')}
						onClose={close}
					/>
				</Suspense>
			)}
			{panel === 'questions' && (
				<SheetPanel title="From devices" onClose={close}>
					{questions.length === 0 && <p className="mt-3 text-[17px]">Nothing is open.</p>}
					<ul className="mt-2">
						{questions.map((question) => (
							<li key={question.source} className="flex flex-wrap items-center gap-2 border-t border-chalk py-2">
								<WhoseRun question={question} stand={stand} most={12} onTap={tap} onSettle={onSettle} />
							</li>
						))}
					</ul>
				</SheetPanel>
			)}
			{panel === 'drills' && <DrillsPanel stand={stand} onTap={tap} onDone={closing} onClose={close} />}
			{panel === 'join' && <JoinPanel stand={stand} onTap={closing} onClose={close} />}
			{panel === 'ask' && asked && (
				<AskPanel
					name={stand.nameOf(asked.athleteId)}
					ask={asked.ask}
					onAnswer={(score) => closing({ tap: 'answer', asked, score })}
					onLater={() => closing({ tap: 'later', asked })}
				/>
			)}
			{panel === 'pain' && athleteId !== null && (
				<PainPanel
					name={stand.nameOf(athleteId)}
					onClose={close}
					onSave={(value) => closing({ tap: 'report', athleteId, report: { kind: 'pain', value } })}
					onWhole={(kind) => closing({ tap: 'report', athleteId, report: { kind } })}
				/>
			)}
			{panel === 'note' && (
				<NotePanel
					athlete={seen?.athlete ?? null}
					lastRep={stand.lastRep}
					nameOf={stand.nameOf}
					onSave={(about, text) => closing({ tap: 'note', text, ...about })}
					onClose={close}
				/>
			)}
			{panel === 'athlete' && seen && (
				<AthletePanel
					name={seen.athlete.name}
					progress={seen.progress}
					together={stand.queue.filter(({ finished }) => !finished).length}
					dose={doseLeft(sheet, seen.athlete, current)}
					ownDrill={sheet.drills[`${seen.progress.line.drillId}/${seen.progress.line.drillVersion}`]}
					standIns={(sheet.standIns[seen.progress.line.drillId] ?? [])
						.flatMap((key) => sheet.drills[key] ?? [])
						.filter((drill) => mayDo(stand, seen.athlete.id, drill))}
					onSwap={(drill, who) => closing({ tap: 'swap', drill, ...who })}
					onEnd={(reason, who) => closing({ tap: 'end', reason, ...who })}
					onGroup={(group) => closing({ tap: 'to-group', athleteId: seen.athlete.id, group })}
					onLeave={() => closing({ tap: 'here', athleteId: seen.athlete.id, present: false })}
					onClose={close}
				/>
			)}
			<OpenMark afternoon={afternoon} log={log} markId={markId} onMark={onMark} />
			<Hurt afternoon={afternoon} />
		</>
	)
}

function OpenMark({
	afternoon: { stand, tap },
	log,
	markId,
	onMark,
}: Pick<Props, 'afternoon' | 'log' | 'markId' | 'onMark'>) {
	const { asRead } = useUnits()
	const { sheet, current, away, nameOf } = stand
	const mark = current.find((event): event is Mark => event.type === 'mark' && event.id === markId)
	const onEntry = sheet.lines.filter((one) => one.entryId === mark?.entryId && one.blocked === null)
	const line = onEntry.find((one) => one.athleteId === mark?.athleteId) ?? onEntry[0]
	if (!mark || !line) return null
	const closing = (one: Tap) => {
		onMark(null)
		void tap(one)
	}
	return (
		<MarkPanel
			key={mark.id}
			mark={mark}
			name={nameOf(mark.athleteId)}
			line={line}
			all={log.all}
			deviceId={stand.deviceId}
			athletes={onEntry
				.filter((one) => !away.has(one.athleteId))
				.map((one) => ({ id: one.athleteId, name: nameOf(one.athleteId), lineId: one.id }))}
			onCorrect={(change) => closing({ tap: 'correct', event: mark, change })}
			onTakeBack={() =>
				closing({
					tap: 'take-back',
					events: [mark],
					label: `${shortName(nameOf(mark.athleteId))}, ${asRead(sayEvent(mark))} taken back`,
				})
			}
			onClose={() => onMark(null)}
		/>
	)
}

/** What the report that was just kept means. */
function Hurt({ afternoon: { stand, tap } }: Pick<Props, 'afternoon'>) {
	const { asRead } = useUnits()
	const { hurt } = stand.cursor
	const { sheet, away, limitsOf, nameOf } = stand
	if (!hurt) return null
	const { athleteId, event } = hurt
	const limits = limitsOf(athleteId)
	const closures = new Map(
		limits.closures.map((one) => [`${placeOf(one)} ${one.grade}`, { words: capital(placeOf(one)), grade: one.grade }]),
	)
	return (
		<OverPanel
			name={nameOf(athleteId)}
			closures={[...closures.values()]}
			unwell={limits.easyOnly}
			contact={sheet.athletes.find(({ id }) => id === athleteId)?.contact ?? null}
			place={[sheet.session.place, sheet.session.address].filter(Boolean).join(', ') || 'no place is written down'}
			others={sheet.athletes.filter(({ id }) => id !== athleteId && !away.has(id))}
			onUndo={event ? () => void tap({ tap: 'slip' }) : undefined}
			onMove={event && event.kind !== 'quiet' ? (to) => void tap({ tap: 'other', athleteId: to }) : undefined}
			remaining={remaining(stand, athleteId).map(({ line }) =>
				asRead(`${line.words}, ${line.dose.sets}×${line.dose.reps}`),
			)}
			onClose={() => void tap({ tap: 'heard' })}
		/>
	)
}
