import { useEffect, useRef, useState } from 'react'
import type { LogEvent } from '#core/vocabulary/events'
import { doseLeft } from '#core/field/dose-left'
import type { FieldSheet } from '#core/field/pack'
import type { OnLine } from '#core/field/session/stand'
import type { Tap } from '#core/field/session/taps'
import { AdviceBox } from './advice-box'
import { AskFirst } from './ask-first'
import type { DeviceStore } from './device-store'
import { DonePad } from './done-pad'
import { FieldHeader } from './field-header'
import { FieldNotices } from './field-notices'
import { FieldPanels, type OpenPanel, type Panel } from './field-panels'
import { FollowUp } from './follow-up'
import { LineHead } from './line-head'
import type { PadKey } from './presses'
import { QueueBar } from './queue-bar'
import { RatingRow } from './rating-row'
import type { FieldSettings } from './session-panel'
import { TimedPad } from './timed-pad'
import { type Afternoon, useAfternoon } from './use-afternoon'
import { useAwake } from './awake'
import { tapIsKept } from './signals'
import { useDeviceFeed } from './use-device-feed'
import { type SessionLog, useSessionLog } from './use-session-log'

interface Props {
	store: DeviceStore
	sheet: FieldSheet
	events: LogEvent[]
	personId: string | null
	settings: FieldSettings
	settled: ReadonlySet<string>
	feedSince: number | null
	onSettings: (change: Partial<FieldSettings>) => void
	onSettle: (what: string) => void
	onFeed: (since: number | null) => void
}

/** Panels about whoever is on the line when they are opened. */
const OF_THE_LINE: ReadonlySet<Panel> = new Set(['pain', 'note', 'athlete'])

/** The afternoon as the core says it stands: this screen draws it, and hands on what is tapped. */
export function FieldScreen({
	store,
	sheet,
	events,
	personId,
	settings,
	settled,
	feedSince,
	onSettings,
	onSettle,
	onFeed,
}: Props) {
	const log = useSessionLog(store, sheet.session.id, events, personId)
	const afternoon = useAfternoon(log, sheet, store.deviceId, settings.lanes, settled, () => tapIsKept(settings))
	const { stand, tap, turns, problem } = afternoon
	const { shown, cursor } = stand
	useAwake()
	useEffect(() => {
		document.documentElement.classList.toggle('dusk', settings.dusk)
		return () => document.documentElement.classList.remove('dusk')
	}, [settings.dusk])
	const [panel, setPanel] = useState<OpenPanel | null>(null)
	const open = (which: Panel | null) => {
		if (which !== null && OF_THE_LINE.has(which) && turns.unseen) return
		setPanel(which && { which, athleteId: shown?.athlete.id ?? null, asked: stand.asks[0] ?? null })
	}
	const [markId, setMarkId] = useState<string | null>(null)
	const [busy, setBusy] = useState(false)
	const onLine = shown?.athlete.id ?? null
	useEffect(() => {
		// Who is next may change with every mark from elsewhere; whom something is typed for may not.
		if (busy && onLine !== null && cursor.athleteId !== onLine) void tap({ tap: 'pick', athleteId: onLine })
	}, [busy, onLine, cursor.athleteId, tap])
	const questions = useDeviceFeed(log.readings, log.ready ? feedSince : null, busy, afternoon)
	return (
		<main className={`mx-auto flex min-h-dvh flex-col ${shown ? 'max-w-[1100px]' : 'max-w-[760px]'}`}>
			<FieldHeader
				sheet={stand.sheet}
				entryId={cursor.entryId}
				log={log}
				slow={afternoon.slow}
				onEntry={(by) => void tap({ tap: 'entry', by })}
				onDrills={() => open('drills')}
				onSession={() => open('session')}
			/>
			<FieldNotices
				log={log}
				stand={stand}
				lasting={store.lasting}
				questions={questions}
				onTap={(one) => void tap(one)}
				onSettle={onSettle}
				onAsk={() => open('ask')}
				onQuestions={() => open('questions')}
			/>
			{problem && (
				<p className="bg-attn px-4 py-2 font-bold text-paper" role="alert">
					{problem}
				</p>
			)}
			{shown ? (
				<Line
					afternoon={afternoon}
					shown={shown}
					log={log}
					settings={settings}
					onMark={setMarkId}
					onPanel={open}
					onBusy={setBusy}
					onTap={(one) => void tap(one)}
				/>
			) : (
				<Nobody afternoon={afternoon} onQueue={() => open('queue')} />
			)}
			<FieldPanels
				afternoon={afternoon}
				log={log}
				panel={panel}
				markId={markId}
				settings={settings}
				feed={feedSince !== null}
				questions={questions}
				onSettle={onSettle}
				onPanel={open}
				onMark={setMarkId}
				onSettings={onSettings}
				onFeed={(on) => onFeed(on ? log.now() : null)}
			/>
			{cursor.asking && (
				<AskFirst
					words={cursor.asking.words}
					onYes={() => void tap({ tap: 'sure' })}
					onNo={() => void tap({ tap: 'no' })}
				/>
			)}
		</main>
	)
}

