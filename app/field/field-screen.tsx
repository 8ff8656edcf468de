import { useEffect, useMemo, useRef, useState } from 'react'
import type { LogEvent, Observation } from '#core/events/schema'
import { readDigits } from '#core/measure/read-digits'
import { CONTACT_METHODS, LENGTH_METHODS, METHOD_NAMES, SPRINT_METHODS, type ContactMethod, type LengthMethod, type SprintMethod } from '#core/noise/typical-error'
import { markEvidence } from '#core/progress/gather-exposure'
import { expectationOf } from '#core/progress/target'
import { writeMark, writePercent } from '#core/progress/write-numbers'
import type { FieldSheet } from './field-sheet'
import { NumberPad } from './number-pad'
import { PainPanel } from './pain-panel'
import { type LineProgress, nextInQueue, progressOf, restLeft, suggestionFor } from './queue'
import { QueuePanel } from './queue-panel'
import { type Slot, expectLabel, showRead, slotsOf, strangeness, valueOf } from './slots'
import { sentences } from '../ui/sentence'
import { type NewEvent, useSessionLog } from './use-session-log'

const METHODS = { sprint: SPRINT_METHODS, contact: CONTACT_METHODS, height: LENGTH_METHODS, distance: LENGTH_METHODS } as const
const CLOCK_MS = 1000

