import { useSortable } from '@dnd-kit/sortable'
import { memo } from 'react'
import type { Library } from '#core/vocabulary/library'
import type { SheetPreview } from '#core/plan/preview-sheet'
import { QUANTITY_NAMES } from '#core/plan/targets'
import { writeAmount, writeWork } from '#core/words/write-work'
import { FamilyMark } from '../ui/glyphs'
import { DrillSearch, type Pick } from './drill-search'
import { partsOf } from '#core/plan/entry-parts'
import type { ParameterName } from '#core/vocabulary/parameters'
import type { SessionEntry } from '#core/vocabulary/entry'
import { readClock, writeClock } from '#core/words/rests'
import { parameterTyped } from '#core/measure/quantity'
import { parameterName } from '../ui/parameter-words'
import { NumberField } from '../ui/number-field'
import { TypedInput } from '../ui/text-field'
import { PieceList } from './piece-list'
import { putOn } from './sheet-entries'
import { useUnits } from '../field/units'

interface Props {
	entry: SessionEntry
	index: number
	last: boolean
	library: Library
	picks: readonly Pick[]
	preview: SheetPreview | null
	problems: Record<string, string>
	/** Everybody’s line of it stands beside. */
	isLookedAt: boolean
	edits: EntryEdits
}
/** What is done to the entries of a sheet, each by its id; the same functions from key to key. */
export interface EntryEdits {
	look: (id: string) => void
	/** Made of the entry as it is by then, not as it is drawn; drawn when no more keys come where `soon`. */
	edit: (id: string, change: (entry: SessionEntry) => SessionEntry, soon?: 'soon') => void
	/** By so many places, as far as there are any. */
	move: (id: string, by: number) => void
	remove: (id: string) => void
}

/** What can be typed at an entry; the rest stays as the drill has it. */
const TYPED_PARAMETERS: readonly ParameterName[] = ['distanceM', 'heightCm', 'angleDeg', 'ballKg', 'runInM']
const BESIDE: Partial<Record<ParameterName, string>> = { angleDeg: '°', runInM: 'run-in' }
const CLOCK = { read: readClock, write: writeClock }
const SMALL = 'min-h-[44px] w-[34px] text-[18px] text-act disabled:opacity-30'