/** Nobody has a line on this entry. */
function Nobody({ afternoon: { stand, tap }, onQueue }: { afternoon: Afternoon; onQueue: () => void }) {
	const { sheet, cursor, undoLabel } = stand
	const closed = sheet.lines.some((line) => line.entryId === cursor.entryId && line.blocked)
	return (
		<>
			<h1 className="p-6 text-[18px] font-normal">
				{sheet.entries.length === 0 ? 'This sheet has no drills yet.' : 'Nobody has a line here today.'}{' '}
				{closed && 'Whoever is closed stays out until somebody records who cleared them.'}
			</h1>
			<div className="mx-6 grid gap-2">
				<button type="button" className="btn btn-quiet min-h-[64px]" onClick={onQueue}>
					Queue
				</button>
				{undoLabel && (
					<button type="button" className="btn btn-quiet min-h-[64px]" onClick={() => void tap({ tap: 'undo' })}>
						Undo: {undoLabel}
					</button>
				)}
			</div>
		</>
	)
}

/** Somebody is on the line. */
function Line({
	afternoon: { stand, key, rep },
	shown,
	log,
	settings,
	onMark,
	onPanel,
	onBusy,
	onTap,
}: {
	afternoon: Afternoon
	shown: OnLine
	log: SessionLog
	settings: FieldSettings
	onMark: (id: string) => void
	onPanel: (panel: Panel) => void
	onBusy: (busy: boolean) => void
	onTap: (tap: Tap) => void
}) {
	const { progress, athlete, drill, measured, advice } = shown
	const { line } = progress
	const { sheet, lastRep, undoLabel } = stand
	const reports = {
		ready: log.ready,
		onWorry: () => onTap({ tap: 'worry', athleteId: athlete.id }),
		onPain: () => onPanel('pain'),
		onNote: () => onPanel('note'),
	}
	const last = stand.moves.at(-1)
	const [lastEvent] = last?.steps ?? []
	const lastLine =
		lastEvent && 'lineId' in lastEvent.event
			? sheet.lines.find(({ id }) => 'lineId' in lastEvent.event && id === lastEvent.event.lineId)
			: undefined
	const followUp = (
		<FollowUp
			last={last ? { events: last.steps.map(({ event }) => event), label: last.label } : null}
			drill={lastLine && sheet.drills[`${lastLine.drillId}/${lastLine.drillVersion}`]}
			assisted={(line.parameters.assistPercent ?? 0) > 0}
			onAmend={(event, change) => onTap({ tap: 'amend', event, change })}
			onComfort={(worst, braking) => onTap({ tap: 'comfort', worst, braking })}
		/>
	)
	// Of the pad that is there when a key has its turn: a press before may have brought another.
	const pad = useRef<((key: PadKey) => void) | null>(null)
	// What is logged here ends what was typed for it; what others log of the same athlete does not.
	const repKey = `${line.id}/${progress.next.piece}/${rep}`
	return (
		<div className="field-grid flex flex-1 flex-col">
			<LineHead
				progress={progress}
				athlete={athlete}
				dose={doseLeft(sheet, athlete, stand.current)}
				drillName={progress.swap ? (drill?.name ?? '') : null}
				gates={settings.gates}
				onLine={stand.onLine}
				nameOf={stand.nameOf}
				onPick={(athleteId) => onTap({ tap: 'pick', athleteId })}
				onMark={onMark}
				onAthlete={() => onPanel('athlete')}
			/>
			{measured ? (
				<TimedPad
					key={repKey}
					shown={shown}
					together={stand.onLine
						.filter(({ line: { logs }, swap, finished }) => logs === 'sprint' && swap === null && !finished)
						.map((one) => ({ id: one.line.athleteId, name: stand.nameOf(one.line.athleteId) }))}
					clock={log.now}
					gates={settings.gates}
					windMps={stand.windMps}
					ready={log.ready}
					undoLabel={undoLabel}
					onTap={onTap}
					onKey={(one) => key(one, () => pad.current?.(one))}
					onPad={(press) => {
						pad.current = press
					}}
					onBusy={onBusy}
					followUp={followUp}
				/>
			) : (
				<>
					<AdviceBox advice={advice} onAct={() => onTap({ tap: 'advice', athleteId: athlete.id })} />
					<DonePad
						key={repKey}
						progress={progress}
						drill={drill}
						ready={log.ready}
						undoLabel={undoLabel}
						onUndo={() => onTap({ tap: 'undo' })}
						onReps={(reps, grade) => onTap({ tap: 'reps', athleteId: athlete.id, reps, grade })}
						reports={reports}
					/>
					{followUp}
				</>
			)}
			{measured && (
				<RatingRow
					mayRate={log.ready && lastRep !== null}
					onRate={(grade) => onTap({ tap: 'rate', grade })}
					reports={reports}
				/>
			)}
			<QueueBar
				queue={stand.queue}
				onLine={stand.onLine}
				ended={stand.cutShort}
				nameOf={stand.nameOf}
				clock={log.now}
				alerts={settings}
				onOpen={() => onPanel('queue')}
			/>
		</div>
	)
}