export function FieldScreen({ sheet, events }: { sheet: FieldSheet; events: LogEvent[] }) {
	const log = useSessionLog(sheet.session.id, events)
	const { current } = log
	const [entryId, setEntryId] = useState(() => sheet.entries.find((entry) => sheet.lines.some((line) => line.entryId === entry.id && line.family !== 'prepare'))?.id ?? sheet.entries[0]?.id ?? '')
	const [athleteId, setAthleteId] = useState<string | null>(null)
	const [digits, setDigits] = useState<string[]>([''])
	const [slotAt, setSlotAt] = useState(0)
	/** Whoever times only the whole distance starts there the next time too. */
	const [firstSlot, setFirstSlot] = useState(0)
	const [methods, setMethods] = useState<{ sprint: SprintMethod; contact: ContactMethod; height: LengthMethod; distance: LengthMethod }>({ sprint: 'gate', contact: 'mat', height: 'mat', distance: 'tape' })
	const [setReps, setSetReps] = useState<number | null>(null)
	const [last, setLast] = useState<{ events: LogEvent[]; label: string } | null>(null)
	const [odd, setOdd] = useState<string | null>(null)
	const [problem, setProblem] = useState<string | null>(null)
	const [panel, setPanel] = useState<'pain' | 'queue' | null>(null)
	const [now, setNow] = useState(0)
	const writing = useRef(false)

	useEffect(() => {
		const tick = () => setNow(Date.now())
		tick()
		const timer = setInterval(tick, CLOCK_MS)
		return () => clearInterval(timer)
	}, [])

	const away = useMemo(() => new Set(current.flatMap((event) => (event.type === 'decision' && event.kind === 'attendance' && !event.value.present ? [event.athleteId] : []))), [current])
	const queue = useMemo(() => sheet.athletes.flatMap((athlete): LineProgress[] => {
		const line = sheet.lines.find((candidate) => candidate.entryId === entryId && candidate.athleteId === athlete.id)
		return line && line.blocked === null && !away.has(athlete.id) ? [progressOf(line, current)] : []
	}), [sheet, entryId, current, away])
	const shown = queue.find((progress) => progress.line.athleteId === athleteId) ?? queue.find((progress) => !progress.finished) ?? queue[0]
	const nameOf = (id: string) => sheet.athletes.find((athlete) => athlete.id === id)?.name ?? ''
	const entryIndex = sheet.entries.findIndex((entry) => entry.id === entryId)
	const entry = sheet.entries[entryIndex]

	const clear = () => {
		setDigits([''])
		setSlotAt(firstSlot)
		setOdd(null)
		setSetReps(null)
	}
	const goTo = (id: string | null) => {
		clear()
		setAthleteId(id)
	}
	const changeEntry = (by: number) => {
		const next = sheet.entries[entryIndex + by]
		if (!next) return
		setEntryId(next.id)
		goTo(null)
	}
	const keep = async (newEvents: NewEvent[], label: string, moveOn: boolean) => {
		// A second tap while the first is being written is the same tap.
		if (writing.current) return
		writing.current = true
		setProblem(null)
		try {
			const written = await log.write(newEvents)
			setLast({ events: written, label })
			clear()
			if (moveOn && shown) setAthleteId(nextInQueue(queue.map((progress) => (progress === shown ? progressOf(progress.line, [...current, ...written]) : progress)), shown.line.athleteId) ?? shown.line.athleteId)
		} catch {
			setProblem('This device could not keep that: its storage may be full. Nothing was saved; write it down and free some space.')
		} finally {
			writing.current = false
		}
	}

	if (!entry) return <p className="p-6">This sheet has no drills yet. <a className="link" href={`/sessions/${sheet.session.id}`}>To the sheet</a></p>

	const header = (
		<header className="border-b border-chalk">
			<div className="flex items-stretch justify-between text-[14px]">
				<a className="flex min-h-[48px] items-center px-4 underline underline-offset-2" href="/">Today</a>
				<span className="flex items-center px-4 text-right" role="status" aria-label="Where the marks are">
					{log.state === 'sign-in-again' ? <a className="font-bold underline" href={`/sign-in?to=/field/${sheet.session.id}`}>Sign in again; {log.waiting} wait here</a> : <span><b>{log.waiting}</b> only on this device · <b>{log.safe}</b> safe{log.state === 'no-connection' && ' · no connection'}</span>}
				</span>
			</div>
			<div className="flex items-stretch justify-between border-t border-chalk">
				<button type="button" className="min-h-[56px] min-w-[64px] text-[24px] disabled:text-chalk" onClick={() => changeEntry(-1)} disabled={entryIndex <= 0} aria-label="Drill before">‹</button>
				<div className="min-w-0 flex-1 self-center text-center">
					<p className="num truncate text-[17px] font-semibold">{entry.name}</p>
					<div className="mx-auto mt-1 flex w-full max-w-[240px] gap-[3px]" aria-label={`Drill ${entryIndex + 1} of ${sheet.entries.length}`} role="img">{sheet.entries.map((item, index) => <i key={item.id} className={`h-[5px] flex-1 border border-ink ${index <= entryIndex ? 'bg-ink' : ''}`} />)}</div>
				</div>
				<button type="button" className="min-h-[56px] min-w-[64px] text-[24px] disabled:text-chalk" onClick={() => changeEntry(1)} disabled={entryIndex >= sheet.entries.length - 1} aria-label="Drill after">›</button>
			</div>
		</header>
	)

	if (!shown) {
		return (
			<div className="flex min-h-dvh flex-col">{header}<p className="p-6 text-[18px]">Nobody has a line here today. {sheet.lines.some((line) => line.entryId === entryId && line.blocked) && 'Whoever is closed stays out until somebody records who cleared them.'}</p></div>
		)
	}

	const { line } = shown
	const slots = slotsOf(line)
	const active = Math.min(slotAt, Math.max(0, slots.length - 1))
	const slot = slots[active]
	const say = suggestionFor(shown)
	const best = line.logs === 'sprint' ? line.bests[methods.sprint] : undefined
	const expected = (at: Slot) => expectationOf(at.kind, at.distanceM, at.distanceM === line.parameters.distanceM ? best : undefined)
	const readAt = (index: number) => {
		const at = slots[index]
		return at ? readDigits(digits[index] ?? '', expected(at)) : null
	}
	const reads = slots.map((_, index) => readAt(index))
	const complete = slots.length > 0 && (line.logs === 'sprint' ? reads.at(-1) !== null : reads.every((value) => value !== null))
	const place = { athleteId: line.athleteId, entryId: line.entryId, lineId: line.id, ...shown.next }

	const save = () => {
		if (!slot) return
		if (!complete) {
			if (reads[active] !== null && active < slots.length - 1) setSlotAt(active + 1)
			return
		}
		const strange = strangeness(line, slots, reads, best)
		if (strange && odd !== strange) {
			setOdd(strange)
			return
		}
		const wholeOnly = line.logs === 'sprint' && slots.length > 1 && reads[0] === null
		setFirstSlot(wholeOnly ? slots.length - 1 : 0)
		const label = slots.flatMap((at, index) => (reads[index] === null || (line.logs === 'sprint' && index < slots.length - 1) ? [] : [`${reads[index]} ${at.unit}`])).join(', ')
		void keep([{ ...place, type: 'mark', ...valueOf(line, slots, reads, methods) } as NewEvent], label, true)
	}
	const rate = (grade: 'good' | 'not-yet' | 'poor') => {
		if (line.logs === 'done') {
			const reps = setReps ?? Math.min(line.dose.reps, Math.max(1, line.dose.reps - shown.next.repNo + 1))
			void keep([
				{ ...place, type: 'mark', kind: 'done', value: { reps } },
				{ ...place, type: 'observation', kind: 'quality', value: { grade, scope: 'set' } },
			], `${reps} reps, ${grade.replace('-', ' ')}`, true)
			return
		}
		const rep = last?.events.find((event) => event.type === 'mark' && event.entryId === entryId)
		if (!rep || rep.type !== 'mark') return
		void keep([{ athleteId: rep.athleteId, entryId: rep.entryId, lineId: rep.lineId, setNo: rep.setNo, repNo: rep.repNo, type: 'observation', kind: 'quality', value: { grade, scope: 'rep' } }], grade.replace('-', ' '), false).then(() => setLast((before) => (before ? { events: [rep, ...before.events], label: last?.label ?? '' } : before)))
	}
	const undo = async () => {
		if (!last || writing.current) return
		writing.current = true
		try {
			await log.takeBack(last.events)
			const [first] = last.events
			setLast(null)
			if (first) goTo(first.athleteId)
		} finally {
			writing.current = false
		}
	}
	const lastRep = last?.events.find((event) => event.type === 'mark')
	// Until the device's store is open nothing can be kept, so nothing can be tapped.
	const mayRate = log.ready && (line.logs === 'done' ? !shown.finished : lastRep !== undefined && 'entryId' in lastRep && lastRep.entryId === entryId)
	const recent = shown.marks.slice(-3)
	const rated = lastRep ? current.some((event) => event.type === 'observation' && event.kind === 'quality' && event.athleteId === lastRep.athleteId && event.entryId === lastRep.entryId && event.setNo === lastRep.setNo && event.repNo === lastRep.repNo) : false

	return (
		<div className="mx-auto flex min-h-dvh max-w-[760px] flex-col">
			{header}
			{!log.lasting && <p className="border-b border-chalk bg-attn px-4 py-2 font-bold text-paper">This browser cannot keep marks on the device: they are sent at once, and lost if that fails. Open Dromos over a secure address.</p>}
			{log.refused.map((row) => (
				<p key={row.event.id} className="flex items-center justify-between gap-3 border-b border-chalk px-4 py-1" role="alert"><span><b>Not taken by the server:</b> {nameOf(row.event.athleteId)}, {row.reason}</span><button type="button" className="btn btn-quiet" onClick={() => void log.dismiss(row.event.id)}>Take off</button></p>
			))}
			{log.conflicts.map((heads) => (
				<div key={heads.map((event) => event.id).join()} className="flex flex-wrap items-center gap-2 border-b border-chalk px-4 py-1.5" role="alert">
					<span className="flex-1"><b>{nameOf(heads[0]?.athleteId ?? '')}:</b> two corrections contradict each other. Which one holds?</span>
					{heads.map((event) => <button key={event.id} type="button" className="btn btn-quiet min-h-[52px]" onClick={() => void log.takeBack(heads.filter((other) => other !== event))}>{event.void ? 'taken back' : sayEvent(event)}</button>)}
				</div>
			))}
			{problem && <p className="bg-attn px-4 py-2 font-bold text-paper" role="alert">{problem}</p>}

			<section className="px-4 pt-2" aria-label="On the line">
				<div className="flex items-baseline justify-between gap-3">
					<h1 className="min-w-0 truncate text-[32px]" style={{ fontStretch: '100%' }}>{nameOf(line.athleteId)}</h1>
					<span className="num shrink-0 text-[17px] font-semibold" data-testid="rep">{shown.finished ? `${shown.repsDone} of ${shown.planned}` : line.dose.sets > 1 ? `set ${shown.next.setNo} of ${line.dose.sets}, rep ${shown.next.repNo}` : `rep ${shown.next.repNo} of ${line.dose.reps}`}</span>
				</div>
				<p className="text-[15px]">{line.words}, {line.dose.sets}×{line.dose.reps}</p>
				<ol className="mt-1.5 flex min-h-[54px] list-none gap-1" aria-label="Marks so far">
					{recent.map((event, index) => {
						const evidence = markEvidence(event, line.parameters.distanceM)
						const at = shown.marks.length - recent.length + index
						const percent = shown.dropOff?.percents[shown.marks.slice(0, at + 1).filter((mark) => markEvidence(mark, line.parameters.distanceM) !== null).length - 1]
						return (
							<li key={event.id} className="num flex-1 border-b-[3px] border-ink px-1 pb-1 text-[20px] font-semibold">
								{evidence ? writeMark(evidence) : event.kind === 'done' ? `${event.value.reps} reps` : 'missed'}
								<small className="block text-[13px] leading-tight font-normal" style={{ fontFamily: 'var(--font-text)' }}>{evidence && percent !== undefined ? (percent === 0 ? (evidence.value === shown.dropOff?.best ? 'best' : 'best then') : `+${writePercent(percent)}`) : ' '}</small>
							</li>
						)
					})}
					{!shown.finished && <li className="num flex-1 border-b-[3px] border-dashed border-ink px-1 pb-1 text-[20px] text-ink-2">—<small className="block text-[13px] leading-tight" style={{ fontFamily: 'var(--font-text)' }}>{slots.length > 0 ? expectLabel(expected(slots.at(-1)!), slots.at(-1)!.unit) : 'next set'}</small></li>}
				</ol>
			</section>

			<div className="mx-4 mt-2 flex items-center justify-between gap-3 border-2 border-ink px-3 py-2 text-[16px] leading-snug" role="status" aria-label="Suggestion">
				<p>{odd ? <><b>{odd}</b> Save again to keep it.</> : <><b>{say.lead}</b> {say.rest}</>}</p>
				{say.endTheSet && !odd && <button type="button" className="btn min-h-[64px] shrink-0" onClick={() => void keep([{ athleteId: line.athleteId, entryId: line.entryId, lineId: line.id, type: 'decision', kind: 'end-set', value: { reason: 'drop-off' } }], 'set ended', true)}>End the set</button>}
			</div>
			{line.cautions.length > 0 && shown.repsDone === 0 && <p className="mx-4 mt-2 border-l-4 border-ink pl-3 text-[14px]">{sentences(line.cautions)}</p>}

			{slots.length > 0 ? (
				<>
					<div className="flex items-end justify-between gap-2 px-4 pt-2 pb-1">
						{slots.map((at, index) => (
							<button key={at.name} type="button" className={`num min-h-[64px] min-w-0 flex-1 border-b-[3px] text-left leading-none ${index === active ? 'border-act' : 'border-transparent'}`} onClick={() => setSlotAt(index)} aria-pressed={index === active}>
								<span className={`block truncate font-semibold ${slots.length > 1 ? 'text-[38px]' : 'text-[54px]'}`} data-testid={`value-${index}`}>{reads[index] === null ? (digits[index] || '–') : showRead(reads[index]!, at)} <span className="text-[18px] font-medium">{at.unit}</span></span>
								<span className="block pt-1 text-[14px]" style={{ fontFamily: 'var(--font-text)' }}>{at.name}</span>
							</button>
						))}
						<label className="grid w-[104px] shrink-0 text-[13px]">by
							<select className="min-h-[48px] w-full border border-ink bg-paper px-1 text-[15px]" value={methods[line.logs === 'done' ? 'sprint' : line.logs]} onChange={(event) => line.logs !== 'done' && setMethods({ ...methods, [line.logs]: event.target.value })} aria-label="Taken by">
								{line.logs !== 'done' && METHODS[line.logs].map((method) => <option key={method} value={method}>{METHOD_NAMES[method]}</option>)}
							</select>
						</label>
					</div>
					<NumberPad
						disabled={!log.ready || (shown.finished && !complete && digits.every((text) => text === ''))}
						onDigit={(digit) => { setOdd(null); setDigits(slots.map((_, index) => (index === active ? `${digits[index] ?? ''}${digit}`.slice(0, 7) : (digits[index] ?? '')))) }}
						onDelete={() => { setOdd(null); setDigits(slots.map((_, index) => (index === active ? (digits[index] ?? '').slice(0, -1) : (digits[index] ?? '')))) }}
						onSave={save}
						onMissed={() => void keep([{ ...place, type: 'mark', kind: 'missed', value: {} }], 'missed', true)}
						onUntimed={() => void keep([{ ...place, type: 'mark', kind: 'done', value: { reps: 1 } }], 'no number', true)}
						onUndo={() => void undo()}
						undoLabel={last?.label ?? null}
						saveLabel={complete ? 'Save' : active < slots.length - 1 ? 'Next' : 'Save'}
					/>
					<p className="px-4 pt-1.5 text-[14px]" aria-live="polite">{lastRep ? <>Last: <b>{nameOf(lastRep.athleteId)}</b>, {last?.label}{rated && ', judged'}</> : 'Quality goes to the last rep saved.'}</p>
				</>
			) : (
				<div className="flex flex-1 flex-col justify-end gap-2 px-4 py-2">
					<div className="flex flex-1 flex-col justify-center gap-2 py-2 text-[17px] leading-snug">
						<p>{sentences(line.cues)}</p>
						<p className="text-ink-2">Look for: {sentences([line.lookFor.join('; ').toLowerCase()])}</p>
					</div>
					<div className="flex items-center justify-center gap-4">
						<button type="button" className="num min-h-[72px] w-[84px] border border-ink text-[30px]" aria-label="One rep fewer" onClick={() => setSetReps(Math.max(1, (setReps ?? line.dose.reps) - 1))}>−</button>
						<p className="num text-center text-[54px] leading-none font-semibold">{setReps ?? Math.min(line.dose.reps, Math.max(1, line.dose.reps - shown.next.repNo + 1))}<span className="block pt-1 text-[16px] font-medium">reps done in this set</span></p>
						<button type="button" className="num min-h-[72px] w-[84px] border border-ink text-[30px]" aria-label="One rep more" onClick={() => setSetReps(Math.min(60, (setReps ?? line.dose.reps) + 1))}>+</button>
					</div>
					<div className="grid grid-cols-2 gap-2">
						<button type="button" className="num min-h-[64px] border border-ink text-[16px] font-semibold disabled:text-ink-2" disabled={last === null} onClick={() => void undo()}>Undo{last && <span className="block text-[13px] font-normal">{last.label}</span>}</button>
						<button type="button" className="num min-h-[64px] border border-ink text-[16px] font-semibold disabled:text-ink-2" disabled={!log.ready || shown.finished} onClick={() => void keep([{ ...place, type: 'mark', kind: 'done', value: { reps: setReps ?? line.dose.reps } }], 'done, not judged', true)}>Done, not judged</button>
					</div>
					<p className="text-center text-[14px]">Set done, and it was …</p>
				</div>
			)}

			<div className="grid grid-cols-4 border-t border-chalk">
				{([['good', 'Good'], ['not-yet', 'Not yet'], ['poor', 'Poor']] as const).map(([grade, label]) => (
					<button key={grade} type="button" className="num flex min-h-[64px] flex-col items-center justify-center gap-1 border-r border-chalk text-[15px] font-semibold disabled:text-ink-2" disabled={!mayRate} onClick={() => rate(grade)}>
						<svg className="glyph" viewBox="0 0 24 16" width="24" height="16" aria-hidden="true"><circle cx="12" cy="8" r="6" fill={grade === 'good' ? 'currentColor' : 'none'} />{grade === 'not-yet' && <path d="M12 2a6 6 0 0 1 0 12z" fill="currentColor" />}</svg>
						{label}
					</button>
				))}
				<button type="button" className="num flex min-h-[64px] flex-col items-center justify-center gap-1 text-[15px] font-semibold text-attn disabled:text-ink-2" disabled={!log.ready} onClick={() => setPanel('pain')}>
					<svg className="glyph" viewBox="0 0 24 16" width="24" height="16" aria-hidden="true"><path d="M12 1L20 15H4Z" /></svg>Pain
				</button>
			</div>
			<button type="button" className="flex min-h-[56px] items-center justify-between gap-2 border-t border-chalk px-4 pb-[env(safe-area-inset-bottom)] text-[15px]" onClick={() => setPanel('queue')} aria-label="Queue">
				{upNext(queue, shown.line.athleteId).map((progress) => <span key={progress.line.id} className="truncate"><b>{shortName(nameOf(progress.line.athleteId))}</b> {restLabel(progress, now)}</span>)}
				{queue.every((progress) => progress.finished) && <span>Everybody is done here; the next drill is ›</span>}
				<span className="shrink-0 underline">all {queue.length}</span>
			</button>

			{panel === 'pain' && (
				<PainPanel name={nameOf(line.athleteId)} onClose={() => setPanel(null)} onSave={(pain) => {
					setPanel(null)
					void keep([{ athleteId: line.athleteId, entryId: line.entryId, lineId: line.id, type: 'observation', kind: 'pain', value: { ...pain, moment: 'during' } }], `pain ${pain.score}`, false)
				}} />
			)}
			{panel === 'queue' && (
				<QueuePanel
					queue={queue} away={[...away].map((id) => ({ id, name: nameOf(id) }))} nameOf={nameOf} now={now}
					onPick={(id) => { setPanel(null); goTo(id) }}
					onAttendance={(id, present) => {
						const before = current.filter((event) => event.type === 'decision' && event.kind === 'attendance' && event.athleteId === id)
						if (present) void log.takeBack(before)
						else void log.write([{ athleteId: id, type: 'decision', kind: 'attendance', value: { present: false } }])
					}}
					onClose={() => setPanel(null)}
				/>
			)}
		</div>
	)
}

