import { Popover } from 'radix-ui'

/** What the numbers that decide mean, in one or two sentences each; the same words wherever the number stands. */
const TERMS = {
	usual: {
		name: 'Usual',
		says: 'The middle of the last eight sessions measured alike: same drill, distance, start, method, side and ground. A number beside it says how far an ordinary day and an ordinary rep move it.',
	},
	noise: {
		name: 'Beyond noise',
		says: 'More than the smallest change that chance alone would show in one of twenty. What is smaller may be nothing at all.',
	},
	contacts: {
		name: 'Contacts',
		says: 'Landings and take-offs of moderate intensity and harder. A landing on both feet is one. Low ones, of skips and pogos, stand apart; sprint steps are not counted.',
	},
	fastMetres: {
		name: 'Fast metres',
		says: 'Metres run at 95 % of the own best and more, the first strides up to 90 % left out.',
	},
	cuts: { name: 'Cuts', says: 'Changes of direction of 60° and more, left and right together.' },
	monotony: {
		name: 'Monotony and strain',
		says: 'Effort minutes are effort from 0 to 10 times minutes. Monotony is their mean over seven days by their scatter: near 1 days differ, over 2 they are all alike. Strain is the week’s sum times monotony. (Foster and others 2001)',
	},
	asked: {
		name: 'Against asked',
		says: 'What was done beside what stood on the sheets of the sessions that were held. Over is more than 15 % above, under more than 25 % below, a set of work either way left out.',
	},
	leftRight: {
		name: 'Left and right',
		says: 'Which side is ahead and by how much of the stronger one. It counts only when it is more than the test’s own noise and on the same side several times.',
	},
	verdict: {
		name: 'The verdict',
		says: 'What the rules make of what was logged: up a rung, the same, easier, another drill or stop. The line that decides is marked in the trace. Nothing is set until you say so.',
	},
	range: {
		name: 'Usual range',
		says: 'What a session of the level usually holds. The bracket is the range, the bar what is planned. Contacts are published, metres and cuts a house rule.',
	},
} as const

/** A small mark beside a number that says, on demand, what it is. */
export function WhatIs({ term }: { term: keyof typeof TERMS }) {
	const { name, says } = TERMS[term]
	return (
		<Popover.Root>
			<Popover.Trigger
				type="button"
				className="relative ml-0.5 inline-flex size-4 items-center justify-center rounded-full border border-ink-2 align-middle text-[11px] leading-none font-normal text-ink-2 after:absolute after:-inset-[15px] hover:border-ink hover:text-ink print:hidden"
				aria-label={`What is this: ${name}`}
			>
				?
			</Popover.Trigger>
			<Popover.Portal>
				<Popover.Content
					sideOffset={6}
					collisionPadding={12}
					className="z-30 max-w-[320px] border border-ink bg-paper p-3 text-[15px] leading-snug"
				>
					<b>{name}.</b> {says}
				</Popover.Content>
			</Popover.Portal>
		</Popover.Root>
	)
}
