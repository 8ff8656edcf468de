import { memo, useRef, useState } from 'react'
import type { Library } from '#core/vocabulary/library'
import type { BuildPack } from '#core/plan/build-pack'
import { type Proposal, sayShortfall, sayShortfalls } from '#core/plan/propose-session'
import type { ThemeId } from '#core/vocabulary/ids'
import { DAY_ROLES, type DayRole } from '#core/vocabulary/session'
import type { Theme } from '#core/vocabulary/theme'
import { sayTheme, themeOn, themesFor } from '#core/plan/themes'
import { QUALITY_NAMES } from '#core/plan/targets'
import { QUALITY_OF } from '#core/vocabulary/entry'
import { sayProposalChange } from '#core/plan/say-change'
import { type Surface, QUALITIES, type Quality } from '#core/vocabulary/words'
import { ROLE_WORDS } from '../ui/theme-words'
import { type Offer, useProposal } from './use-proposal'
import { useUnits } from '../field/units'

/** Cones, tape and a watch are always there. */
const ALWAYS = ['cones', 'tape', 'gates or timer']

/** What a proposal was made for, beside what the form says already. */
export interface Made {
	theme: ThemeId | null
	/** Where it is for another ground than the form says. */
	surface?: Surface | null
	minutes?: number
}

interface Props {
	pack: BuildPack | null
	library: Library
	minutes: number
	role: DayRole
	onRole: (role: DayRole) => void
	theme: ThemeId | null
	onTheme: (theme: ThemeId | null) => void
	onProposal: (proposal: Proposal, made: Made) => void
	/** Takes the last proposal back; null when there is none. */
	onUndo: (() => void) | null
	proposal: Proposal | null
	priority: Quality | null
	onPriority: (priority: Quality | null) => void
}

const optionsOf = (recipes: readonly Theme[]) =>
	recipes.map(({ id, name }) => (
		<option key={id} value={id}>
			{name}
		</option>
	))