/** An event in a breath: "3.12 s", "pain 3 of 10", "good". */
function sayEvent(event: LogEvent): string {
	const evidence = markEvidence(event, undefined)
	if (evidence) return writeMark(evidence)
	if (event.type === 'observation') return observed(event)
	if (event.type === 'mark') return event.kind === 'done' ? `${event.value.reps} reps` : 'missed'
	return event.kind === 'attendance' ? (event.value.present ? 'here' : 'not here') : 'set ended'
}

const shortName = (name: string) => name.replace(/^(\S+)\s+(\S).*$/, '$1 $2.')

function upNext(queue: LineProgress[], currentId: string): LineProgress[] {
	const at = queue.findIndex((progress) => progress.line.athleteId === currentId)
	return [...queue.slice(at + 1), ...queue.slice(0, Math.max(0, at))].filter((progress) => !progress.finished).slice(0, 2)
}

export function restLabel(progress: LineProgress, now: number): string {
	if (progress.finished) return 'done'
	const left = now === 0 ? 0 : restLeft(progress, now)
	return left === 0 ? 'ready' : `${Math.floor(left / 60)}:${String(left % 60).padStart(2, '0')}`
}

function observed(event: Observation): string {
	if (event.kind === 'pain') return `pain ${event.value.score} of 10`
	if (event.kind === 'comfort') return `comfort ${event.value.worst} of 5${event.value.braking ? ', braking' : ''}`
	if (event.kind === 'effort') return `effort ${event.value.rpe} of 10`
	return event.value.grade.replace('-', ' ')
}
