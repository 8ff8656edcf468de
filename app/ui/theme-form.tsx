import { useState } from 'react'
import { useNavigation } from 'react-router'
import { QUALITY_OF, QUANTITIES, type Quantity } from '#core/vocabulary/entry'
import type { Dose } from '#core/vocabulary/dose'
import type { Drill } from '#core/vocabulary/drill'
import type { Ladder } from '#core/vocabulary/ladder'
import { type DrillPiece, type LadderPiece, THEME_ROLES, type Theme, type ThemePiece } from '#core/vocabulary/theme'
import { type Level, LEVELS, QUALITIES, type Quality } from '#core/vocabulary/words'
import { QUALITY_NAMES } from '#core/plan/targets'
import { readNumber } from '#core/measure/read-number'
import { idFrom } from './id-from'
import { MeanwhileNote, type Overtaken } from './meanwhile-note'
import { PostForm } from './post-form'
import { BLOCK_PHASES, ROLE_WORDS } from './theme-words'

interface Props {
	theme: Theme
	isNew: boolean
	drills: Pick<Drill, 'id' | 'name' | 'defaults'>[]
	/** Those that are climbed, without the ways back. */
	ladders: Pick<Ladder, 'id' | 'name'>[]
	problems: Record<string, string>
	/** What somebody else has saved since the form was filled. */
	overtaken?: Overtaken | undefined
}

const SHORT: Record<Quantity, string> = {
	fastMetres: 'm fast',
	contacts: 'contacts',
	cuts60: 'cuts ≥ 60°',
	throws: 'throws',
}
const SECTIONS = [
	['opening', 'What prepares'],
	['pieces', 'What it is about'],
	['kept', 'What it keeps'],
	['closing', 'What closes'],
] as const
/** Of what a full day would ask. */
const SHARES = [1, 0.75, 0.5, 0.25]
type Section = (typeof SECTIONS)[number][0]
const KINDS = { ladder: 'a ladder', forms: 'a drill by level', drill: 'a drill as it is' } as const
type Kind = keyof typeof KINDS
const kindOf = (piece: ThemePiece): Kind => ('ladderId' in piece ? 'ladder' : 'forms' in piece ? 'forms' : 'drill')

