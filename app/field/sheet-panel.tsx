import { Dialog } from 'radix-ui'
import { useGiveBack } from './give-back'

/** A panel over the whole field screen; Escape and Close lead back. */
export function SheetPanel({
	title,
	onClose,
	children,
}: {
	title: string
	onClose: () => void
	children: React.ReactNode
}) {
	const giveBack = useGiveBack()
	return (
		<Dialog.Root open onOpenChange={(open) => !open && onClose()}>
			<Dialog.Portal>
				<Dialog.Content
					{...giveBack}
					className="sun fixed inset-0 z-20 overflow-auto bg-paper p-4 text-ink"
					aria-describedby={undefined}
				>
					<div className="mx-auto max-w-[560px]">
						<div className="flex items-center justify-between gap-3">
							<Dialog.Title
								className="text-[26px] leading-tight font-semibold"
								style={{ fontFamily: 'var(--font-head)' }}
							>
								{title}
							</Dialog.Title>
							<Dialog.Close className="btn btn-quiet min-h-[64px]">Close</Dialog.Close>
						</div>
						{children}
					</div>
				</Dialog.Content>
			</Dialog.Portal>
		</Dialog.Root>
	)
}

export const CHOICE =
	'num min-h-[64px] border border-ink px-2 text-[16px] leading-tight font-medium aria-pressed:bg-ink aria-pressed:text-paper disabled:text-ink-2'
export const PANEL_HEADING = 'num mt-5 text-[17px] font-semibold'