/** One entry of a sheet: what, how much, in how many lanes, and on demand everybody's line. A key typed in another draws none of it. */
export const EntryRow = memo(function EntryRow({
	entry,
	index,
	last,
	library,
	picks,
	preview,
	problems,
	isLookedAt,
	edits,
}: Props) {
	const onEdit = (change: (now: SessionEntry) => SessionEntry, soon?: 'soon') => edits.edit(entry.id, change, soon)
	const onType = (change: (now: SessionEntry) => Partial<SessionEntry>) =>
		onEdit((now) => ({ ...now, ...change(now) }), 'soon')
	const onMove = (by: number) => edits.move(entry.id, by)
	const { asRead, units } = useUnits()
	const { attributes, listeners, setNodeRef, transform, transition, isDragging } = useSortable({ id: entry.id })
	const parts = partsOf(entry, library)
	const said = (field: string) => problems[`entries.${index}.${field}`]
	const wrong = Object.entries(problems)
		.filter(([path]) => path.startsWith(`entries.${index}.`))
		.map(([, sentence]) => sentence)
	const { fill, variants } = entry.tuning ?? {}
	const minutes = preview?.minutesOf.get(entry.id)
	const numeric = (
		label: string,
		unit: string,
		field: string,
		value: number | undefined,
		onNumber: (value: number) => void,
		as?: { read: (text: string) => number | null; write: (value: number) => string },
	) => (
		<label key={field} className="flex items-center gap-1 text-[14px]">
			<NumberField
				className="input w-[58px]! px-1! text-center"
				value={value}
				aria-label={`${label}, entry ${index + 1}`}
				aria-invalid={said(field) !== undefined}
				onNumber={onNumber}
				{...(as && { read: as.read, write: as.write })}
			/>
			{unit}
		</label>
	)
	const { dose, rest } = entry
	const choose = (chosen: string) => {
		onEdit((now) => {
			const fresh = putOn(chosen, library, { part: now.part, lanes: now.lanes })
			return fresh ? { ...fresh, id: now.id, part: now.part || fresh.part } : now
		})
	}
	return (
		// A layer of its own: a key in one row paints none of the others. What opens in the row that has the focus lies over them.
		<li
			ref={setNodeRef}
			style={{ transform: transform ? `translate3d(0, ${Math.round(transform.y)}px, 0)` : undefined, transition }}
			className={`rule relative isolate bg-paper py-2 focus-within:z-1 has-[[aria-expanded=true]]:z-20 ${isDragging ? 'z-10 border border-ink' : ''} xl:border-l-[3px] xl:pl-1 ${isLookedAt ? 'xl:border-l-act' : 'xl:border-l-transparent'}`}
			onFocus={() => edits.look(entry.id)}
			onKeyDown={(event) => {
				if (!event.altKey || (event.key !== 'ArrowUp' && event.key !== 'ArrowDown')) return
				event.preventDefault()
				onMove(event.key === 'ArrowUp' ? -1 : 1)
			}}
		>
			<div className="flex flex-wrap items-center gap-x-2 gap-y-1">
				<button
					type="button"
					className="min-h-[44px] w-[22px] shrink-0 cursor-grab touch-none text-ink-2"
					aria-label={`Drag entry ${index + 1}`}
					{...attributes}
					{...listeners}
				>
					⠿
				</button>
				<span className="w-5">{parts && <FamilyMark family={parts.family} label />}</span>
				<TypedInput
					className="input w-[124px]! px-2! text-[15px]! sm:w-[148px]!"
					value={entry.part}
					placeholder="Part"
					aria-label={`Part, entry ${index + 1}`}
					aria-invalid={said('part') !== undefined}
					onText={(part) => onType(() => ({ part }))}
				/>
				<div className="order-1 flex min-w-[190px] flex-1 sm:order-none">
					<DrillSearch
						label={`Drill or ladder, entry ${index + 1}`}
						picks={picks}
						value={parts ? (variants ? 'A form for each level' : `${parts.name}${parts.ladder ? ' ladder' : ''}`) : ''}
						invalid={said('drillId') !== undefined}
						onPick={choose}
					/>
				</div>
				{parts && (
					<label className="order-1 flex items-center gap-1 text-[14px] sm:order-none">
						<select
							className="input h-[44px] w-[58px]! px-1!"
							aria-label={`Lanes, entry ${index + 1}`}
							value={entry.lanes}
							onChange={({ target }) => onEdit((now) => ({ ...now, lanes: Number(target.value) }))}
						>
							{[1, 2, 3, 4, 5, 6].map((lanes) => (
								<option key={lanes}>{lanes}</option>
							))}
						</select>
						<span className="w-[36px]">{entry.lanes === 1 ? 'lane' : 'lanes'}</span>
					</label>
				)}
				<span className="num order-1 w-[30px] text-right text-[15px] sm:order-none sm:w-[34px]">
					{minutes === undefined ? '' : `${Math.round(minutes)}′`}
				</span>
				<span className="ml-auto flex sm:ml-0">
					<button
						type="button"
						className={SMALL}
						disabled={index === 0}
						onClick={() => onMove(-1)}
						aria-label={`Earlier, entry ${index + 1}`}
					>
						↑
					</button>
					<button
						type="button"
						className={SMALL}
						disabled={last}
						onClick={() => onMove(1)}
						aria-label={`Later, entry ${index + 1}`}
					>
						↓
					</button>
					<button
						type="button"
						className={SMALL}
						onClick={() => edits.remove(entry.id)}
						aria-label={`Take off, entry ${index + 1}`}
						title="Take off"
					>
						×
					</button>
				</span>
			</div>
			{parts && (
				<div className="flex flex-wrap items-start gap-x-3 gap-y-1 pl-[50px] pt-1">
					{fill ? (
						<span className="min-h-[30px] max-lg:min-h-[44px] content-center text-[14px]">
							Tops up to{' '}
							<b className="num">
								{Math.round(fill.targets[1])}, {Math.round(fill.targets[2])}, {Math.round(fill.targets[3])}
							</b>{' '}
							{QUANTITY_NAMES[fill.quantity]} at level 1, 2, 3.
						</span>
					) : parts.ladder ? (
						<span className="dim min-h-[30px] max-lg:min-h-[44px] content-center text-[14px]">
							{entry.doseFactor < 1
								? `${Math.round(entry.doseFactor * 100)} % of each athlete’s own rung.`
								: 'Each athlete’s own rung.'}
						</span>
					) : (
						<>
							{numeric('Sets', entry.pieces ? 'rounds' : '×', 'dose.sets', dose.sets, (sets) =>
								onType((now) => ({ dose: { ...now.dose, sets } })),
							)}
							{!entry.pieces &&
								numeric('Reps', 'reps', 'dose.reps', dose.reps, (reps) =>
									onType((now) => ({ dose: { ...now.dose, reps } })),
								)}
							{(dose.reps !== 1 || entry.pieces) &&
								numeric(
									'Rest after a rep',
									entry.pieces ? 'between pieces' : dose.sets === 1 ? 'rest' : 'between reps',
									'rest.repsS',
									rest.repsS,
									(repsS) => onType((now) => ({ rest: { ...now.rest, repsS } })),
									CLOCK,
								)}
							{dose.sets !== 1 &&
								numeric(
									'Rest after a set',
									entry.pieces ? 'between rounds' : 'between sets',
									'rest.setsS',
									rest.setsS,
									(setsS) => onType((now) => ({ rest: { ...now.rest, setsS } })),
									CLOCK,
								)}
							{TYPED_PARAMETERS.filter((field) => parts.drill.defaults.parameters[field] !== undefined).map((field) => {
								const typed = parameterTyped(field, units)
								return numeric(
									parameterName(field),
									[typed.unit, BESIDE[field]].filter(Boolean).join(' '),
									`parameters.${field}`,
									entry.parameters[field],
									(value) => onType((now) => ({ parameters: { ...now.parameters, [field]: value } })),
									typed,
								)
							})}
						</>
					)}
					{!fill && !variants && !parts.ladder && parts.family !== 'prepare' && (
						<PieceList entry={entry} number={index + 1} library={library} picks={picks} onEdit={onEdit} />
					)}
					{preview && (
						<EntryLines
							entryId={entry.id}
							plain={parts.ladder || variants ? null : writeAmount(entry)}
							preview={preview}
							library={library}
						/>
					)}
				</div>
			)}
			{wrong.map((sentence) => (
				<p key={sentence} className="problem pl-[50px]">
					{asRead(sentence)}
				</p>
			))}
		</li>
	)
})

