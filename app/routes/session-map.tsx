import { useState } from 'react'
import { Link, data, useFetcher, useSearchParams } from 'react-router'
import { longDay } from '#core/calendar/say-day'
import {
	type Station,
	TURN_DEG,
	autoLayout,
	checkLayout,
	coneList,
	kitList,
	refusalOf,
	snap,
} from '#core/field-map/layout'
import type { Ground, Placement } from '#core/field-map/types'
import { may } from '#server/access/roles'
import { readMap } from '#server/field-map/read-map'
import { holdOn, saveMap } from '#server/field-map/save-map'
import { readSheet } from '#server/sheet/read-sheet'
import type { Route } from './+types/session-map'
import { allowed, notFound } from '../request-guard'
import { MapBoard } from '../field-map/map-board'
import { PostForm, useSubmission } from '../ui/post-form'
import { readNumber } from '#core/measure/read-number'
import { actOn } from '../intents'
import { useUnits } from '../field/units'
import { useLocal } from '../ui/local'

export const meta: Route.MetaFunction = () => [{ title: 'Field map · Dromos' }]

export async function loader({ context, request, params }: Route.LoaderArgs) {
	const { who, scope } = allowed(context, request, 'plan:read')
	const sheet = await readSheet(scope, params.sessionId)
	if (!sheet) throw notFound()
	const map = await readMap(scope, sheet, new URL(request.url).searchParams.get('ground'))
	const { id, squadName, title, day, startTime, place, startedAt } = sheet.session
	return {
		session: { id, squadName, title, day, startTime, place, begun: startedAt !== null },
		map: 'ground' in map ? map : null,
		mayPlan: may(who.role, 'plan:write'),
	}
}

export async function action({ context, request, params }: Route.ActionArgs) {
	const { who } = allowed(context, request, 'plan:write')
	const json = (value: string): unknown => {
		try {
			return JSON.parse(value)
		} catch {
			return null
		}
	}
	const done = await actOn<Awaited<ReturnType<typeof holdOn | typeof saveMap>>>(request, {
		hold: ({ text }) => holdOn(who, params.sessionId, text('ground'), new Date()),
		keep: ({ text }) =>
			saveMap(who, params.sessionId, text('ground'), json(text('placements')), json(text('before')), new Date()),
	})
	if (!done) throw notFound()
	return data(done, { status: 'problem' in done ? 400 : 200 })
}

/** Where the stations stand: to scale, with the cones to pace out and the kit to carry. */
export default function SessionMap({ loaderData }: Route.ComponentProps) {
	const { time } = useLocal()
	const { session, map, mayPlan } = loaderData
	const head = (
		<header className="mb-4 flex flex-wrap items-end justify-between gap-3">
			<div>
				<p className="dim">
					<Link className="link print:hidden" to={`/sessions/${session.id}`}>
						Sheet
					</Link>{' '}
					{session.squadName}, {longDay(session.day)}, {time(session.startTime)}
				</p>
				<h1 className="mt-1">{map ? `Field map, ${map.ground.name}` : 'Field map'}</h1>
			</div>
		</header>
	)
	if (!map)
		return (
			<>
				{head}
				<p>
					No ground is paced out yet.{' '}
					<Link className="link" to="/club">
						Add one on the club’s page
					</Link>
					, and the stations stand on it.
				</p>
			</>
		)
	return (
		<>
			{head}
			<MapEditor key={map.ground.id} session={session} map={map} mayPlan={mayPlan} />
		</>
	)
}

