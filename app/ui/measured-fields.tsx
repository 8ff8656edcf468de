import { useState } from 'react'
import { parameterTyped } from '#core/measure/quantity'
import { METHODS_OF, METHOD_NAMES } from '#core/vocabulary/words'
import type { Testable } from '#core/record/battery'
import { useUnits } from '../field/units'

/** What is measured, in a form: a drill, what of it varies, and how it is taken. */
export function MeasuredFields({ label, testable }: { label: string; testable: readonly Testable[] }) {
	const { units } = useUnits()
	const [drillId, setDrill] = useState('')
	const drill = testable.find((one) => one.drillId === drillId)
	return (
		<>
			<label className="field max-sm:col-span-2">
				<span className="label">{label}</span>
				<select className="input" name="drill" value={drillId} onChange={(event) => setDrill(event.target.value)}>
					<option value="">pick one</option>
					{testable.map((one) => (
						<option key={one.drillId} value={one.drillId}>
							{one.name}
						</option>
					))}
				</select>
			</label>
			<label className="field">
				<span className="label">
					{drill?.varies ? parameterTyped(drill.varies.name, units).unit || 'Distance' : 'Amount'}
				</span>
				<input
					className="input num"
					name="amount"
					inputMode="decimal"
					defaultValue={drill?.varies ? parameterTyped(drill.varies.name, units).write(drill.varies.usual) : ''}
					key={drillId}
					readOnly={!drill?.varies}
				/>
			</label>
			<label className="field">
				<span className="label">Taken by</span>
				<select className="input" name="method" key={drill?.kind}>
					{(drill ? METHODS_OF[drill.kind] : []).map((method) => (
						<option key={method} value={method}>
							{METHOD_NAMES[method]}
						</option>
					))}
				</select>
			</label>
		</>
	)
}