/** The recipe of a session: its parts in order, each of its pieces in a row. */
export function ThemeForm({ theme, isNew, drills, ladders, problems, overtaken }: Props) {
	const [draft, setDraft] = useState(theme)
	const busy = useNavigation().state !== 'idle'
	const set = (change: Partial<Theme>) => setDraft({ ...draft, ...change })
	const isHard = draft.role === 'hard'
	const setRole = (role: Theme['role']) =>
		set(
			role === 'hard'
				? { role, main: draft.main ?? 'sprint' }
				: { role, main: null, second: null, kept: [], inBlock: {}, ...(role === 'light' ? {} : { share: 1 }) },
		)
	const setPieces = (section: Section, pieces: ThemePiece[]) => set({ [section]: pieces } as Partial<Theme>)
	const problemAt = (field: string) =>
		problems[field] && (
			<p className="problem" role="alert">
				{problems[field]}
			</p>
		)
	return (
		<PostForm className="grid gap-4" keep="theme">
			<input
				type="hidden"
				name="document"
				value={JSON.stringify({ ...draft, id: isNew ? idFrom(draft.name) : draft.id })}
			/>
			<div className="grid gap-3 md:grid-cols-[1fr_160px_160px_160px]">
				<label className="field">
					<span className="label">Name</span>
					<input
						className="input"
						value={draft.name}
						maxLength={60}
						required
						onChange={(event) => set({ name: event.target.value })}
					/>
					{problemAt('name')}
					{isNew && problemAt('id')}
				</label>
				<label className="field">
					<span className="label">The day is for</span>
					<select
						className="input"
						value={draft.role}
						onChange={(event) => setRole(event.target.value as Theme['role'])}
					>
						{THEME_ROLES.map((role) => (
							<option key={role} value={role}>
								{ROLE_WORDS[role]}
							</option>
						))}
					</select>
				</label>
				{isHard && (
					<>
						<label className="field">
							<span className="label">About, up to its target</span>
							<select
								className="input"
								value={draft.main ?? ''}
								onChange={(event) => {
									const main = (event.target.value || null) as Quality | null
									// A day for everything has no second, keeps nothing beside and no turn in a block.
									set(main === null ? { main, second: null, kept: [], inBlock: {} } : { main })
								}}
							>
								<option value="">everything a little</option>
								{QUALITIES.map((quality) => (
									<option key={quality} value={quality}>
										{QUALITY_NAMES[quality]}
									</option>
								))}
							</select>
							{problemAt('main')}
						</label>
						{draft.main !== null && (
							<label className="field">
								<span className="label">Second</span>
								<select
									className="input"
									value={draft.second ?? ''}
									onChange={(event) => set({ second: (event.target.value || null) as Quality | null })}
								>
									<option value="">nothing</option>
									{QUALITIES.filter((quality) => quality !== draft.main).map((quality) => (
										<option key={quality} value={quality}>
											{QUALITY_NAMES[quality]}
										</option>
									))}
								</select>
								{problemAt('second')}
							</label>
						)}
					</>
				)}
				{(isHard || draft.role === 'light') && (
					<label className="field">
						<span className="label">Of a full day</span>
						<select
							className="input"
							value={draft.share ?? 1}
							onChange={(event) => set({ share: Number(event.target.value) })}
						>
							{[...new Set([...SHARES, draft.share ?? 1])]
								.sort((a, b) => b - a)
								.map((share) => (
									<option key={share} value={share}>
										{Math.round(share * 100)} %
									</option>
								))}
						</select>
					</label>
				)}
				<label className="field sm:col-span-full">
					<span className="label">What it is for</span>
					<textarea
						className="input"
						rows={2}
						maxLength={400}
						required
						value={draft.about}
						onChange={(event) => set({ about: event.target.value })}
					/>
					{problemAt('about')}
				</label>
			</div>
			{isHard && draft.main !== null && (
				<fieldset>
					<legend className="label">A day of a block, in its turn among the themes of its quality</legend>
					<div className="flex flex-wrap gap-3">
						{BLOCK_PHASES.map((phase) => (
							<label key={phase} className="field w-[150px]">
								<span className="label capitalize">{phase}</span>
								<select
									className="input"
									value={draft.inBlock[phase] ?? ''}
									onChange={(event) => {
										const { [phase]: _old, ...others } = draft.inBlock
										set({
											inBlock: event.target.value ? { ...others, [phase]: Number(event.target.value) } : others,
										})
									}}
								>
									<option value="">no turn</option>
									{[1, 2, 3, 4, 5, 6, 7, 8, 9].map((turn) => (
										<option key={turn}>{turn}</option>
									))}
								</select>
							</label>
						))}
					</div>
					{problemAt('inBlock')}
				</fieldset>
			)}
			{SECTIONS.filter(([section]) => (isHard && draft.main !== null) || section !== 'kept').map(([section, title]) => (
				<Pieces
					key={section}
					title={title}
					section={section}
					pieces={draft[section]}
					onPieces={(pieces) => setPieces(section, pieces)}
					drills={drills}
					ladders={ladders}
					quantity={QUANTITIES.find((one) => QUALITY_OF[one] === draft.main) ?? null}
					problems={problems}
				/>
			))}
			{problemAt('document')}
			<div>
				<button className="btn" disabled={busy || draft.pieces.length === 0}>
					{busy ? 'Keeping …' : isNew ? 'Keep the theme' : 'Keep the change'}
				</button>
			</div>
			{overtaken && <MeanwhileNote overtaken={overtaken} />}
		</PostForm>
	)
}

interface PiecesProps extends Pick<Props, 'drills' | 'ladders' | 'problems'> {
	title: string
	section: Section
	pieces: readonly ThemePiece[]
	onPieces: (pieces: ThemePiece[]) => void
	/** What a piece of what the day is about is there for. */
	quantity: Quantity | null
}

