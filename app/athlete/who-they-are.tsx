import { ATHLETE_TYPES, type AthleteType, type Family, type Level, TYPE_NAMES } from '#core/vocabulary/words'
import { useUnits } from '../field/units'
import { FamilyMark } from '../ui/glyphs'
import { MeanwhileNote } from '../ui/meanwhile-note'
import { PostForm } from '../ui/post-form'
import { Said } from '../ui/said'
import { DayField, TextField } from '../ui/text-field'
import type { AthleteAnswer } from './answer'

/** What somebody is called and when they were born. */
export function NameForm({
	athlete,
	version,
	answer,
}: {
	athlete: { name: string; birthDate: string | null }
	version: number
	answer: AthleteAnswer | undefined
}) {
	const overtaken = answer?.which === 'identity' ? answer.meanwhile : undefined
	const { name, birthDate } = answer?.problems ?? {}
	return (
		<details className="mb-5" open={overtaken !== undefined || name !== undefined || birthDate !== undefined}>
			<summary className="link inline-flex min-h-[44px] items-center">Name and birth date</summary>
			<PostForm preventScrollReset key={version} className="grid gap-3 pt-1">
				<input type="hidden" name="version" value={version} />
				<TextField label="Name" name="name" required defaultValue={athlete.name} problem={name} />
				<DayField label="Born" name="birthDate" defaultValue={athlete.birthDate ?? ''} problem={birthDate} />
				<button className="btn btn-quiet justify-self-start" name="do" value="identity">
					Keep
				</button>
				{overtaken && <MeanwhileNote overtaken={overtaken} />}
			</PostForm>
			{answer?.which === 'identity' && <Said answer={{ ...answer, meanwhile: undefined }} />}
		</details>
	)
}

/** What they weigh; who does not set it reads the band it lies in. */
export function BodyMass({
	athlete,
	version,
	mayChange,
	answer,
}: {
	athlete: { massKg: number | null; bands: string }
	version: number
	mayChange: boolean
	answer: AthleteAnswer | undefined
}) {
	const { asRead, typed } = useUnits()
	return (
		<>
			<h2>Body mass</h2>
			{mayChange ? (
				<PostForm preventScrollReset className="mt-2 flex flex-wrap items-center gap-2">
					<input type="hidden" name="version" value={version} />
					<input
						className="input num w-[90px]"
						name="mass"
						inputMode="decimal"
						defaultValue={athlete.massKg === null ? '' : typed('body').write(athlete.massKg)}
						key={athlete.massKg}
						aria-label={`Body mass, ${typed('body').unit}`}
					/>
					<span>{typed('body').unit}</span>
					<button className="btn btn-quiet">Set</button>
					<input type="hidden" name="do" value="mass" />
					<Said answer={answer?.which === 'mass' ? answer : undefined} />
				</PostForm>
			) : (
				<p className="rule mt-2 py-2">{asRead(athlete.bands.split(', ')[1] ?? '')}</p>
			)}
			{answer?.problems.mass && (
				<p className="problem" role="alert">
					{answer.problems.mass}
				</p>
			)}
			{athlete.bands.endsWith('unknown') && (
				<p className="dim mt-1 text-[13.5px]">{asRead('Unknown: no box over 45 cm, the strictest row.')}</p>
			)}
		</>
	)
}

/** What a type changes. */
const TYPE_DOES = {
	none: 'Proposals take nothing away.',
	stiff: 'Proposals have a third fewer springs and rebounds, and all of the slow work.',
	slow: 'Proposals have all the springs, and half the slow work.',
}

/** How they are built, as the coach says and as their measures say. */
export function TypeForm({
	built,
	version,
	answer,
}: {
	built: { type: AthleteType | null; proposal: { type: AthleteType; why: string } | null }
	version: number
	answer: AthleteAnswer | undefined
}) {
	return (
		<section>
			<h2>Type</h2>
			<PostForm preventScrollReset className="mt-2 flex flex-wrap items-center gap-2">
				<input type="hidden" name="version" value={version} />
				<select
					className="input w-[260px]"
					name="type"
					defaultValue={built.type ?? ''}
					key={built.type}
					aria-label="Type"
				>
					<option value="">nothing stands out</option>
					{ATHLETE_TYPES.map((type) => (
						<option key={type} value={type}>
							{TYPE_NAMES[type]}
						</option>
					))}
				</select>
				<button className="btn btn-quiet">Set</button>
				<input type="hidden" name="do" value="type" />
				<Said answer={answer?.which === 'type' ? answer : undefined} />
			</PostForm>
			{built.proposal && (
				<p className="mt-1 text-[14.5px]">
					The measures say <b>{TYPE_NAMES[built.proposal.type]}</b>: {built.proposal.why}.
				</p>
			)}
			<p className="dim mt-1 text-[13.5px]">{TYPE_DOES[built.type ?? 'none']} Only who plans sees this.</p>
		</section>
	)
}

/** The level in each family, and which is due by what was passed. */
export function Levels({
	levels,
	mayChange,
	answer,
}: {
	levels: readonly {
		family: Family
		version: number
		level: Level
		proposal: { level: Level; because: readonly string[] } | null
	}[]
	mayChange: boolean
	answer: AthleteAnswer | undefined
}) {
	const { asRead } = useUnits()
	return (
		<section>
			<h2>Level by family</h2>
			<ul className="mt-2">
				{levels.map(({ family, version, level, proposal }) => (
					<li key={family} className="rule flex min-h-[44px] flex-wrap items-center justify-between gap-2 py-1">
						<span className="flex items-center gap-2.5">
							<FamilyMark family={family} />
							{family}
						</span>
						{mayChange ? (
							<PostForm preventScrollReset className="flex items-center gap-2">
								<input type="hidden" name="family" value={family} />
								<input type="hidden" name="version" value={version} />
								<select
									name="level"
									className="input w-auto"
									defaultValue={level}
									key={level}
									aria-label={`Level, ${family}`}
								>
									{[1, 2, 3].map((value) => (
										<option key={value}>{value}</option>
									))}
								</select>
								<input type="hidden" name="do" value="level" />
								<button className="btn btn-quiet" aria-label={`Set level, ${family}`}>
									Set
								</button>
								<Said answer={answer?.which === family ? answer : undefined} />
							</PostForm>
						) : (
							<b className="num">{level}</b>
						)}
						{proposal && (
							<p className="basis-full text-[14px]">
								<b>Level {proposal.level} is due</b>: {asRead(proposal.because.join(', ').toLowerCase())} passed. You
								decide.
							</p>
						)}
					</li>
				))}
			</ul>
		</section>
	)
}