/** From the day's target to a sheet: what the day is for, what stands out, what is at hand. */
export const ProposePanel = memo(function ProposePanel({
	pack,
	library,
	minutes,
	role,
	onRole,
	theme,
	onTheme,
	onProposal,
	onUndo,
	proposal,
	priority,
	onPriority,
}: Props) {
	const { asRead } = useUnits()
	const [lanes, setLanes] = useState(4)
	const [lacking, setLacking] = useState<ReadonlySet<string>>(new Set())
	const [roomM, setRoom] = useState<number | null>(null)
	/** What the proposal under way is about: the form may say something else by the time it comes. */
	const asked = useRef<ThemeId | null>(null)
	/** Of other people or another ground what was worked out says nothing. */
	const [askedOf, setAskedOf] = useState<BuildPack | null>(null)
	const { busy, problem, offers, looking, propose } = useProposal((found) =>
		onProposal(found, { theme: asked.current }),
	)
	const kit = [...new Set(Object.values(library.drills).flatMap((drill) => drill.kit))]
		.filter((one) => !ALWAYS.includes(one))
		.sort()
	const names = new Map(pack?.athletes.map((athlete) => [athlete.id, athlete.name]))
	// Of a day with a theme what is only kept comes as near as it comes: that needs no line.
	const day = themeOn(library.themes, { theme, role })
	const recipes = themesFor(library.themes, role)
	const about = day?.main ?? null
	const shortfalls = (proposal?.shortfalls ?? []).filter(({ quantity }) => {
		const quality = QUALITY_OF[quantity]
		return about === null || quality === about || quality === day?.second
	})
	const ready = pack !== null && pack.athletes.length > 0 && minutes >= 10 && minutes <= 240
	/** @param roomM length of the ground, m; null where there is enough */
	const ask = (wanted: ThemeId | null, without: ReadonlySet<string>, roomM: number | null, on: Surface | null) => {
		if (!pack) return
		asked.current = themeOn(library.themes, { theme: wanted, role })?.id ?? null
		setAskedOf(pack)
		propose({
			pack,
			library,
			options: {
				minutes,
				mostLanes: lanes,
				role,
				priority,
				theme: wanted,
				surface: on,
				roomM,
				kit: new Set([...ALWAYS, ...kit.filter((one) => !without.has(one))]),
			},
		})
	}
	/** What was worked out already is taken as it is. */
	const take = ({ proposal: other, options }: Offer) => {
		if (options.kit) setLacking(new Set(kit.filter((one) => !options.kit!.has(one))))
		setRoom(options.roomM ?? null)
		onProposal(other, {
			theme: themeOn(library.themes, { theme: options.theme ?? null, role })?.id ?? null,
			surface: options.surface ?? null,
			minutes: options.minutes,
		})
	}
	return (
		<section className="border-y-[1.5px] border-ink py-3" aria-label="Proposal">
			<div className="flex flex-wrap items-end gap-3">
				<label className="field w-[150px]">
					<span className="label">The day is for</span>
					<select className="input" value={role} onChange={(event) => onRole(event.target.value as DayRole)}>
						{DAY_ROLES.map((one) => (
							<option key={one} value={one}>
								{ROLE_WORDS[one]}
							</option>
						))}
					</select>
				</label>
				{recipes.length > 1 && (
					<label className="field w-[200px]">
						<span className="label">About</span>
						<select className="input" value={day?.id ?? ''} onChange={(event) => onTheme(event.target.value || null)}>
							{optionsOf(recipes.filter(({ main }) => main === null))}
							{QUALITIES.filter((quality) => recipes.some(({ main }) => main === quality)).map((quality) => (
								<optgroup key={quality} label={QUALITY_NAMES[quality]}>
									{optionsOf(recipes.filter(({ main }) => main === quality))}
								</optgroup>
							))}
						</select>
					</label>
				)}
				<label className={`field w-[150px] ${about ? 'hidden' : ''}`}>
					<span className="label">Priority</span>
					<select
						className="input"
						value={priority ?? ''}
						onChange={(event) => onPriority((event.target.value || null) as Quality | null)}
					>
						<option value="">none</option>
						{QUALITIES.map((one) => (
							<option key={one} value={one}>
								{QUALITY_NAMES[one]}
							</option>
						))}
					</select>
				</label>
				<label className="field w-[120px]">
					<span className="label">Room for lanes</span>
					<select className="input" value={lanes} onChange={(event) => setLanes(Number(event.target.value))}>
						{[1, 2, 3, 4, 5, 6].map((one) => (
							<option key={one}>{one}</option>
						))}
					</select>
				</label>
				<button
					type="button"
					className="btn"
					disabled={!ready || busy}
					onClick={() => ask(theme, lacking, roomM, pack?.surface ?? null)}
				>
					{busy ? 'Looking …' : 'Propose the session'}
				</button>
				{onUndo && (
					<button type="button" className="btn btn-quiet" onClick={onUndo}>
						Take it back
					</button>
				)}
			</div>
			<details className="mt-2">
				<summary className="inline-flex min-h-[36px] max-lg:min-h-[44px] items-center text-[14px]">
					<span className="link">
						{lacking.size === 0 ? 'Everything is at hand' : `Without ${[...lacking].join(', ')}`}
					</span>
				</summary>
				<fieldset className="grid grid-cols-2 gap-x-4 sm:grid-cols-3">
					<legend className="sr-only">Kit at hand</legend>
					{kit.map((one) => (
						<label key={one} className="flex min-h-[40px] max-lg:min-h-[44px] items-center gap-2 text-[14px]">
							<input
								type="checkbox"
								className="size-5 accent-act"
								checked={!lacking.has(one)}
								onChange={(event) =>
									setLacking(
										new Set(event.target.checked ? [...lacking].filter((other) => other !== one) : [...lacking, one]),
									)
								}
							/>
							{asRead(one)}
						</label>
					))}
				</fieldset>
			</details>
			{day && about && <p className="mt-1 text-[14.5px]">{sayTheme(day, QUALITY_NAMES)}</p>}
			{!ready && <p className="dim mt-1 text-[14px]">Pick a squad and who comes; the proposal goes by their rungs.</p>}
			{problem && (
				<p className="problem mt-1" role="alert">
					{problem}
				</p>
			)}
			{proposal && (
				<div className="mt-2" role="status">
					<p>
						<b>
							{new Set(proposal.entries.map(({ part }) => part)).size} pieces, {proposal.entries.length} drills in{' '}
							{Math.round(proposal.minutes)} minutes.
						</b>{' '}
						{shortfalls.length === 0
							? about
								? 'What the day is about is reached within a twentieth.'
								: 'Every target is reached within a twentieth.'
							: `Under its target: ${sayShortfalls(shortfalls)}`}
					</p>
					{shortfalls.length > 0 && (
						<details>
							<summary className="inline-flex min-h-[36px] max-lg:min-h-[44px] items-center text-[14px]">
								<span className="link">Who, and what holds them</span>
							</summary>
							<ul className="gap-x-8 text-[14.5px] sm:columns-2">
								{shortfalls.map((one) => (
									<li key={`${one.quantity}/${one.why}`}>{sayShortfall(one, (id) => names.get(id) ?? 'somebody')}</li>
								))}
							</ul>
						</details>
					)}
					{askedOf === pack && (offers.length > 0 || looking) && (
						<ul className="mt-2" aria-label="Other ways">
							{offers.map((offer) => (
								<li key={offer.id} className="grid items-center gap-x-4 gap-y-0 py-1 sm:grid-cols-[230px_1fr]">
									<button type="button" className="btn btn-quiet" onClick={() => take(offer)}>
										{offer.label}
									</button>
									<span className="text-[14.5px]">{sayProposalChange(proposal, offer.proposal)}</span>
								</li>
							))}
							{looking && <li className="dim py-1 text-[14.5px]">Looking at other ways …</li>}
						</ul>
					)}
				</div>
			)}
		</section>
	)
})
