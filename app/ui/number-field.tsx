import type { ComponentProps } from 'react'
import { readNumber } from '#core/measure/read-number'
import { useTyped } from './typed'

/** What was typed where a number belongs: the number, or the text as it stands, for the check to say what is wrong with it. */
export const typedNumber = (text: string, read: (text: string) => number | null = readNumber): number =>
	read(text) ?? (text as unknown as number)

/** A field for a number that keeps what is typed while it is none yet. */
export function NumberField({
	value,
	onNumber,
	read = readNumber,
	write = String,
	...rest
}: {
	value: number | undefined
	onNumber: (value: number) => void
	read?: (text: string) => number | null
	write?: (value: number) => string
} & Omit<ComponentProps<'input'>, 'value' | 'onChange'>) {
	const [text, type] = useTyped<number | undefined>(
		value,
		(typed) => typedNumber(typed, read),
		(one) => (one === undefined ? '' : typeof one === 'number' ? write(one) : String(one)),
	)
	return (
		<input
			className="input"
			inputMode="decimal"
			{...rest}
			value={text}
			onChange={(event) => {
				type(event.target.value)
				onNumber(typedNumber(event.target.value, read))
			}}
		/>
	)
}
