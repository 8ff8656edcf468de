import { bestHops } from '#core/measure/jump/hop-series'
import { useEffect, useMemo, useRef, useState } from 'react'
import { type FilmContact, type FilmMark, meanIndexOf, readFilmContacts } from '#core/measure/film/film-contacts'
import { MeasureError } from '#core/measure/measure-error'
import { readTyped } from './read-form'
import { Limbs, PosturePanel, jointsOf, usePicked } from './posture-picker'
import { About, BigNumber, Numbers, Waiting, Warnings } from './result-parts'
import { SavePanel } from './save-panel'
import type { ToolProps } from './tool-page'
import { useFilm } from './use-film'

const FILMED_RATES = ['60', '120', '240', '480', '960'] as const
type Side = 'left' | 'right' | ''

/** Frame by frame through a film that never leaves the device: touchdown, toe-off, and what they say. */
export function FilmTool({ people, today }: ToolProps) {
	const video = useRef<HTMLVideoElement>(null)
	const { film, open, show, step, setStoredFps } = useFilm(video)
	const drawing = useRef<SVGSVGElement>(null)
	const { picked, setPicked, isPicking, pick } = usePicked(drawing)
	const [marks, setMarks] = useState<FilmMark[]>([])
	const [side, setSide] = useState<Side>('')
	const [filmed, setFilmed] = useState('')
	const [zoom, setZoom] = useState(1)
	const [centre, setCentre] = useState({ x: 50, y: 50 })
	const filmedFps = readTyped(filmed)
	const ready = film.storedFps !== null

	const mark = (kind: FilmMark['kind']) =>
		setMarks((now) =>
			[
				...now.filter((one) => one.frame !== film.frame),
				{ kind, frame: film.frame, ...(kind === 'touchdown' && side ? { side } : {}) },
			].sort((a, b) => a.frame - b.frame),
		)
	const unmark = (frame: number) => setMarks((now) => now.filter((one) => one.frame !== frame))

	const act = useRef({ mark, step, ready })
	act.current = { mark, step, ready }
	useEffect(() => {
		const onKey = (event: KeyboardEvent) => {
			const target = event.target as HTMLElement
			if (
				!act.current.ready ||
				event.ctrlKey ||
				event.metaKey ||
				event.altKey ||
				(target.matches('input, select, textarea') && !(target as HTMLInputElement).matches('[type=range]'))
			)
				return
			const frames = event.shiftKey ? 10 : 1
			const key = event.key.toLowerCase()
			if (key === 'arrowright') act.current.step(frames, event.repeat)
			else if (key === 'arrowleft') act.current.step(-frames, event.repeat)
			else if (key === 'd') act.current.mark('touchdown')
			else if (key === 'o') act.current.mark('toe-off')
			else return
			event.preventDefault()
		}
		window.addEventListener('keydown', onKey)
		return () => window.removeEventListener('keydown', onKey)
	}, [])

	const read = useMemo((): { contacts: FilmContact[]; problem: string | null } => {
		if (filmedFps === null || Number.isNaN(filmedFps))
			return { contacts: [], problem: filmed.trim() && Number.isNaN(filmedFps) ? `${filmed} is not a number.` : null }
		try {
			return { contacts: readFilmContacts(marks, filmedFps), problem: null }
		} catch (problem) {
			if (!(problem instanceof MeasureError)) throw problem
			return {
				contacts: [],
				problem:
					problem.field === 'fps'
						? `Filmed rate: expected ${problem.expected}.`
						: `Frame ${String(problem.value)}: expected ${problem.expected}.`,
			}
		}
	}, [marks, filmedFps, filmed])

	return (
		<div className="mt-5">
			<div className="flex flex-wrap items-end gap-3">
				<label className="btn cursor-pointer has-[:focus-visible]:outline-3 has-[:focus-visible]:outline-act">
					{film.url ? 'Another film' : 'Open a film'}
					<input
						type="file"
						accept="video/*"
						className="sr-only"
						onChange={(event) => {
							const [file] = event.target.files ?? []
							if (file) {
								setMarks([])
								setPicked(null)
								open(file)
							}
						}}
					/>
				</label>
				<p className="dim max-w-[420px] text-[14px]">
					The film stays on this device: nothing of it is sent. Only times and angles are kept, if you choose to.
				</p>
			</div>
			{film.problem && (
				<p className="problem mt-3" role="alert">
					{film.problem}
				</p>
			)}
			{!film.url ? (
				<div className="mt-6">
					<Waiting>
						Film from the side, close to the ground, at 240 frames a second. Then step to the first frame the foot
						touches, and to the first frame it has left.
					</Waiting>
				</div>
			) : (
				<div className="mt-5 grid gap-x-10 gap-y-6 lg:grid-cols-[minmax(0,1fr)_360px]">
					<div className="min-w-0">
						<div
							className={`overflow-hidden bg-black ${isPicking ? 'cursor-crosshair' : ''}`}
							onClick={(event) => {
								if (pick(event.clientX, event.clientY, film.frame)) return
								const box = event.currentTarget.getBoundingClientRect()
								setCentre({
									x: ((event.clientX - box.left) / box.width) * 100,
									y: ((event.clientY - box.top) / box.height) * 100,
								})
							}}
						>
							<div
								className="relative"
								style={{ transform: `scale(${zoom})`, transformOrigin: `${centre.x}% ${centre.y}%` }}
							>
								<video
									ref={video}
									src={film.url}
									muted
									playsInline
									preload="auto"
									className="mx-auto block max-h-[46vh] lg:max-h-[430px] w-full"
								/>
								{/* As large as the picture and laid out as it is: a click there is a place on the film. */}
								<svg
									ref={drawing}
									className="pointer-events-none absolute inset-0 size-full"
									viewBox={`0 0 ${video.current?.videoWidth || 1} ${video.current?.videoHeight || 1}`}
									aria-hidden="true"
								>
									{picked?.frame === film.frame && <Limbs points={picked.points} />}
								</svg>
							</div>
						</div>
						<FrameSlider frame={film.asked} frames={film.frames} marks={marks} disabled={!ready} onShow={show} />
						<div className="mt-2 flex flex-wrap items-center gap-2">
							{[
								['−10', -10],
								['−1', -1],
								['+1', 1],
								['+10', 10],
							].map(([label, by]) => (
								<button
									key={label}
									type="button"
									className="btn btn-quiet num min-w-[58px]"
									disabled={!ready}
									aria-label={`${Number(by) < 0 ? 'Back' : 'On'} ${Math.abs(Number(by))} ${Math.abs(Number(by)) === 1 ? 'frame' : 'frames'}`}
									onClick={() => step(Number(by))}
								>
									{label}
								</button>
							))}
							<output className="num px-2 text-[17px]" aria-label="Frame">
								{film.detecting ? 'finding the frame rate …' : `frame ${film.frame}`}{' '}
								<span className="dim text-[14px]">{ready && `of ${film.frames}`}</span>
							</output>
							<label className="ml-auto flex items-center gap-2 text-[14px]">
								Zoom
								<select className="input w-auto" value={zoom} onChange={(event) => setZoom(Number(event.target.value))}>
									{[1, 2, 3, 4].map((one) => (
										<option key={one} value={one}>
											{one} ×
										</option>
									))}
								</select>
							</label>
						</div>
						<div className="mt-3 grid grid-cols-2 gap-2">
							<button type="button" className="btn min-h-[56px]" disabled={!ready} onClick={() => mark('touchdown')}>
								Touchdown <span className="font-normal max-lg:hidden">D</span>
							</button>
							<button type="button" className="btn min-h-[56px]" disabled={!ready} onClick={() => mark('toe-off')}>
								Toe-off <span className="font-normal max-lg:hidden">O</span>
							</button>
						</div>
						<div className="mt-3">
							<PosturePanel picked={picked} frame={film.frame} ready={ready} onChange={setPicked} onShow={show} />
						</div>
						<p className="dim mt-2 text-[13.5px] max-lg:hidden">
							Arrow keys step one frame, with Shift ten. Click the picture to choose where the zoom looks.
						</p>
					</div>
					<div className="grid content-start gap-4">
						<div className="grid grid-cols-2 gap-3">
							<label className="field">
								<span className="label">
									Filmed at <span className="dim font-normal">frames a second</span>
								</span>
								<input
									className="input num"
									inputMode="decimal"
									list="filmed-rates"
									value={filmed}
									onChange={(event) => setFilmed(event.target.value)}
									placeholder="240"
								/>
								<datalist id="filmed-rates">
									{FILMED_RATES.map((rate) => (
										<option key={rate}>{rate}</option>
									))}
								</datalist>
							</label>
							<label className="field">
								<span className="label">
									Stored at <span className="dim font-normal">found</span>
								</span>
								<StoredRate
									key={film.storedFps}
									found={film.storedFps}
									onChange={(rate) => {
										setMarks([])
										setStoredFps(rate)
									}}
								/>
							</label>
						</div>
						<p className="dim -mt-2 text-[13.5px]">
							{filmedFps === null
								? 'Say at which rate the camera filmed: a slow-motion file is often stored at 30.'
								: film.storedFps !== null && filmedFps !== film.storedFps
									? `Stored ${(filmedFps / film.storedFps).toFixed(filmedFps % film.storedFps ? 1 : 0)} times slower than it happened.`
									: 'Filmed and stored at the same rate.'}
						</p>
						<fieldset className="flex items-center gap-3">
							<legend className="sr-only">Foot of the next touchdown</legend>
							<span className="label">Foot</span>
							{(
								[
									['', 'not said'],
									['left', 'left'],
									['right', 'right'],
								] as const
							).map(([value, words]) => (
								<label key={words} className="flex min-h-[44px] items-center gap-1.5">
									<input
										type="radio"
										name="foot"
										className="size-5 accent-act"
										checked={side === value}
										onChange={() => setSide(value)}
									/>
									{words}
								</label>
							))}
						</fieldset>
						{read.problem && (
							<p className="problem" role="alert">
								{read.problem}
							</p>
						)}
						<ol>
							{marks.map((one) => (
								<li key={one.frame} className="rule flex items-center justify-between gap-2">
									<button type="button" className="min-h-[44px] flex-1 text-left" onClick={() => show(one.frame)}>
										<span className="num inline-block w-[64px]">{one.frame}</span>
										{one.kind === 'touchdown' ? 'Touchdown' : 'Toe-off'}
										{one.side && <span className="dim">, {one.side}</span>}
									</button>
									<button
										type="button"
										className="dim size-[44px] text-[20px]"
										aria-label={`Remove ${one.kind} at frame ${one.frame}`}
										onClick={() => unmark(one.frame)}
									>
										×
									</button>
								</li>
							))}
						</ol>
						{marks.length === 0 && <p className="dim">No frame marked yet.</p>}
					</div>
				</div>
			)}
			{read.contacts.length > 0 && <ContactList contacts={read.contacts} />}
			{read.contacts.length > 0 && filmedFps !== null && (
				<SavePanel
					calculation="rebound"
					method="film"
					ofRep
					people={people}
					today={today}
					inputs={read.contacts.flatMap((contact) =>
						contact.rebound && contact.flightTimeS !== null
							? [{ contact_time_s: contact.contactTimeS, flight_time_s: contact.flightTimeS, fps: filmedFps }]
							: [],
					)}
				/>
			)}
			{picked && jointsOf(picked) && (
				<SavePanel
					title="Keep the angles with an athlete"
					calculation="posture"
					method="film"
					ofRep
					people={people}
					today={today}
					inputs={[{ ...jointsOf(picked) }]}
				/>
			)}
			<About
				formula="Time = frames / filmed rate; standard error 1/(rate·√6), worst case one frame. RSI = g t²/8 of the flight over the contact, with the shared take-off frame counted in its error."
				source="Flight time: Bosco, Luhtanen & Komi 1983; the error follows from even errors within one frame."
				limits="The first frame with the foot down and the first with it off must be seen: film low and close. Under five frames of contact the film is too coarse. Phones that vary their rate while filming shift the result by that much."
			/>
		</div>
	)
}

