import type { Library } from '#core/vocabulary/library'
import type { SessionEntry } from '#core/vocabulary/entry'
import { MOST_PIECES, withPieceBefore, withoutPiece } from '#core/plan/complex-entry'
import { writeDrill } from '#core/words/write-numbers'
import { NumberField } from '../ui/number-field'
import { DrillSearch, type Pick } from './drill-search'
import { pickedOf } from './sheet-entries'
import { useUnits } from '../field/units'

interface Props {
	entry: SessionEntry
	/** Counted from 1. */
	number: number
	library: Library
	picks: readonly Pick[]
	/** Drawn when no more keys come where `soon`. */
	onEdit: (change: (entry: SessionEntry) => SessionEntry, soon?: 'soon') => void
}

/** The pieces of a complex in their turn, the judged one last named; without any, the place to put a drill before this one. */
export function PieceList({ entry, number, library, picks, onEdit }: Props) {
	const { asRead } = useUnits()
	const pieces = entry.pieces ?? []
	const drillsOnly = picks.filter(({ pick }) => pick.startsWith('drill:'))
	return (
		<details className={pieces.length > 0 ? 'min-w-0 basis-full' : 'min-w-0'} open={pieces.length > 0}>
			<summary className="inline-flex min-h-[30px] max-lg:min-h-[44px] items-center text-[14px]">
				<span className="link">{pieces.length > 0 ? 'In turn, every round' : 'Another drill before it'}</span>
			</summary>
			<ol className="grid list-none gap-1">
				{pieces.map((piece, index) => {
					const drill = library.drills[piece.drillId]
					const name = drill?.name ?? piece.drillId
					return (
						<li key={`${piece.drillId}/${index}`} className="flex flex-wrap items-center gap-x-2 text-[14px]">
							<span className="num w-[18px]">{index + 1}</span>
							<NumberField
								className="input w-[54px]! px-1! text-center"
								value={piece.reps}
								aria-label={`Reps of ${name}, entry ${number}`}
								onNumber={(reps) =>
									onEdit(
										(now) => ({
											...now,
											pieces: (now.pieces ?? []).map((one, at) => (at === index ? { ...one, reps } : one)),
										}),
										'soon',
									)
								}
							/>
							<span>
								× {drill ? asRead(writeDrill(drill, piece.judged ? entry.parameters : piece.parameters)) : name}
							</span>
							{piece.judged ? (
								<span className="dim">judged</span>
							) : (
								<button
									type="button"
									className="min-h-[44px] px-2 text-act"
									onClick={() => onEdit((now) => withoutPiece(now, index))}
									aria-label={`Without ${name}, entry ${number}`}
								>
									×
								</button>
							)}
						</li>
					)
				})}
			</ol>
			{pieces.length < MOST_PIECES && (
				<div className="flex w-[320px] max-w-full py-1">
					<DrillSearch
						label={`A drill before it, entry ${number}`}
						picks={drillsOnly}
						placeholder="Find a drill"
						onPick={(pick) => onEdit((now) => withPieceBefore(now, pickedOf(pick).drillId ?? '', library))}
					/>
				</div>
			)}
		</details>
	)
}