function Pieces({ title, section, pieces, onPieces, drills, ladders, quantity, problems }: PiecesProps) {
	const replace = (index: number, piece: ThemePiece) => onPieces(pieces.map((one, at) => (at === index ? piece : one)))
	const move = (index: number, by: number) => {
		const moved = [...pieces]
		moved.splice(index + by, 0, ...moved.splice(index, 1))
		onPieces(moved)
	}
	const own = (drillId: string) => drills.find(({ id }) => id === drillId)?.defaults.dose
	const fresh = (kind: Kind, part: string): ThemePiece => {
		if (kind === 'ladder') return { part, ladderId: ladders[0]!.id, quantity } satisfies LadderPiece
		if (kind === 'drill') return { part, drillId: drills[0]!.id } satisfies DrillPiece
		return { part, forms: [{ level: 1, drillId: drills[0]!.id }], quantity: quantity ?? 'fastMetres' }
	}
	return (
		<fieldset>
			<legend className="text-[17px] font-bold">{title}</legend>
			<ol>
				{pieces.map((piece, index) => {
					const kind = kindOf(piece)
					const called = `${title} ${index + 1}`
					return (
						<li
							key={index}
							className="rule grid grid-cols-2 items-end gap-2 py-2 lg:grid-cols-[minmax(130px,1fr)_150px_minmax(360px,3fr)_140px_auto]"
						>
							<label className="field">
								<span className="label">Piece</span>
								<input
									className="input"
									value={piece.part}
									maxLength={40}
									aria-label={`${called}, name`}
									onChange={(event) => replace(index, { ...piece, part: event.target.value })}
								/>
							</label>
							<label className="field">
								<span className="label">Is</span>
								<select
									className="input"
									value={kind}
									disabled={section === 'kept'}
									aria-label={`${called}, is`}
									onChange={(event) => replace(index, fresh(event.target.value as Kind, piece.part))}
								>
									{(Object.keys(KINDS) as Kind[]).map((one) => (
										<option key={one} value={one}>
											{KINDS[one]}
										</option>
									))}
								</select>
							</label>
							{'forms' in piece ? (
								<div className="col-span-2 grid gap-2 sm:grid-cols-4 lg:col-span-1">
									{LEVELS.map((level) => (
										<Picker
											key={level}
											label={level === 1 ? 'Level 1' : `From level ${level}`}
											called={called}
											all={drills}
											value={formAt(piece.forms, level)}
											none={piece.forms.length > 1 || piece.forms[0]!.level !== level ? 'as below' : undefined}
											onValue={(drillId) => replace(index, { ...piece, forms: withForm(piece.forms, level, drillId) })}
										/>
									))}
									<Picker
										label="Level 3, by turns"
										called={called}
										all={drills}
										value={formAt(piece.forms, 3, 1)}
										none="nothing else"
										onValue={(drillId) => replace(index, { ...piece, forms: withForm(piece.forms, 3, drillId, 1) })}
									/>
								</div>
							) : 'ladderId' in piece ? (
								<Picker
									label="Ladder"
									called={called}
									all={ladders}
									value={piece.ladderId}
									onValue={(ladderId) => replace(index, { ...piece, ladderId })}
								/>
							) : (
								<Picker
									label="Drill"
									called={called}
									all={drills}
									value={piece.drillId}
									// What was said of another drill says nothing of this one.
									onValue={(drillId) =>
										replace(index, {
											part: piece.part,
											drillId,
											...(piece.quantity ? { quantity: piece.quantity } : {}),
										})
									}
								/>
							)}
							{!('drillId' in piece) ? (
								<label className="field">
									<span className="label">There for</span>
									<select
										className="input"
										value={piece.quantity ?? ''}
										aria-label={`${called}, there for`}
										onChange={(event) =>
											replace(index, {
												...piece,
												quantity: (event.target.value || null) as Quantity,
											})
										}
									>
										{'ladderId' in piece && <option value="">itself</option>}
										{QUANTITIES.map((one) => (
											<option key={one} value={one}>
												{SHORT[one]}
											</option>
										))}
									</select>
								</label>
							) : (
								<div className="grid grid-cols-2 gap-2">
									{(['sets', 'reps'] as const).map((part) => (
										<label key={part} className="field">
											<span className="label capitalize">{part}</span>
											<input
												className="input num"
												inputMode="numeric"
												placeholder={String(own(piece.drillId)?.[part] ?? '')}
												defaultValue={piece.dose?.[part] ?? ''}
												key={piece.drillId}
												aria-label={`${called}, ${part}`}
												onChange={(event) =>
													replace(index, withDose(piece, part, event.target.value, own(piece.drillId)))
												}
											/>
										</label>
									))}
								</div>
							)}
							<div className="col-span-2 flex gap-1 lg:col-span-1">
								<button
									type="button"
									className="btn btn-quiet px-2.5"
									disabled={index === 0}
									aria-label={`${called}: earlier`}
									onClick={() => move(index, -1)}
								>
									↑
								</button>
								<button
									type="button"
									className="btn btn-quiet px-2.5"
									disabled={index === pieces.length - 1}
									aria-label={`${called}: later`}
									onClick={() => move(index, 1)}
								>
									↓
								</button>
								<button
									type="button"
									className="btn btn-quiet px-2.5"
									aria-label={`${called}: take away`}
									onClick={() => onPieces(pieces.filter((_, at) => at !== index))}
								>
									×
								</button>
							</div>
							{problemOf(problems, `${section}.${index}`) && (
								<p className="problem col-span-full" role="alert">
									{problemOf(problems, `${section}.${index}`)}
								</p>
							)}
						</li>
					)
				})}
			</ol>
			{problems[section] && (
				<p className="problem" role="alert">
					{problems[section]}
				</p>
			)}
			{pieces.length < (section === 'kept' ? 4 : 8) && (
				<button
					type="button"
					className="btn btn-quiet mt-2"
					onClick={() =>
						onPieces([...pieces, fresh(section === 'opening' || section === 'closing' ? 'drill' : 'ladder', title)])
					}
				>
					Add a piece
				</button>
			)}
		</fieldset>
	)
}