/** Frames are numbered by the stored rate, so a rate typed by hand makes earlier marks meaningless: taken over on leaving the box or Enter, not at every digit. */
function StoredRate({ found, onChange }: { found: number | null; onChange: (rate: number) => void }) {
	const [typed, setTyped] = useState(found === null ? '' : String(found))
	const take = () => {
		const rate = readTyped(typed)
		if (rate !== null && rate >= 1 && rate !== found) onChange(rate)
		else setTyped(found === null ? '' : String(found))
	}
	return (
		<input
			className="input num"
			inputMode="decimal"
			value={typed}
			onChange={(event) => setTyped(event.target.value)}
			onBlur={take}
			onKeyDown={(event) => {
				if (event.key === 'Enter') take()
			}}
		/>
	)
}

function FrameSlider({
	frame,
	frames,
	marks,
	disabled,
	onShow,
}: {
	frame: number
	frames: number
	marks: readonly FilmMark[]
	disabled: boolean
	onShow: (frame: number) => void
}) {
	const last = Math.max(frames - 1, 1)
	return (
		<div className="mt-3">
			<input
				type="range"
				className="h-[44px] w-full accent-act"
				min={0}
				max={last}
				step={1}
				value={frame}
				disabled={disabled}
				aria-label="Frame"
				aria-valuetext={`frame ${frame}`}
				onChange={(event) => onShow(Number(event.target.value))}
			/>
			<svg className="block w-full" height="14" aria-hidden>
				{marks.map((one) => (
					<rect
						key={one.frame}
						x={`${0.6 + (one.frame / last) * 98.8}%`}
						y={one.kind === 'touchdown' ? 0 : 7}
						width="2.5"
						height="7"
						fill={one.kind === 'touchdown' ? 'var(--color-ink)' : 'var(--color-act)'}
					/>
				))}
			</svg>
		</div>
	)
}

