import type { LogEvent } from '#core/vocabulary/events'
import { REGIONS, REGION_NAMES } from '#core/vocabulary/words'
import type { Drill } from '#core/vocabulary/drill'
import { sayEvent } from '#core/field/say-event'

interface Props {
	last: { events: LogEvent[]; label: string } | null
	drill: Drill | undefined
	assisted: boolean
	onAmend: (event: LogEvent, change: Partial<LogEvent>) => void
	onComfort: (worst: number, braking: boolean) => void
}

const CHIP = 'num min-h-[48px] shrink-0 border border-ink px-3 text-[15px] aria-pressed:bg-ink aria-pressed:text-paper'

/** One tap more about what was just saved: the fault behind a poor rep, why one was missed, how an assisted run felt. */
export function FollowUp({ last, drill, assisted, onAmend, onComfort }: Props) {
	const event = last?.events[0]
	if (!last || !event)
		return (
			<p data-at="more" className="px-4 py-1.5 text-[14px]">
				Quality goes to the last rep saved.
			</p>
		)
	const chips = chipsFor(event, drill)
	return (
		<div data-at="more" className="border-b border-chalk px-4 py-1" aria-live="polite">
			<p className="truncate text-[14px]">
				Last: <b>{last.label}</b>
			</p>
			{(chips.length > 0 || (assisted && event.type === 'mark')) && (
				<div className="mt-1 flex gap-1.5 overflow-x-auto pb-1" role="group" aria-label="More about the last one">
					{chips.map((chip) => (
						<button
							key={chip.label}
							type="button"
							className={CHIP}
							aria-pressed={chip.on}
							onClick={() => onAmend(event, chip.change)}
						>
							{chip.label}
						</button>
					))}
					{assisted && event.type === 'mark' && (
						<>
							<span className="self-center text-[14px]">Felt</span>
							{[0, 1, 2, 3, 4, 5].map((worst) => (
								<button
									key={worst}
									type="button"
									className={CHIP}
									onClick={() => onComfort(worst, false)}
									aria-label={`Comfort ${worst} of 5`}
								>
									{worst}
								</button>
							))}
							<button type="button" className={CHIP} onClick={() => onComfort(3, true)}>
								braked
							</button>
						</>
					)}
				</div>
			)}
		</div>
	)
}

type Quality = Extract<LogEvent, { kind: 'quality' }>['value']
const faultsOf = ({ fault, faults = [] }: Quality): string[] => [...faults, ...(fault ? [fault] : [])]
/** A grade with a fault more, or without it: a rep may have several. */
function withFault({ fault: _one, faults: _several, ...graded }: Quality & { fault?: string }, fault: string): Quality {
	const before = faultsOf({ ...graded, ...(_one ? { fault: _one } : {}), ...(_several ? { faults: _several } : {}) })
	const now = before.includes(fault) ? before.filter((one) => one !== fault) : [...before, fault]
	return now.length === 0 ? graded : { ...graded, faults: now }
}

function chipsFor(
	event: LogEvent,
	drill: Drill | undefined,
): { label: string; on: boolean; change: Partial<LogEvent> }[] {
	if (event.kind === 'quality' && event.value.grade !== 'good')
		return (drill?.faults ?? []).map(({ fault }) => ({
			label: fault,
			on: faultsOf(event.value).includes(fault),
			change: { value: withFault(event.value, fault) } as Partial<LogEvent>,
		}))
	if (event.kind === 'missed')
		return (['aborted', 'false-start', 'no-time'] as const).map((reason) => ({
			label: sayEvent({ ...event, value: { reason } }),
			on: event.value.reason === reason,
			change: { value: { reason } } as Partial<LogEvent>,
		}))
	if (event.kind === 'worry')
		return REGIONS.filter((region) => (drill?.regions[region] ?? 0) > 0).map((region) => ({
			label: REGION_NAMES[region],
			on: event.value.region === region,
			change: { value: { ...event.value, region } } as Partial<LogEvent>,
		}))
	return []
}