/** The first thing that is wrong with a piece, whichever of its fields it is said of. */
const problemOf = (problems: Record<string, string>, at: string): string | undefined =>
	problems[at] ?? Object.entries(problems).find(([field]) => field.startsWith(`${at}.`))?.[1]

/** A drill's dose with one of its numbers typed; nothing typed is the drill's own. */
function withDose(piece: DrillPiece, part: keyof Dose, typed: string, own: Dose | undefined): DrillPiece {
	const { dose, ...plain } = piece
	const fallback = own?.[part] ?? 1
	const next = {
		...(dose ?? own ?? { sets: 1, reps: 1 }),
		[part]: typed.trim() === '' ? fallback : (readNumber(typed) ?? Number.NaN),
	}
	return own && next.sets === own.sets && next.reps === own.reps ? plain : { ...plain, dose: next }
}

type Forms = { level: Level; drillId: string }[]
const formAt = (forms: Forms, level: Level, turn = 0): string =>
	forms.filter((form) => form.level === level)[turn]?.drillId ?? ''
/** The forms with one more, another or one less: `drillId` empty takes it away. */
function withForm(forms: Forms, level: Level, drillId: string, turn = 0): Forms {
	const own = forms.filter((form) => form.level === level)
	own.splice(turn, 1, ...(drillId ? [{ level, drillId }] : []))
	return [...forms.filter((form) => form.level !== level), ...own].sort((a, b) => a.level - b.level)
}

function Picker({
	label,
	called,
	all,
	value,
	none,
	onValue,
}: {
	label: string
	called: string
	all: readonly { id: string; name: string }[]
	value: string
	none?: string | undefined
	onValue: (id: string) => void
}) {
	return (
		<label className="field min-w-0">
			<span className="label">{label}</span>
			<select
				className="input"
				value={value}
				aria-label={`${called}, ${label.toLowerCase()}`}
				onChange={(event) => onValue(event.target.value)}
			>
				{none && <option value="">{none}</option>}
				{value !== '' && !all.some(({ id }) => id === value) && <option value={value}>{value}</option>}
				{all.map(({ id, name }) => (
					<option key={id} value={id}>
						{name}
					</option>
				))}
			</select>
		</label>
	)
}