function MapEditor({
	session,
	map,
	mayPlan,
}: {
	session: Route.ComponentProps['loaderData']['session']
	map: NonNullable<Route.ComponentProps['loaderData']['map']>
	mayPlan: boolean
}) {
	const { asRead } = useUnits()
	const { grounds, ground, stations } = map
	const [, setSearch] = useSearchParams()
	const keeper = useFetcher<typeof action>()
	const submission = useSubmission(keeper.state)
	const [placements, setPlacements] = useState<Placement[]>(map.placements)
	const [unplaced, setUnplaced] = useState(map.unplaced)
	// Read anew after every save, so that it is what the server holds.
	const kept = map.saved ? JSON.stringify(map.placements) : ''
	const [selected, setSelected] = useState<string | null>(null)
	const [refused, setRefused] = useState<string | null>(null)
	const clashes = checkLayout(stations, placements, ground)
	const changed = JSON.stringify(placements) !== kept
	const move = (placement: Placement) => {
		setRefused(null)
		setPlacements((now) => [...now.filter((one) => one.entryId !== placement.entryId), placement])
		setUnplaced((now) => now.filter((one) => one.entryId !== placement.entryId))
	}
	const offer = (placement: Placement) => {
		const refusal = refusalOf(stations, placements, placement, ground)
		if (refusal) setRefused(refusal)
		else move(placement)
	}
	const placeAll = () => {
		const found = autoLayout(stations, ground)
		setRefused(null)
		setPlacements(found.placements)
		setUnplaced(found.unplaced)
	}
	const save = () => {
		void keeper.submit(
			{ submission, do: 'keep', ground: ground.id, before: kept, placements: JSON.stringify(placements) },
			{ method: 'post' },
		)
	}
	const answer = keeper.data && 'problem' in keeper.data ? keeper.data.problem : null
	const missing = stations.filter((station) => !placements.some((one) => one.entryId === station.entryId))
	return (
		<div className="map-page">
			<div className="mb-3 flex flex-wrap items-end gap-2 print:hidden">
				<label className="field w-[230px]">
					<span className="label">Ground</span>
					<select className="input" value={ground.id} onChange={(event) => setSearch({ ground: event.target.value })}>
						{grounds.map((one) => (
							<option key={one.id} value={one.id}>
								{one.name}, {one.lengthM} × {one.widthM} m
							</option>
						))}
					</select>
				</label>
				{mayPlan && (
					<button type="button" className="btn btn-quiet" onClick={placeAll}>
						Place them all
					</button>
				)}
				{mayPlan && (
					<button type="button" className="btn" disabled={!changed || keeper.state !== 'idle'} onClick={save}>
						{keeper.state !== 'idle' ? 'Saving …' : changed ? 'Save the plan' : 'Saved'}
					</button>
				)}
				{mayPlan && !session.begun && session.place !== ground.name && (
					<PostForm>
						<input type="hidden" name="ground" value={ground.id} />
						<button className="btn btn-quiet" name="do" value="hold">
							Hold it here
						</button>
					</PostForm>
				)}
				<a className="btn btn-quiet" href={`/sessions/${session.id}/map.svg?ground=${ground.id}`} download>
					SVG
				</a>
				<button type="button" className="btn btn-quiet" onClick={() => window.print()}>
					Print
				</button>
			</div>
			{/* Its line is kept free: the map must not move under a hand that tries again. */}
			<div className="mb-2 min-h-6 print:hidden">
				{(refused ?? answer) && (
					<p className="problem" role="alert">
						{refused ? `Refused. ${refused}` : answer}
					</p>
				)}
			</div>
			{unplaced.length > 0 && (
				<ul className="mb-2 border-l-[3px] border-attn pl-2">
					{unplaced.map((one) => (
						<li key={one.entryId}>{asRead(one.sentence)}</li>
					))}
				</ul>
			)}
			<div className="grid gap-x-8 gap-y-5 xl:grid-cols-[minmax(0,1fr)_320px] print:block">
				<div className="min-w-0">
					<div className="overflow-x-auto">
						<MapBoard
							ground={ground}
							stations={stations}
							placements={placements}
							selected={selected}
							editable={mayPlan}
							onSelect={setSelected}
							onMove={move}
							onRefused={setRefused}
						/>
					</div>
					<p className="dim text-[14px]">
						Solid the lane, dashed the run-in, hatched the run-out, cross-hatched the throw sector, dotted where they
						wait.
						{mayPlan && (
							<span className="hidden sm:inline print:hidden">
								{' '}
								Drag a station; with the keys: arrows move it a metre, Shift five, R turns it.
							</span>
						)}
					</p>
					{clashes.length > 0 && (
						<ul className="mt-2" aria-label="Said about the plan">
							{clashes.map((clash) => (
								<li key={clash.sentence} className={`rule py-1.5 ${clash.refused ? 'font-bold' : ''}`}>
									{asRead(clash.sentence)}
								</li>
							))}
						</ul>
					)}
				</div>
				<aside className="min-w-0">
					<h2 className="print:hidden">
						Stations <span className="dim font-normal">metres along | up, turn</span>
					</h2>
					<ol className="mt-1 print:hidden">
						{stations.map((station, index) => (
							<StationRow
								key={station.entryId}
								station={station}
								number={index + 1}
								placement={placements.find((one) => one.entryId === station.entryId)}
								selected={selected === station.entryId}
								editable={mayPlan}
								onSelect={() => setSelected(station.entryId)}
								onMove={offer}
								ground={ground}
							/>
						))}
					</ol>
					{missing.length > 0 && unplaced.length === 0 && (
						<p className="dim mt-1 text-[14px]">{missing.length} not placed yet.</p>
					)}
					<h2 className="mt-4">To carry out</h2>
					<p>
						{kitList(stations, placements)
							.map(({ item, count }) => `${count} × ${item}`)
							.join(', ') || 'nothing'}
					</p>
					<details className="mt-4 print:hidden">
						<summary className="min-h-[44px] content-center">
							<span className="link">Cones from the base corner</span>
						</summary>
						<Cones stations={stations} placements={placements} />
					</details>
					<div className="mt-4 hidden print:block">
						<h2>Cones from the base corner, metres</h2>
						<Cones stations={stations} placements={placements} />
					</div>
				</aside>
			</div>
		</div>
	)
}

