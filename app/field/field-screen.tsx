import { useMemo, useRef, useState } from 'react'
import type { LogEvent, Mark } from '#core/vocabulary/events'
import { doseLeft } from '#core/field/dose-left'
import { likelyDoubles } from '#core/field/likely-doubles'
import { type LineProgress, isNext, nextInQueue } from '#core/field/line-progress'
import { drillOn, type Advice, liveAdvice } from '#core/field/live-advice'
import { overToday } from '#core/field/over-today'
import { placeOf } from '#core/rules/bars'
import { capital } from '#core/words/write-numbers'
import type { FieldSheet } from '#core/field/pack'
import { positionAt, queueOrder } from '#core/field/queue-order'
import { marksOfSession } from '#core/field/session-marks'
import { REGIONS, type Region } from '#core/vocabulary/words'
import type { Drill } from '#core/vocabulary/drill'
import { AdviceBox } from './advice-box'
import { AllMarksPanel } from './all-marks-panel'
import { AskPanel } from './ask-panel'
import { AthletePanel } from './athlete-panel'
import type { DeviceStore } from './device-store'
import { DonePad } from './done-pad'
import { FieldHeader } from './field-header'
import { FieldNotices } from './field-notices'
import { FollowUp } from './follow-up'
import { LineHead } from './line-head'
import { MarkPanel } from './mark-panel'
import { OverPanel } from './over-panel'
import { PainPanel } from './pain-panel'
import { QueueBar } from './queue-bar'
import { QueuePanel } from './queue-panel'
import { RatingRow } from './rating-row'
import { sayEvent } from './say-event'
import { type FieldSettings, SessionPanel } from './session-panel'
import { TimedPad, strangeFor } from './timed-pad'
import { useAwake } from './use-awake'
import { useBody } from './use-body'
import { useDeviceFeed } from './use-device-feed'
import { type NewEvent, useSessionLog } from './use-session-log'

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
	const { current } = log
	useAwake()
	const [entryId, setEntryId] = useState(
		() =>
			sheet.entries.find((entry) => sheet.lines.some((line) => line.entryId === entry.id && line.family !== 'prepare'))
				?.id ??
			sheet.entries[0]?.id ??
			'',
	)
	const [athleteId, setAthleteId] = useState<string | null>(null)
	const [group, setGroup] = useState(0)
	const [last, setLast] = useState<{ events: LogEvent[]; label: string } | null>(null)
	const [problem, setProblem] = useState<string | null>(null)
	const [panel, setPanel] = useState<'pain' | 'over' | 'ask' | 'queue' | 'session' | 'marks' | 'athlete' | null>(null)
	const [hurt, setHurt] = useState<{ athleteId: string; event: LogEvent | null } | null>(null)
	const [markId, setMarkId] = useState<string | null>(null)
	const writing = useRef(false)
	const clock = log.now

	const away = useMemo(
		() =>
			new Set(
				current.flatMap((event) =>
					event.type === 'decision' && event.kind === 'attendance' && !event.value.present ? [event.athleteId] : [],
				),
			),
		[current],
	)
	const order = useMemo(() => queueOrder(sheet.athletes, log.all), [sheet.athletes, log.all])
	const byLine = useMemo(() => {
		const own = new Map<string, LogEvent[]>()
		for (const event of current)
			if ('entryId' in event && event.entryId === entryId && event.athleteId)
				own.set(event.athleteId, [...(own.get(event.athleteId) ?? []), event])
		return own
	}, [current, entryId])
	const { limitsOf, standing, asks, notNow } = useBody(sheet, log, away)
	const everybody = useMemo(
		() =>
			order.flatMap(({ athleteId: id }): LineProgress[] => {
				const line = sheet.lines.find((candidate) => candidate.entryId === entryId && candidate.athleteId === id)
				return line && line.blocked === null && !away.has(id) ? [standing(line, byLine.get(id) ?? [])] : []
			}),
		[sheet, entryId, byLine, away, order, standing],
	)
	const groupOf = (id: string) => order.find((place) => place.athleteId === id)?.group ?? 0
	const queue = group === 0 ? everybody : everybody.filter((progress) => groupOf(progress.line.athleteId) === group)
	const shown = queue.find((progress) => progress.line.athleteId === athleteId) ?? queue.find(isNext) ?? queue[0]
	const onLine = lineUp(queue, shown, settings.lanes)
	const nameOf = (id: string | null) => sheet.athletes.find((athlete) => athlete.id === id)?.name ?? ''
	const entryIndex = sheet.entries.findIndex((entry) => entry.id === entryId)
	const conditions = current.flatMap((event) =>
		event.type === 'decision' && event.kind === 'conditions' ? [event.value] : [],
	)
	const windMps = conditions.findLast((value) => value.windMps !== undefined)?.windMps ?? null
	const doubles = useMemo(() => likelyDoubles(current, sheet.lines, settled), [current, sheet.lines, settled])

	const keep = async (newEvents: NewEvent[], label: string, moveOn: boolean): Promise<LogEvent[] | null> => {
		// A second tap while the first is being written is the same tap.
		if (writing.current) return null
		writing.current = true
		try {
			const written = await log.write(newEvents)
			setProblem(null)
			setLast({ events: written, label })
			const [first] = written
			const of = queue.find((progress) => progress.line.athleteId === first?.athleteId)
			if (moveOn && of) {
				const after = queue.map((progress) =>
					progress === of ? standing(of.line, [...(byLine.get(of.line.athleteId) ?? []), ...written]) : progress,
				)
				setAthleteId(nextInQueue(after, of.line.athleteId) ?? of.line.athleteId)
			}
			return written
		} catch {
			setProblem(
				'This device could not keep that: its storage may be full. Nothing was saved; write it down and free some space.',
			)
			return null
		} finally {
			writing.current = false
		}
	}
	const quietly = (work: Promise<unknown>) =>
		void work.catch(() =>
			setProblem('This device could not keep that: its storage may be full. Write it down and free some space.'),
		)

	const questions = useDeviceFeed({
		readings: log.readings,
		since: log.ready ? feedSince : null,
		onLine,
		all: log.all,
		settled,
		strange: (progress, mark) =>
			strangeFor(
				progress,
				mark,
				sheet.athletes.find((athlete) => athlete.id === progress.line.athleteId),
				drillOn(progress, sheet),
			),
		keep: async (mark, words) => {
			await keep([mark], words, true)
		},
	})

	const changeEntry = (by: number) => {
		const next = sheet.entries[entryIndex + by]
		if (!next) return
		setEntryId(next.id)
		setAthleteId(null)
	}
	const header = (
		<FieldHeader
			sheet={sheet}
			entryIndex={entryIndex}
			log={log}
			onEntry={changeEntry}
			onSession={() => setPanel('session')}
		/>
	)
	const open = markId ? current.find((event): event is Mark => event.type === 'mark' && event.id === markId) : undefined
	const onEntry = sheet.lines.filter((one) => one.entryId === open?.entryId && one.blocked === null)
	const openLine = onEntry.find((one) => one.athleteId === open?.athleteId) ?? onEntry[0]
	const openPanel = open && openLine && (
		<MarkPanel
			key={open.id}
			mark={open}
			line={openLine}
			all={log.all}
			athletes={onEntry
				.filter((one) => !away.has(one.athleteId))
				.map((one) => ({ id: one.athleteId, name: nameOf(one.athleteId), lineId: one.id }))}
			onCorrect={(change) => {
				setMarkId(null)
				quietly(log.correct(open, change))
			}}
			onTakeBack={() => {
				setMarkId(null)
				quietly(log.takeBack([open]))
			}}
			onClose={() => setMarkId(null)}
		/>
	)
	const panels = (
		<>
			{panel === 'marks' && (
				<AllMarksPanel marks={marksOfSession(sheet, current)} onMark={setMarkId} onClose={() => setPanel(null)} />
			)}
			{openPanel}
			{panel === 'session' && (
				<SessionPanel
					onAllMarks={() => setPanel('marks')}
					settings={settings}
					feed={feedSince !== null}
					windMps={windMps}
					surface={conditions.findLast((value) => value.surface !== undefined)?.surface ?? sheet.session.surface}
					cutShort={current.some((event) => event.kind === 'cut-short')}
					onSettings={onSettings}
					onFeed={(on) => onFeed(on ? clock() : null)}
					onConditions={(value) =>
						quietly(log.write([{ athleteId: null, type: 'decision', kind: 'conditions', value }]))
					}
					onCutShort={(reason) =>
						quietly(
							log.write(
								sheet.athletes
									.filter((athlete) => !away.has(athlete.id))
									.map((athlete) => {
										const left = doseLeft(sheet, athlete, current)
										return {
											athleteId: athlete.id,
											type: 'decision',
											kind: 'cut-short',
											value: {
												reason,
												left: {
													reps: left.repsLeft,
													contacts: Math.max(0, left.contacts.planned - left.contacts.done),
													fastMetres: Math.max(0, left.fastMetres.planned - left.fastMetres.done),
												},
											},
										}
									}),
							),
						)
					}
					onClose={() => setPanel(null)}
				/>
			)}
			{panel === 'queue' && (
				<QueuePanel
					queue={queue}
					away={[...away].map((id) => ({ id, name: nameOf(id) }))}
					nameOf={nameOf}
					clock={clock}
					group={group}
					groupOf={groupOf}
					groups={[...new Set(order.map((place) => place.group))].sort()}
					onGroup={setGroup}
					onSplit={() =>
						quietly(
							log.write(
								order.map((place) => ({
									athleteId: place.athleteId,
									type: 'decision',
									kind: 'queue',
									value: {
										group: sheet.athletes.find((athlete) => athlete.id === place.athleteId)?.level ?? 1,
										position: place.position,
									},
								})),
							),
						)
					}
					onMove={(id, to) => {
						const others = order.filter(
							(place) =>
								place.athleteId !== id && queue.some((progress) => progress.line.athleteId === place.athleteId),
						)
						quietly(
							log.write([
								{
									athleteId: id,
									type: 'decision',
									kind: 'queue',
									value: { group: groupOf(id), position: positionAt(others, to) },
								},
							]),
						)
					}}
					onPick={(id) => {
						setPanel(null)
						setAthleteId(id)
					}}
					onAttendance={(id, present) => {
						const before = current.filter((event) => event.kind === 'attendance' && event.athleteId === id)
						if (!present)
							return quietly(
								log.write([{ athleteId: id, type: 'decision', kind: 'attendance', value: { present: false } }]),
							)
						// Whoever comes late goes to the end of the queue.
						quietly(
							log.takeBack(before).then(() =>
								log.write([
									{
										athleteId: id,
										type: 'decision',
										kind: 'queue',
										value: { group: groupOf(id), position: positionAt(order, order.length) },
									},
								]),
							),
						)
					}}
					onClose={() => setPanel(null)}
				/>
			)}
		</>
	)
	const notices = (
		<FieldNotices
			log={log}
			lasting={store.lasting}
			doubles={doubles}
			asks={asks}
			questions={questions}
			candidates={[...onLine, ...queue.filter((progress) => !onLine.includes(progress) && isNext(progress))]}
			nameOf={nameOf}
			onKeep={(mark, words) => void keep([mark], words, true)}
			onSettle={onSettle}
			onAsk={() => setPanel('ask')}
		/>
	)
	const [asked] = asks
	const askPanel = panel === 'ask' && asked && (
		<AskPanel
			name={nameOf(asked.athleteId)}
			ask={asked.ask}
			onAnswer={(score) => {
				const { region, side } = asked.ask
				setPanel(null)
				void keep(
					[{ athleteId: asked.athleteId, type: 'observation', kind: 'quiet', value: { region, side, score } }],
					`asked, ${score} of 10`,
					false,
				).then((written) => {
					if (!written || score < 2) return
					setHurt({ athleteId: asked.athleteId, event: written[0] ?? null })
					setPanel('over')
				})
			}}
			onLater={() => {
				notNow(asked)
				setPanel(null)
			}}
		/>
	)

	if (!shown) {
		const closed = sheet.lines.some((line) => line.entryId === entryId && line.blocked)
		return (
			<div className="mx-auto flex min-h-dvh max-w-[760px] flex-col">
				{header}
				{notices}
				<p className="p-6 text-[18px]">
					{sheet.entries.length === 0 ? 'This sheet has no drills yet.' : 'Nobody has a line here today.'}{' '}
					{closed && 'Whoever is closed stays out until somebody records who cleared them.'}
				</p>
				<button type="button" className="btn btn-quiet mx-6 min-h-[64px]" onClick={() => setPanel('queue')}>
					Queue
				</button>
				{askPanel}
				{panels}
			</div>
		)
	}

	const { line } = shown
	const athlete = sheet.athletes.find((one) => one.id === line.athleteId)!
	const drillKey = shown.swap ?? { drillId: line.drillId, drillVersion: line.drillVersion }
	const drill = sheet.drills[`${drillKey.drillId}/${drillKey.drillVersion}`]
	const [lastEvent] = last?.events ?? []
	const lastLine =
		lastEvent && 'lineId' in lastEvent ? sheet.lines.find((one) => one.id === lastEvent.lineId) : undefined
	const drillOfLast = lastLine && sheet.drills[`${lastLine.drillId}/${lastLine.drillVersion}`]
	const advice = liveAdvice(shown, athlete, sheet, current)
	const place = {
		athleteId: line.athleteId,
		entryId: line.entryId,
		lineId: line.id,
		...shown.next,
		...(shown.swap ? { asDrill: shown.swap } : {}),
	}
	const at = { athleteId: line.athleteId, entryId: line.entryId, lineId: line.id }
	// A drill swapped in is done and judged by eye: its numbers are another drill's.
	const measured = line.logs !== 'done' && !shown.swap

	const act = (what: NonNullable<Advice['act']>) => {
		if (what.kind === 'end-set')
			return void keep(
				[{ ...at, type: 'decision', kind: 'end-set', value: { reason: what.reason } }],
				'set ended',
				true,
			)
		if (what.kind === 'fast-day')
			return void keep([{ ...at, type: 'decision', kind: 'fast-day', value: {} }], 'fast day', false)
		void keep(
			[
				{
					...at,
					type: 'decision',
					kind: 'load-off',
					value: { reason: what.reason },
				},
			],
			'weight off',
			false,
		)
	}
	const undo = async () => {
		if (!last || writing.current) return
		writing.current = true
		try {
			await log.takeBack(last.events)
			const [first] = last.events
			setLast(null)
			if (first?.athleteId) setAthleteId(first.athleteId)
		} catch {
			setProblem('This device could not keep that. Try again.')
		} finally {
			writing.current = false
		}
	}
	const correctLast = (event: LogEvent, change: Partial<LogEvent>) =>
		quietly(
			log.correct(event, change).then((written) =>
				setLast((before) =>
					before
						? {
								events: [written, ...before.events.filter((one) => one !== event)],
								label: `${before.label.split(',')[0]}, ${sayEvent(written)}`,
							}
						: before,
				),
			),
		)
	const lastRep = last?.events.find((event): event is Mark => event.type === 'mark' && event.entryId === entryId)
	const rate = (grade: 'good' | 'not-yet' | 'poor', reps: number | null) => {
		if (reps !== null)
			return void keep(
				[
					{ ...place, type: 'observation', kind: 'quality', value: { grade, scope: 'set' } } as NewEvent,
					{ ...place, type: 'mark', kind: 'done', value: { reps } } as NewEvent,
				].map(withoutSwapUnlessMark),
				`${reps} reps, ${grade.replace('-', ' ')}`,
				true,
			)
		if (!lastRep) return
		const { athleteId: who, entryId: entry, lineId, setNo, repNo } = lastRep
		writing.current = true
		quietly(
			log
				.write([
					{
						athleteId: who,
						entryId: entry,
						lineId,
						setNo,
						repNo,
						type: 'observation',
						kind: 'quality',
						value: { grade, scope: 'rep' },
					},
				])
				.then((written) =>
					setLast((before) => ({
						events: [...written, ...(before?.events ?? []).filter((event) => event.kind !== 'quality')],
						label: `${sayEvent(lastRep)}, ${grade.replace('-', ' ')}`,
					})),
				)
				.finally(() => {
					writing.current = false
				}),
		)
	}
	const worry = () => {
		const region = worstRegion(drill)
		if (region) void keep([{ ...at, type: 'observation', kind: 'worry', value: { region } }], 'a worry', false)
	}
	const report = (event: NewEvent, label: string) => {
		setPanel(null)
		void keep([event], label, false).then((written) => {
			if (!written || !event.athleteId) return
			setHurt({ athleteId: event.athleteId, event: written[0] ?? null })
			setPanel('over')
		})
	}
	const reports = { ready: log.ready, onWorry: worry, onPain: () => setPanel('pain') }

	return (
		<div className="mx-auto flex min-h-dvh max-w-[1100px] flex-col">
			{header}
			{notices}
			{problem && (
				<p className="bg-attn px-4 py-2 font-bold text-paper" role="alert">
					{problem}
				</p>
			)}
			<div className="field-grid flex flex-1 flex-col">
				<LineHead
					progress={shown}
					athlete={athlete}
					dose={doseLeft(sheet, athlete, current)}
					drillName={shown.swap ? (drill?.name ?? '') : null}
					gates={settings.gates}
					onLine={onLine}
					nameOf={nameOf}
					onPick={setAthleteId}
					onMark={setMarkId}
					onAthlete={() => setPanel('athlete')}
				/>
				<TimedOrDone
					key={`${line.id}/${shown.next.setNo}/${shown.next.repNo}`}
					measured={measured}
					advice={advice}
					onAct={act}
					timed={{
						progress: shown,
						athlete,
						drill,
						gates: settings.gates,
						windMps,
						ready: log.ready,
						undoLabel: last?.label ?? null,
						same: shown.marks.at(-1),
						onSave: (value, label) => void keep([{ ...place, type: 'mark', ...value } as NewEvent], label, true),
						onMissed: (reason) =>
							void keep(
								[{ ...place, type: 'mark', kind: 'missed', value: reason ? { reason } : {} } as NewEvent],
								'missed',
								true,
							),
						onUntimed: () =>
							void keep([{ ...place, type: 'mark', kind: 'done', value: { reps: 1 } } as NewEvent], 'no number', true),
						onUndo: () => void undo(),
					}}
					done={{
						progress: shown,
						drill,
						ready: log.ready,
						undoLabel: last?.label ?? null,
						onUndo: () => void undo(),
						onDone: (reps) =>
							void keep(
								[{ ...place, type: 'mark', kind: 'done', value: { reps } } as NewEvent],
								'done, not judged',
								true,
							),
						onRate: rate,
						reports,
					}}
					followUp={
						<FollowUp
							last={last}
							drill={drillOfLast}
							assisted={(line.parameters.assistPercent ?? 0) > 0}
							nameOf={nameOf}
							onCorrect={correctLast}
							onComfort={(worst, braking) =>
								lastRep &&
								quietly(
									log
										.write([
											{
												athleteId: lastRep.athleteId,
												entryId: lastRep.entryId,
												lineId: lastRep.lineId,
												setNo: lastRep.setNo,
												repNo: lastRep.repNo,
												type: 'observation',
												kind: 'comfort',
												value: { worst, braking },
											},
										])
										.then((written) =>
											setLast((before) => ({
												events: [...(before?.events ?? []), ...written],
												label: `${before?.label ?? ''}, comfort ${worst} of 5${braking ? ', braking' : ''}`,
											})),
										),
								)
							}
						/>
					}
				/>
				{measured && (
					<RatingRow
						mayRate={log.ready && lastRep !== undefined}
						onRate={(grade) => rate(grade, null)}
						reports={reports}
					/>
				)}
				<QueueBar
					queue={queue}
					onLine={onLine}
					nameOf={nameOf}
					clock={clock}
					alerts={settings}
					onOpen={() => setPanel('queue')}
				/>
			</div>

			{panel === 'pain' && (
				<PainPanel
					name={nameOf(line.athleteId)}
					onClose={() => setPanel(null)}
					onSave={(pain) =>
						report(
							{ ...at, type: 'observation', kind: 'pain', value: { ...pain, moment: 'during' } },
							`pain ${pain.score}`,
						)
					}
					onWhole={(kind) => report({ ...at, type: 'observation', kind, value: {} } as NewEvent, kind)}
				/>
			)}
			{panel === 'over' && hurt && (
				<OverPanel
					name={nameOf(hurt.athleteId)}
					closures={[
						...new Map(
							limitsOf(hurt.athleteId).closures.map((one) => [
								`${placeOf(one)} ${one.grade}`,
								{ words: capital(placeOf(one)), grade: one.grade },
							]),
						).values(),
					]}
					unwell={limitsOf(hurt.athleteId).easyOnly}
					contact={sheet.athletes.find((one) => one.id === hurt.athleteId)?.contact ?? null}
					place={[sheet.session.place, sheet.session.address].filter(Boolean).join(', ') || 'no place is written down'}
					others={sheet.athletes.filter((one) => one.id !== hurt.athleteId && !away.has(one.id))}
					onUndo={
						hurt.event
							? () => {
									const { event } = hurt
									setPanel(null)
									if (event) quietly(log.takeBack([event]).then(() => setLast(null)))
								}
							: undefined
					}
					onMove={
						hurt.event && hurt.event.kind !== 'quiet'
							? (to) => {
									const { event } = hurt
									if (!event) return
									const own = sheet.lines.find((one) => one.entryId === entryId && one.athleteId === to)
									const moved = { athleteId: to, lineId: own?.id, ...(own ? {} : { entryId: undefined }) }
									quietly(
										log.correct(event, moved as Partial<LogEvent>).then((written) => {
											setLast({ events: [written], label: sayEvent(written) })
											setHurt({ athleteId: to, event: written })
										}),
									)
								}
							: undefined
					}
					remaining={sheet.lines
						.filter((one) => one.athleteId === hurt.athleteId && one.blocked === null && one.family !== 'prepare')
						.map((one) =>
							standing(
								one,
								current.filter((event) => 'entryId' in event && event.entryId === one.entryId),
							),
						)
						.filter(isNext)
						.map((one) => `${one.line.words}, ${one.line.dose.sets}×${one.line.dose.reps}`)}
					onClose={() => setPanel(null)}
				/>
			)}
			{askPanel}
			{panel === 'athlete' && (
				<AthletePanel
					name={athlete.name}
					progress={shown}
					dose={doseLeft(sheet, athlete, current)}
					ownDrill={sheet.drills[`${line.drillId}/${line.drillVersion}`]}
					standIns={(sheet.standIns[line.drillId] ?? [])
						.flatMap((key) => sheet.drills[key] ?? [])
						.filter(
							(drill) =>
								!(athlete.barred ?? []).includes(drill.id) &&
								overToday(limitsOf(athlete.id), drill, drill.defaults.parameters) === null,
						)}
					onSwap={(other) => {
						setPanel(null)
						void keep(
							[{ ...at, type: 'decision', kind: 'swap', value: { drillId: other.id, drillVersion: other.version } }],
							other.name,
							false,
						)
					}}
					onEnd={(reason) => {
						setPanel(null)
						void keep([{ ...at, type: 'decision', kind: 'end-set', value: { reason } }], 'ended', true)
					}}
					onGroup={(to) => {
						setPanel(null)
						quietly(
							log.write([
								{
									athleteId: athlete.id,
									type: 'decision',
									kind: 'queue',
									value: { group: to, position: order.find((place) => place.athleteId === athlete.id)?.position ?? 0 },
								},
							]),
						)
					}}
					onLeave={() => {
						setPanel(null)
						void keep(
							[{ athleteId: athlete.id, type: 'decision', kind: 'attendance', value: { present: false } }],
							'left',
							true,
						)
					}}
					onClose={() => setPanel(null)}
				/>
			)}
			{panels}
		</div>
	)
}

