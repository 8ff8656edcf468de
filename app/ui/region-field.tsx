import { REGIONS, REGION_NAMES } from '#core/vocabulary/words'

/** One region of the body, to be picked. */
export function RegionField({ label, problem }: { label: string; problem: string | undefined }) {
	return (
		<label className="field">
			<span className="label">{label}</span>
			<select name="region" className="input" defaultValue="">
				<option value="" disabled>
					Choose
				</option>
				{REGIONS.map((region) => (
					<option key={region} value={region}>
						{REGION_NAMES[region]}
					</option>
				))}
			</select>
			{problem && (
				<span className="problem" role="alert">
					{problem}
				</span>
			)}
		</label>
	)
}
