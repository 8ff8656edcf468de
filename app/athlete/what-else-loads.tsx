import { shortDay } from '#core/calendar/say-day'
import { OUTSIDE_NAMES, type OutsideKind, type Lift, sayLift } from '#core/judge/outside-load'
import { useUnits } from '../field/units'
import { useLocal } from '../ui/local'
import { PostForm } from '../ui/post-form'
import { WhatIs } from '../ui/what-is'
import { OutsideForm } from './outside-form'

interface Outside {
	id: string
	kind: OutsideKind
	day: string
	startTime: string
	minutes: number
	rpe: number | null
	hardRunning: boolean
	hardCutting: boolean
	hardJumping: boolean
	lifts: readonly Lift[] | null
	recordedBy: string
}

/** Matches, practice and gym of the last weeks, and the form to enter one. */
export function WhatElseLoads({
	outside,
	load,
	mayEnter,
	mayTakeBack,
	problem,
}: {
	outside: readonly Outside[]
	load: { load: number; monotony: number | null; strain: number | null } | null
	mayEnter: boolean
	mayTakeBack: (row: Outside) => boolean
	problem: string | undefined
}) {
	const { time } = useLocal()
	const { asRead } = useUnits()
	return (
		<section>
			<h2>What else loads</h2>
			{load && load.monotony !== null && (
				<p className="rule mt-2 py-2">
					The last seven days: <b className="num">{Math.round(load.load)}</b> effort minutes, monotony{' '}
					<b className="num">{load.monotony.toFixed(1)}</b>, strain{' '}
					<b className="num">{Math.round(load.strain ?? 0)}</b>. <WhatIs term="monotony" />
				</p>
			)}
			{outside.length === 0 ? (
				<p className="rule dim mt-2 py-2">No match, practice or gym in four weeks.</p>
			) : (
				<ul className="mt-2">
					{outside.map((row) => (
						<li key={row.id} className="rule flex items-center justify-between gap-2 py-1">
							<span>
								{OUTSIDE_NAMES[row.kind]}, {row.minutes} min{row.rpe !== null && `, effort ${row.rpe}`}
								{row.lifts && <span className="block">{asRead(row.lifts.map(sayLift).join('; '))}</span>}
								<span className="dim block text-[13px]">
									{shortDay(row.day)}, {time(row.startTime)}
									{row.hardRunning && ' · hard running'}
									{row.hardCutting && ' · hard cutting'}
									{row.hardJumping && ' · hard jumping'}
								</span>
							</span>
							{mayTakeBack(row) && (
								<PostForm preventScrollReset>
									<input type="hidden" name="outside" value={row.id} />
									<button
										className="link min-h-[44px] text-[13.5px] whitespace-nowrap"
										name="do"
										value="outside-back"
										aria-label={`Take back: ${OUTSIDE_NAMES[row.kind]}, ${shortDay(row.day)}`}
									>
										Take back
									</button>
								</PostForm>
							)}
						</li>
					))}
				</ul>
			)}
			{mayEnter && <OutsideForm problem={problem} />}
		</section>
	)
}
