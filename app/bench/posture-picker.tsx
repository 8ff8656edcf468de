import { type RefObject, useState } from 'react'
import { type Joints, type PicturePoint, readPosture } from '#core/measure/film/posture'
import { MeasureError } from '#core/measure/measure-error'
import { BigNumber, Numbers } from './result-parts'

const JOINTS = ['shoulder', 'hip', 'knee', 'ankle'] as const

/** The joints clicked on one frame. */
export interface Picked {
	frame: number
	points: PicturePoint[]
	runs: Joints['runs']
}
/** Four joints as they are measured; null until all are there. */
export const jointsOf = ({ points, runs }: Picked): Joints | null => {
	const [shoulder, hip, knee, ankle] = points
	return shoulder && hip && knee && ankle ? { shoulder, hip, knee, ankle, runs } : null
}

/** What is picked, and how a click on the picture adds to it. */
export function usePicked(drawing: RefObject<SVGSVGElement | null>) {
	const [picked, setPicked] = useState<Picked | null>(null)
	const isPicking = picked !== null && picked.points.length < JOINTS.length
	/** True when the click was a joint's. */
	function pick(clientX: number, clientY: number, frame: number): boolean {
		const matrix = drawing.current?.getScreenCTM()
		if (!isPicking || !matrix || frame !== picked.frame) return false
		const { x, y } = new DOMPoint(clientX, clientY).matrixTransform(matrix.inverse())
		setPicked({ ...picked, points: [...picked.points, { x, y }] })
		return true
	}
	return { picked, setPicked, isPicking, pick }
}

/** The limbs drawn on the frame they were clicked on. */
export function Limbs({ points }: { points: readonly PicturePoint[] }) {
	return (
		<>
			{/* White on black: seen on whatever is filmed. */}
			{(['#000', '#fff'] as const).map((stroke, index) => (
				<polyline
					key={stroke}
					points={points.map(({ x, y }) => `${x},${y}`).join(' ')}
					fill="none"
					stroke={stroke}
					strokeWidth={index === 0 ? 6 : 2.5}
					vectorEffect="non-scaling-stroke"
				/>
			))}
			{points.map(({ x, y }, index) => (
				<path
					key={index}
					d={`M${x} ${y}h0`}
					stroke="#000"
					strokeWidth="11"
					strokeLinecap="round"
					vectorEffect="non-scaling-stroke"
				/>
			))}
			{points.map(({ x, y }, index) => (
				<path
					key={index}
					d={`M${x} ${y}h0`}
					stroke="#fff"
					strokeWidth="6"
					strokeLinecap="round"
					vectorEffect="non-scaling-stroke"
				/>
			))}
		</>
	)
}

/** Asks for the joints one after the other, and says what their angles are. */
export function PosturePanel({
	picked,
	frame,
	ready,
	onChange,
	onShow,
}: {
	picked: Picked | null
	frame: number
	ready: boolean
	onChange: (picked: Picked | null) => void
	onShow: (frame: number) => void
}) {
	const next = picked && JOINTS[picked.points.length]
	return (
		<section aria-label="Angles on a frame">
			<div className="flex flex-wrap items-center gap-2">
				<button
					type="button"
					className="btn btn-quiet"
					disabled={!ready}
					onClick={() => onChange({ frame, points: [], runs: picked?.runs ?? 'right' })}
				>
					{picked ? 'Angles anew on this frame' : 'Angles on this frame'}
				</button>
				{picked && (
					<label className="flex min-h-[44px] items-center gap-2">
						Runs to the
						<select
							className="input w-auto"
							value={picked.runs}
							onChange={(event) => onChange({ ...picked, runs: event.target.value as Joints['runs'] })}
						>
							<option>right</option>
							<option>left</option>
						</select>
					</label>
				)}
			</div>
			{picked && (
				<p className="mt-1 text-[14px]" role="status">
					{picked.frame !== frame ? (
						<button type="button" className="link min-h-[44px]" onClick={() => onShow(picked.frame)}>
							back to frame {picked.frame}
						</button>
					) : next ? (
						<>
							Click the <b>{next}</b> on the picture, of the side nearer the camera.
						</>
					) : (
						`Frame ${picked.frame}.`
					)}
				</p>
			)}
			{picked && <Angles picked={picked} />}
		</section>
	)
}

function Angles({ picked }: { picked: Picked }) {
	const joints = jointsOf(picked)
	if (!joints) return null
	try {
		const { trunkDeg, shinDeg, kneeDeg, errorDeg } = readPosture(joints)
		const whole = (value: number) => `${Math.round(value) < 0 ? '−' : ''}${Math.abs(Math.round(value))}`
		return (
			<Numbers>
				<BigNumber
					label="Trunk from the vertical"
					value={whole(trunkDeg)}
					unit="°"
					error={`${Math.ceil(errorDeg.trunkDeg)}°`}
				/>
				<BigNumber
					label="Shin from the vertical"
					value={whole(shinDeg)}
					unit="°"
					error={`${Math.ceil(errorDeg.shinDeg)}°`}
				/>
				<BigNumber label="Knee, 180 is straight" value={whole(kneeDeg)} unit="°" />
			</Numbers>
		)
	} catch (problem) {
		if (!(problem instanceof MeasureError)) throw problem
		return (
			<p className="problem" role="alert">
				Too small on the picture to have an angle: zoom in and click again, {problem.expected}.
			</p>
		)
	}
}