/** A number pad for what is measured, a counter for what is judged by eye. A new rep is a new one: nothing typed is carried over. */
function TimedOrDone({
	measured,
	advice,
	onAct,
	timed,
	done,
	followUp,
}: {
	measured: boolean
	advice: Advice
	onAct: (act: NonNullable<Advice['act']>) => void
	timed: Omit<React.ComponentProps<typeof TimedPad>, 'advice' | 'onAct' | 'followUp'>
	done: React.ComponentProps<typeof DonePad>
	followUp: React.ReactNode
}) {
	if (measured) return <TimedPad {...timed} advice={advice} onAct={onAct} followUp={followUp} />
	return (
		<>
			<AdviceBox advice={advice} onAct={onAct} />
			<DonePad {...done} />
			{followUp}
		</>
	)
}

/** Only a mark says what it was done as. */
function withoutSwapUnlessMark(event: NewEvent): NewEvent {
	if (event.type === 'mark') return event
	const { asDrill: _asDrill, ...rest } = event as NewEvent & { asDrill?: unknown }
	return rest as NewEvent
}

/** The next ones to start together: whoever is shown, and those after who still have reps. */
function lineUp(queue: LineProgress[], shown: LineProgress | undefined, lanes: number): LineProgress[] {
	if (!shown) return []
	const open = queue.filter((progress) => isNext(progress) || progress === shown)
	const start = Math.floor(open.indexOf(shown) / lanes) * lanes
	return open.slice(start, start + lanes)
}

const worstRegion = (drill: Drill | undefined): Region | null =>
	REGIONS.map((region) => [region, drill?.regions[region] ?? 0] as const)
		.filter(([, load]) => load > 0)
		.sort((a, b) => b[1] - a[1])[0]?.[0] ?? null
