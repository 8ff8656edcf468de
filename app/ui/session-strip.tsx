import { useId } from 'react'
import type { StripPart } from '#core/plan/session-strip'

/** What a part costs, in the order a coach counts. */
function costOf(part: StripPart): string {
	const costs = [
		part.contacts > 0 && `${part.contacts} contacts`,
		part.lowContacts > 0 && `${part.lowContacts} low`,
		part.fastMetres > 0 && `${part.fastMetres} m fast`,
		part.cuts > 0 && `${part.cuts} cuts`,
		part.throws > 0 && `${part.throws} throws`,
	].filter((cost) => cost !== false)
	return costs.slice(0, 2).join(' · ')
}

/**
 * The session as one measure of minutes: parts as lengths, contacts as ticks below, hard stretches
 * hatched. `done` is the share of each part that has been done, 0–1.
 */
export function SessionStrip({
	parts,
	done,
	compact = false,
}: {
	parts: StripPart[]
	done?: number[]
	compact?: boolean
}) {
	const id = useId()
	const total = parts.reduce((sum, part) => sum + Math.max(part.minutes, 1), 0)
	if (total === 0) return null
	return (
		<>
			<ol className="flex w-full list-none gap-[3px]" aria-label={`Session, about ${Math.round(total)} minutes`}>
				{parts.map((part, index) => {
					const colour = `var(--color-${part.family})`
					const ticks = Math.min(part.contacts + part.lowContacts, 60)
					const share = done?.[index] ?? 0
					return (
						<li
							key={`${part.name}-${index}`}
							className={compact ? 'min-w-0' : 'min-w-[min(26px,var(--even))] sm:min-w-[min(62px,var(--even))]'}
							style={
								{
									flex: `${Math.max(part.minutes, 1)} 1 0`,
									'--even': `calc(${100 / parts.length}% - 3px)`,
								} as React.CSSProperties
							}
						>
							{!compact && (
								<p
									className={`hidden truncate text-[13px] leading-5 sm:block ${part.hard ? 'font-bold' : ''}`}
									style={{ fontFamily: 'var(--font-head)' }}
									title={part.name}
								>
									{part.name}
								</p>
							)}
							<svg
								className="block w-full"
								height={compact ? 14 : 34}
								role="img"
								aria-label={`${part.name}: about ${Math.round(part.minutes)} minutes, ${costOf(part) || 'no counted load'}${part.hard ? ', hard' : ''}${share > 0 ? `, ${Math.round(share * 100)} % done` : ''}`}
							>
								<defs>
									<pattern
										id={`${id}-${index}`}
										width="7"
										height="7"
										patternTransform="rotate(45)"
										patternUnits="userSpaceOnUse"
									>
										<line x1="0" y1="0" x2="0" y2="7" stroke={colour} strokeWidth="2.4" opacity="0.4" />
									</pattern>
								</defs>
								<rect
									x="0.75"
									y="0.75"
									width="calc(100% - 1.5px)"
									height={compact ? 12 : 32}
									fill="var(--color-surface)"
									stroke={colour}
									strokeWidth="1.5"
								/>
								{part.hard && (
									<rect
										x="0.75"
										y="0.75"
										width="calc(100% - 1.5px)"
										height={compact ? 12 : 32}
										fill={`url(#${id}-${index})`}
									/>
								)}
								{share > 0 && (
									<rect x="0" y={compact ? 7 : 27} width={`${Math.min(100, share * 100)}%`} height="7" fill={colour} />
								)}
								{!compact && (
									<text
										x="6"
										y="22"
										className="num"
										fontSize="13"
										fontWeight="620"
										fill="var(--color-ink)"
										stroke="var(--color-surface)"
										strokeWidth="4"
										paintOrder="stroke"
									>
										{Math.round(part.minutes)}′
									</text>
								)}
							</svg>
							{!compact && (
								<>
									<svg className="block w-full" height="13" aria-hidden="true">
										{Array.from({ length: ticks }, (_, tick) => {
											const x = `${((tick + 0.5) / ticks) * 100}%`
											return (
												<line
													key={tick}
													x1={x}
													x2={x}
													y1="2"
													y2={part.contacts > 0 && tick < part.contacts ? 12 : 8}
													stroke={colour}
													strokeWidth="1.3"
												/>
											)
										})}
									</svg>
									<p className="dim hidden truncate text-[12.5px] leading-4 sm:block" title={costOf(part)}>
										{costOf(part)}
									</p>
								</>
							)}
						</li>
					)
				})}
			</ol>
			{!compact && (
				<p className="text-[13.5px] leading-snug sm:hidden">
					{parts.map((part, index) => (
						<span key={`${part.name}-${index}`}>
							{index > 0 && ' · '}
							<span className={part.hard ? 'font-bold' : ''}>{part.name}</span>{' '}
							<span className="dim">
								{Math.round(part.minutes)}′{costOf(part) && `, ${costOf(part)}`}
							</span>
						</span>
					))}
				</p>
			)}
		</>
	)
}
