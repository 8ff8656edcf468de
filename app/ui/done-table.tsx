import { Dialog } from 'radix-ui'
import { Link } from 'react-router'
import { useState } from 'react'
import type { DoneDrill, DoneRep } from '#core/record/session-done'
import { PostForm } from './post-form'
import { useUnits } from '../field/units'
import { useGiveBack } from '../field/give-back'

/** Of each mark: what may be typed in its place, and whose else it can have been. */
export type Changeable = Record<
	string,
	{ typed: string[]; asks: string[]; others: { athleteId: string; name: string }[] }
>

/** One drill as it was done: an athlete a row, the reps in their order; a rep opens to be put right. */
export function DoneTable({
	drill,
	marks,
	mayChange,
	busy,
	sessionId,
}: {
	drill: DoneDrill
	sessionId: string
	marks: Changeable
	mayChange: boolean
	busy: boolean
}) {
	const { asRead } = useUnits()
	const [openId, setOpenId] = useState<string | null>(null)
	const sets = Math.max(0, ...drill.people.flatMap(({ reps }) => reps.map(({ setNo }) => setNo)))
	const shown = drill.people.flatMap((person) =>
		person.reps.flatMap((rep) => (rep.id === openId ? [{ rep, name: person.name }] : [])),
	)[0]
	const some = drill.people.filter(({ reps, words }) => reps.length > 0 || words.length > 0)
	const none = drill.people.filter((person) => !some.includes(person))
	return (
		<section className="mt-5" aria-label={drill.name}>
			<h2>{drill.name}</h2>
			<table className="mt-1 w-full max-sm:block">
				<thead className="sr-only">
					<tr>
						<th scope="col">Athlete</th>
						<th scope="col">Reps</th>
						<th scope="col">Said</th>
					</tr>
				</thead>
				<tbody className="max-sm:block">
					{some.map((person) => (
						<tr key={person.athleteId} className="border-t border-chalk align-baseline max-sm:block max-sm:py-1">
							<th scope="row" className="w-[11rem] pr-3 text-left font-semibold max-sm:block">
								<Link className="hover:underline" to={`/sessions/${sessionId}/for/${person.athleteId}`}>
									{person.name}
								</Link>
							</th>
							<td className="py-0.5 max-sm:block">
								{person.reps.length === 0 ? (
									<span className="dim">no mark, {person.planned} planned</span>
								) : (
									<ul className="flex flex-wrap items-baseline gap-x-1 gap-y-1">
										{person.reps.map((rep, index) => (
											<li key={rep.id} className="flex items-baseline">
												{sets > 1 && rep.setNo !== person.reps[index - 1]?.setNo && (
													<span className="dim mr-1 text-[13.5px]">set {rep.setNo}</span>
												)}
												<Rep rep={rep} onOpen={() => setOpenId(rep.id)} />
											</li>
										))}
									</ul>
								)}
							</td>
							<td className="dim w-[34%] pl-3 text-[14px] max-sm:block max-sm:w-auto max-sm:pl-0">
								{asRead(person.words.join(' · '))}
							</td>
						</tr>
					))}
				</tbody>
			</table>
			{none.length > 0 && (
				<p className="dim border-t border-chalk pt-1.5">
					Nothing logged{some.length === 0 ? '' : `: ${none.map(({ name }) => name).join(', ')}`}.
				</p>
			)}
			{shown && (
				<RepDialog
					key={shown.rep.id}
					rep={shown.rep}
					name={shown.name}
					change={mayChange ? marks[shown.rep.id] : undefined}
					busy={busy}
					onClose={() => setOpenId(null)}
				/>
			)}
		</section>
	)
}

function Rep({ rep, onOpen }: { rep: DoneRep; onOpen: () => void }) {
	const { asRead } = useUnits()
	return (
		<button
			type="button"
			className={`num min-h-[36px] max-lg:min-h-[44px] rounded-sm px-1.5 hover:bg-chalk ${rep.aside ? 'line-through' : ''}`}
			onClick={onOpen}
			title={rep.how}
		>
			{asRead(rep.said)}
			{rep.side && <span className="dim text-[13px]"> {rep.side}</span>}
			{rep.words.length > 0 && <span className="dim text-[13px]"> ({asRead(rep.words.join('; '))})</span>}
			{rep.aside && <span className="sr-only"> set aside</span>}
		</button>
	)
}

function RepDialog({
	rep,
	name,
	change,
	busy,
	onClose,
}: {
	rep: DoneRep
	name: string
	change: Changeable[string] | undefined
	busy: boolean
	onClose: () => void
}) {
	const { asRead } = useUnits()
	const giveBack = useGiveBack()
	return (
		<Dialog.Root open onOpenChange={(open) => !open && onClose()}>
			<Dialog.Portal>
				<Dialog.Overlay className="fixed inset-0 z-10 bg-ink/30" />
				<Dialog.Content
					{...giveBack}
					className="fixed top-[12vh] left-1/2 z-20 max-h-[80vh] w-[min(32rem,94vw)] -translate-x-1/2 overflow-auto border border-ink bg-paper p-5"
					aria-describedby={undefined}
				>
					<div className="flex items-start justify-between gap-3">
						<Dialog.Title className="text-[22px] leading-tight font-semibold">
							{name}, <span className="num">{asRead(rep.said)}</span>
						</Dialog.Title>
						<Dialog.Close className="btn btn-quiet">Close</Dialog.Close>
					</div>
					<p className="mt-1">
						Set {rep.setNo}, rep {rep.repNo}
						{rep.side && `, ${rep.side}`}. {rep.how}.
					</p>
					{rep.words.length > 0 && <p className="mt-1">{asRead(rep.words.join('; '))}</p>}
					{change && (
						<>
							{change.asks.length > 0 && (
								<PostForm preventScrollReset className="mt-4 flex flex-wrap items-end gap-3" onSubmit={onClose}>
									<input type="hidden" name="mark" value={rep.id} />
									{change.asks.map((ask, index) => (
										<label key={ask} className="grid gap-1">
											{ask}
											<input
												className="input num w-[7rem]"
												name="typed"
												defaultValue={change.typed[index]}
												inputMode="decimal"
											/>
										</label>
									))}
									<button className="btn" name="do" value="correct" disabled={busy}>
										Correct
									</button>
								</PostForm>
							)}
							{change.others.length > 0 && (
								<PostForm preventScrollReset className="mt-4 flex flex-wrap items-end gap-3" onSubmit={onClose}>
									<input type="hidden" name="mark" value={rep.id} />
									<label className="grid gap-1">
										It was somebody else
										<select className="input" name="athlete" required defaultValue="">
											<option value="" disabled>
												Whose was it?
											</option>
											{change.others.map((other) => (
												<option key={other.athleteId} value={other.athleteId}>
													{other.name}
												</option>
											))}
										</select>
									</label>
									<button className="btn btn-quiet" name="do" value="give" disabled={busy}>
										Give it to them
									</button>
								</PostForm>
							)}
							<PostForm preventScrollReset className="mt-4" onSubmit={onClose}>
								<input type="hidden" name="mark" value={rep.id} />
								<button className="btn btn-quiet" name="do" value="take-back" disabled={busy}>
									Take it back
								</button>
							</PostForm>
						</>
					)}
				</Dialog.Content>
			</Dialog.Portal>
		</Dialog.Root>
	)
}
