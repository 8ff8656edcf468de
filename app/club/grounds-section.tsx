import { SURFACES, type Surface } from '#core/vocabulary/words'
import { PostForm } from '../ui/post-form'
import { type ClubSaid, SaidSaved, isOpen } from './said-saved'
import { useUnits } from '../field/units'

interface Ground {
	id: string
	name: string
	lengthM: number
	widthM: number
	surface: Surface
	version: number
}

/** The club's grounds: added, changed, taken off and brought back. */
export function GroundsSection({
	grounds,
	off,
	mayPlan,
	changed,
	problem,
}: {
	grounds: readonly Ground[]
	off: readonly { id: string; name: string }[]
	mayPlan: boolean
	changed: ClubSaid | null
	problem: string | null
}) {
	const side = useUnits().typed('ground')
	return (
		<section className="mt-7 max-w-[720px]">
			<h2>Grounds</h2>
			<p className="dim mt-1">
				Paced out once, from the base corner: length along, width up. The field maps stand on them.
			</p>
			<ul className="mt-2">
				{grounds.map((ground) => (
					<li key={ground.id} className="rule flex flex-wrap items-center justify-between gap-x-4 py-2">
						<span>
							<b>{ground.name}</b>
							<span className="dim block text-[14px]">
								<span className="num">
									{side.write(ground.lengthM)} × {side.write(ground.widthM)} {side.unit}
								</span>
								, {ground.surface.replace('-', ' ')}
							</span>
						</span>
						{mayPlan && (
							<PostForm preventScrollReset>
								<input type="hidden" name="groundId" value={ground.id} />
								<button className="btn btn-quiet" name="do" value="unground" aria-label={`Take off ${ground.name}`}>
									Take off
								</button>
							</PostForm>
						)}
						{mayPlan && (
							<details className="w-full" open={isOpen(ground.id, changed)}>
								<summary className="link inline-flex min-h-[44px] items-center" aria-label={`Change ${ground.name}`}>
									Change
								</summary>
								<PostForm preventScrollReset key={ground.version} className="flex flex-wrap items-end gap-3 pb-2">
									<input type="hidden" name="groundId" value={ground.id} />
									<input type="hidden" name="version" value={ground.version} />
									<input type="hidden" name="do" value="change-ground" />
									<Fields ground={ground} />
									<button className="btn btn-quiet">Keep</button>
									{isOpen(ground.id, changed) && <SaidSaved of={ground.id} changed={changed} />}
								</PostForm>
							</details>
						)}
						{!isOpen(ground.id, changed) && <SaidSaved of={ground.id} changed={changed} />}
					</li>
				))}
			</ul>
			{grounds.length === 0 && <p className="rule dim mt-2 py-2">None yet.</p>}
			{mayPlan && off.length > 0 && (
				<ul className="mt-2">
					{off.map((ground) => (
						<li key={ground.id} className="rule dim flex items-center justify-between gap-4 py-1">
							<span>{ground.name}, taken off</span>
							<PostForm preventScrollReset>
								<input type="hidden" name="groundId" value={ground.id} />
								<button
									className="btn btn-quiet"
									name="do"
									value="bring-ground-back"
									aria-label={`Bring back ${ground.name}`}
								>
									Bring back
								</button>
							</PostForm>
						</li>
					))}
				</ul>
			)}
			<SaidSaved of="grounds" changed={changed} />
			{mayPlan && (
				<PostForm className="mt-3 flex flex-wrap items-end gap-3" key={grounds.length}>
					<Fields />
					<button className="btn" name="do" value="ground">
						Add the ground
					</button>
				</PostForm>
			)}
			{problem && (
				<p className="problem mt-2" role="alert">
					{problem}
				</p>
			)}
		</section>
	)
}

function Fields({ ground }: { ground?: Ground }) {
	const side = useUnits().typed('ground')
	return (
		<>
			<label className="field w-[220px]">
				<span className="label">Name</span>
				<input className="input" name="name" required maxLength={200} defaultValue={ground?.name} />
			</label>
			<label className="field w-[90px]">
				<span className="label">Length, {side.unit}</span>
				<input
					className="input"
					name="lengthM"
					inputMode="decimal"
					required
					defaultValue={ground && side.write(ground.lengthM)}
				/>
			</label>
			<label className="field w-[90px]">
				<span className="label">Width, {side.unit}</span>
				<input
					className="input"
					name="widthM"
					inputMode="decimal"
					required
					defaultValue={ground && side.write(ground.widthM)}
				/>
			</label>
			<label className="field w-[140px]">
				<span className="label">Under foot</span>
				<select className="input" name="surface" defaultValue={ground?.surface}>
					{SURFACES.map((surface) => (
						<option key={surface} value={surface}>
							{surface.replace('-', ' ')}
						</option>
					))}
				</select>
			</label>
		</>
	)
}
