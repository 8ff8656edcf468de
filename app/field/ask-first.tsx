import { AlertDialog } from 'radix-ui'
import { useUnits } from './units'
import { useGiveBack } from './give-back'

/** A tap that is about several athletes asks once; one undo takes all of it back. */
export function AskFirst({ words, onYes, onNo }: { words: string; onYes: () => void; onNo: () => void }) {
	const { asRead } = useUnits()
	const giveBack = useGiveBack()
	return (
		<AlertDialog.Root open onOpenChange={(open) => !open && onNo()}>
			<AlertDialog.Portal>
				<AlertDialog.Content
					{...giveBack}
					className="sun fixed inset-0 z-30 flex flex-col justify-end bg-paper p-4 pb-[max(1rem,env(safe-area-inset-bottom))] text-ink"
					aria-describedby={undefined}
				>
					<div className="mx-auto grid w-full max-w-[560px] gap-3 border-t-4 border-ink pt-4">
						<AlertDialog.Title asChild>
							<h1 className="text-[20px] leading-snug font-semibold">{asRead(words)}</h1>
						</AlertDialog.Title>
						<div className="grid grid-cols-2 gap-2">
							<AlertDialog.Cancel asChild>
								<button type="button" className="btn btn-quiet min-h-[64px]">
									No, go on
								</button>
							</AlertDialog.Cancel>
							<button type="button" className="btn min-h-[64px]" onClick={onYes}>
								Yes
							</button>
						</div>
					</div>
				</AlertDialog.Content>
			</AlertDialog.Portal>
		</AlertDialog.Root>
	)
}