/** Everybody's line, like lines together, those that differ from the rung with their reason. */
function EntryLines({
	entryId,
	plain,
	preview,
	library,
}: {
	entryId: string
	plain: string | null
	preview: SheetPreview
	library: Library
}) {
	const { asRead } = useUnits()
	const groups = new Map<string, { words: string; why: string | null; names: string[] }>()
	for (const athlete of preview.athletes) {
		const line = athlete.lines.get(entryId)
		if (!line) continue
		const words = line.blocked === null ? writeWork(line, (id) => library.drills[id]) : 'no line'
		const why = line.blocked ?? line.note
		const group = groups.get(`${words}/${why}`) ?? { words, why, names: [] }
		group.names.push(athlete.name)
		groups.set(`${words}/${why}`, group)
	}
	const sorted = [...groups.values()].sort((a, b) => b.names.length - a.names.length)
	const open = preview.athletes.filter((athlete) => athlete.lines.get(entryId)?.blocked === null).length
	// A drill everybody does as it is written needs no second line; one the phase cuts does.
	if (
		sorted.length === 0 ||
		(plain !== null && sorted.length === 1 && sorted[0]!.why === null && sorted[0]!.words.endsWith(`, ${plain}`))
	)
		return null
	return (
		<details className="min-w-0 flex-1 basis-[220px]">
			<summary className="inline-flex min-h-[30px] max-lg:min-h-[44px] items-center text-[14px]">
				<span className="link">
					{sorted.length === 1 ? asRead(sorted[0]!.words) : `${sorted.length} different lines`}
				</span>
				<span className="dim">
					&nbsp;for {open} of {preview.athletes.length}
				</span>
			</summary>
			<ul className="mb-1 text-[14px]">
				{sorted.map(({ words, why, names }) => (
					<li key={`${words}/${why}`} className="grid gap-x-4 py-0.5 sm:grid-cols-[250px_1fr]">
						<span>
							<b>{asRead(words)}</b>
							{why && <span className="dim block">{asRead(why)}</span>}
						</span>
						<span className="dim">
							{names.length === preview.athletes.length && names.length > 1 ? 'everybody' : names.join(', ')}
						</span>
					</li>
				))}
			</ul>
		</details>
	)
}