function StationRow({
	station,
	number,
	placement,
	selected,
	editable,
	onSelect,
	onMove,
	ground,
}: {
	station: Station
	number: number
	placement: Placement | undefined
	selected: boolean
	editable: boolean
	onSelect: () => void
	onMove: (placement: Placement) => void
	ground: Ground
}) {
	const at = placement ?? {
		entryId: station.entryId,
		x: Math.round(ground.lengthM / 2),
		y: Math.round(ground.widthM / 2),
		turnDeg: 90,
	}
	const field = (label: string, value: number, set: (value: number) => Placement) => (
		<label className="flex items-center gap-1 text-[13.5px]">
			{label}
			<input
				className="input w-[62px]! px-1! text-center"
				inputMode="numeric"
				aria-label={`${label}, ${station.name}`}
				key={value}
				defaultValue={value}
				onBlur={(event) => {
					const typed = readNumber(event.target.value) ?? Number.NaN
					// What is refused does not stay typed: the field says where the station stands.
					event.target.value = String(value)
					if (Number.isFinite(typed) && typed !== value) onMove(snap(set(typed)))
				}}
				onKeyDown={(event) => {
					if (event.key === 'Enter') event.currentTarget.blur()
				}}
			/>
		</label>
	)
	return (
		<li className={`rule py-1.5 ${selected ? 'border-l-[3px] border-l-ink pl-2' : ''}`}>
			<p className="flex items-baseline justify-between gap-2">
				<button type="button" className="min-h-[36px] max-lg:min-h-[44px] text-left font-bold" onClick={onSelect}>
					<span className="num mr-2">{number}</span>
					{station.name}
				</button>
				<span className="dim num text-right text-[13.5px]">
					{station.shape.pathM > 0 && `${Math.round(station.shape.pathM * 10) / 10} m run · `}
					{placement && (
						<>
							<span className="sr-only">
								{placement.x} m along, {placement.y} m up, turned {placement.turnDeg} degrees
							</span>
							<span aria-hidden="true">
								{placement.x} | {placement.y}, {placement.turnDeg}°
							</span>
						</>
					)}
				</span>
			</p>
			{!placement && (
				<p className="flex items-center justify-between gap-2 text-[14px]">
					<b>Not on this ground.</b>
					{editable && (
						<button type="button" className="btn btn-quiet print:hidden" onClick={() => onMove(snap(at))}>
							Put it in the middle
						</button>
					)}
				</p>
			)}
			{placement && editable && selected && (
				<p className="flex flex-wrap gap-2 print:hidden">
					{field('along', at.x, (x) => ({ ...at, x }))}
					{field('up', at.y, (y) => ({ ...at, y }))}
					{field('turn', at.turnDeg, (turnDeg) => ({ ...at, turnDeg }))}
					<button
						type="button"
						className="btn btn-quiet px-2!"
						onClick={() => onMove(snap({ ...at, turnDeg: at.turnDeg + 6 * TURN_DEG }))}
					>
						Turn
					</button>
				</p>
			)}
		</li>
	)
}

function Cones({ stations, placements }: { stations: Station[]; placements: Placement[] }) {
	const cones = coneList(stations, placements)
	return (
		<div className="cone-columns text-[13.5px]">
			{stations.map((station, index) => {
				const own = cones.filter((cone) => cone.entryId === station.entryId)
				return own.length === 0 ? null : (
					<p key={station.entryId} className="rule py-1">
						<b>
							<span className="num">{index + 1}</span> {station.name}
						</b>{' '}
						<span className="num">{own.map((cone) => `${cone.x} | ${cone.y}`).join(',  ')}</span>
					</p>
				)
			})}
		</div>
	)
}