/** Hops of a series that are averaged, the best of it [common practice]. */
const BEST_HOPS = 5

function ContactList({ contacts }: { contacts: readonly FilmContact[] }) {
	const best = contacts.filter((contact) => contact.rebound).sort((a, b) => b.rebound!.rsiMps - a.rebound!.rsiMps)[0]
	const [left, right] = [meanIndexOf(contacts, 'left'), meanIndexOf(contacts, 'right')]
	const first = contacts[0]!
	const series = contacts.flatMap(({ contactTimeS, flightTimeS, rebound }) =>
		rebound && flightTimeS !== null ? [{ contactTimeS, flightTimeS }] : [],
	)
	const hops = series.length > BEST_HOPS ? bestHops(series, BEST_HOPS) : null
	return (
		<section className="rule mt-8 pt-5">
			<Numbers>
				<BigNumber
					label={contacts.length === 1 ? 'Contact' : 'Shortest contact'}
					value={(Math.min(...contacts.map((contact) => contact.contactTimeS)) * 1000).toFixed(0)}
					unit="ms"
					error={first.rebound?.error ? `${(first.rebound.error.contactTimeS * 1000).toFixed(1)} ms` : null}
				/>
				{best?.rebound && (
					<BigNumber
						label={contacts.length === 1 ? 'Index, RSI' : 'Best index, RSI'}
						value={best.rebound.rsiMps.toFixed(2)}
						unit="m/s"
						error={best.rebound.error ? best.rebound.error.rsiMps.toFixed(2) : null}
					/>
				)}
				{hops !== null && <BigNumber label={`Mean of the best ${BEST_HOPS}, RSI`} value={hops.toFixed(2)} unit="m/s" />}
				{left !== null && right !== null && (
					<BigNumber
						label="Left against right, mean RSI"
						value={`${left.toFixed(2)} : ${right.toFixed(2)}`}
						unit="m/s"
					/>
				)}
			</Numbers>
			<Warnings warnings={[...new Set(contacts.flatMap((contact) => contact.rebound?.warnings ?? []))]} />
			<div className="overflow-x-auto">
				<table className="mt-4 w-full min-w-[560px] border-collapse">
					<thead>
						<tr className="dim text-left text-[13.5px]">
							{['Contact', 'Foot', 'Contact, ms', 'Flight, ms', 'Rebound, cm', 'RSI, m/s', 'Steps a second'].map(
								(head, index) => (
									<th key={head} scope="col" className={`py-1 font-normal ${index > 1 ? 'text-right' : ''}`}>
										{head}
									</th>
								),
							)}
						</tr>
					</thead>
					<tbody>
						{contacts.map((contact, index) => (
							<tr
								key={contact.touchdownFrame}
								className={`border-t border-chalk ${contact === best && contacts.length > 1 ? 'font-bold' : ''}`}
							>
								<td className="num py-1.5">{index + 1}</td>
								<td>{contact.side ?? <span className="dim">–</span>}</td>
								<td className="num text-right">{(contact.contactTimeS * 1000).toFixed(0)}</td>
								<td className="num text-right">
									{contact.flightTimeS === null ? '–' : (contact.flightTimeS * 1000).toFixed(0)}
								</td>
								<td className="num text-right">
									{contact.rebound
										? `${(contact.rebound.heightM * 100).toFixed(1)} ± ${(contact.rebound.error!.heightM * 100).toFixed(1)}`
										: '–'}
								</td>
								<td className="num text-right">
									{contact.rebound
										? `${contact.rebound.rsiMps.toFixed(2)} ± ${contact.rebound.error!.rsiMps.toFixed(2)}`
										: '–'}
								</td>
								<td className="num text-right">
									{contact.stepFrequencyHz === null ? '–' : contact.stepFrequencyHz.toFixed(2)}
								</td>
							</tr>
						))}
					</tbody>
				</table>
			</div>
		</section>
	)
}
