import { useEffect, useRef, useState } from 'react'
import { Link } from 'react-router'
import { v7 as newId } from 'uuid'
import { MEASURED, benchMethodName } from '#core/calc/measured'
import { repsOf, sendMeasurement } from './send-measurement'
import { DayInput } from '../ui/day-input'

export interface BenchPerson {
	id: string
	name: string
	squads: string[]
	legLengthM: number | null
}

interface Props {
	calculation: string
	/** Inputs to keep, each a measurement of its own; empty while there is nothing to keep. */
	inputs: readonly Record<string, unknown>[]
	people: readonly BenchPerson[]
	today: string
	/** Where two things may be kept side by side: which this is. */
	title?: string
	/** The method is decided by the tool, as by the film. */
	method?: string
	/** It may be of one rep of a session: then the day's reps are offered. */
	ofRep?: boolean
	/** Says where else the choice of method counts. */
	onMethod?: (method: string) => void
}

type Outcome =
	| { kind: 'idle' }
	| { kind: 'sending' }
	| { kind: 'kept'; name: string; athleteId: string }
	| { kind: 'problem'; text: string }

/** Keeps a result with an athlete, with the day and how it was taken. What is typed stays, whatever comes back. */
export function SavePanel({
	calculation,
	inputs,
	people,
	today,
	method: fixedMethod,
	ofRep = false,
	title = 'Keep with an athlete',
	onMethod,
}: Props) {
	const methods = MEASURED[calculation]!.methods
	const [athleteId, setAthleteId] = useState('')
	const [takenOn, setTakenOn] = useState(today)
	const [chosen, setChosen] = useState<string>(methods.length === 1 ? methods[0]! : '')
	const [outcome, setOutcome] = useState<Outcome>({ kind: 'idle' })
	const method = fixedMethod ?? chosen
	const [reps, setReps] = useState<{ id: string; words: string }[]>([])
	const [markId, setMarkId] = useState('')
	useEffect(() => {
		if (!ofRep || athleteId === '') return
		let wanted = true
		void repsOf(athleteId, takenOn).then((found) => {
			if (!wanted) return
			setReps(found)
			setMarkId('')
		})
		return () => {
			wanted = false
		}
	}, [ofRep, athleteId, takenOn])
	// The same content keeps its id over a failed try, so that a second press cannot keep it twice.
	const sent = useRef<{ content: string; ids: string[] }>({ content: '', ids: [] })

	async function keep() {
		setOutcome({ kind: 'sending' })
		const content = JSON.stringify([athleteId, takenOn, method, inputs, markId])
		if (sent.current.content !== content) sent.current = { content, ids: inputs.map(() => newId()) }
		for (const [index, input] of inputs.entries()) {
			const answer = await sendMeasurement({
				id: sent.current.ids[index]!,
				athleteId,
				takenOn,
				calculation,
				method,
				input,
				...(markId === '' ? {} : { markId }),
			})
			if ('problem' in answer) return setOutcome({ kind: 'problem', text: answer.problem })
		}
		setOutcome({
			kind: 'kept',
			name: people.find((person) => person.id === athleteId)?.name ?? 'the athlete',
			athleteId,
		})
	}

	const squads = [...new Set(people.flatMap((person) => person.squads))]
	const missing =
		inputs.length === 0
			? 'Nothing to keep yet.'
			: athleteId === ''
				? 'Choose an athlete.'
				: method === ''
					? 'Say how it was taken.'
					: null
	return (
		<section className="rule mt-8 pt-4" aria-label={title}>
			<h2>{title}</h2>
			<div className="mt-2 grid items-end gap-3 sm:grid-cols-[1fr_150px_160px_auto]">
				<label className="field">
					<span className="label">Athlete</span>
					<select
						className="input"
						value={athleteId}
						onChange={(event) => {
							setAthleteId(event.target.value)
							setOutcome({ kind: 'idle' })
						}}
					>
						<option value="">Choose</option>
						{squads.map((squad) => (
							<optgroup key={squad} label={squad}>
								{people
									.filter((person) => person.squads[0] === squad)
									.map((person) => (
										<option key={person.id} value={person.id}>
											{person.name}
										</option>
									))}
							</optgroup>
						))}
					</select>
				</label>
				<label className="field">
					<span className="label">Taken with</span>
					{fixedMethod || methods.length === 1 ? (
						<output className="input flex items-center">{benchMethodName(method)}</output>
					) : (
						<select
							className="input"
							value={chosen}
							onChange={(event) => {
								setChosen(event.target.value)
								onMethod?.(event.target.value)
							}}
						>
							<option value="">Choose</option>
							{methods.map((one) => (
								<option key={one} value={one}>
									{benchMethodName(one)}
								</option>
							))}
						</select>
					)}
				</label>
				<label className="field">
					<span className="label">On</span>
					<DayInput value={takenOn} max={today} onValue={setTakenOn} />
				</label>
				<button
					type="button"
					className="btn"
					disabled={missing !== null || outcome.kind === 'sending'}
					onClick={() => void keep()}
				>
					{outcome.kind === 'sending' ? 'Keeping …' : 'Keep'}
				</button>
			</div>
			{ofRep && athleteId !== '' && reps.length > 0 && (
				<label className="field mt-3 max-w-[560px]">
					<span className="label">Of which rep</span>
					<select className="input" value={markId} onChange={(event) => setMarkId(event.target.value)}>
						<option value="">of none, at the bench</option>
						{reps.map(({ id, words }) => (
							<option key={id} value={id}>
								{words}
							</option>
						))}
					</select>
				</label>
			)}
			<p className="mt-2 min-h-[22px] text-[14px]" aria-live="polite">
				{outcome.kind === 'kept' ? (
					<>
						Kept with{' '}
						<Link className="link" to={`/athletes/${outcome.athleteId}`}>
							{outcome.name}
						</Link>
						{inputs.length > 1 && `, ${inputs.length} marks`}.
					</>
				) : outcome.kind === 'problem' ? (
					<span className="problem" role="alert">
						{outcome.text}
					</span>
				) : (
					<span className="dim">{missing}</span>
				)}
			</p>
		</section>
	)
}
