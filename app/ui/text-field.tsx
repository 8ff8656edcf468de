import { type ReactNode, useId } from 'react'
import { ClockInput, DayInput } from './day-input'
import { useTyped } from './typed'

interface Frame {
	label: string
	problem?: string | undefined
	hint?: string
	className?: string
}
interface Props extends Frame, Omit<React.InputHTMLAttributes<HTMLInputElement>, 'className'> {}

/** What every field of a form has around it: its label, and the sentence about what is wrong. */
function FieldFrame({
	label,
	problem,
	hint,
	className = '',
	children,
}: Frame & {
	children: (input: { id: string; 'aria-invalid': boolean; 'aria-describedby': string | undefined }) => ReactNode
}) {
	const id = useId()
	return (
		<div className={`field ${className}`}>
			<label htmlFor={id}>{label}</label>
			{children({
				id,
				'aria-invalid': problem !== undefined,
				'aria-describedby': problem || hint ? `${id}-say` : undefined,
			})}
			{(problem ?? hint) && (
				<p id={`${id}-say`} className={problem ? 'problem' : 'dim text-[13.5px]'}>
					{problem ?? hint}
				</p>
			)}
		</div>
	)
}

/** A labelled input with the sentence about what is wrong beside it. */
export function TextField({ label, problem, hint, className, ...input }: Props) {
	return (
		<FieldFrame label={label} problem={problem} hint={hint} className={className}>
			{(around) => <input className="input" {...around} {...input} />}
		</FieldFrame>
	)
}

/** An input whose page may draw what is typed later than the key. */
export function TypedInput({
	value,
	onText,
	...rest
}: { value: string; onText: (text: string) => void } & Omit<React.ComponentProps<'input'>, 'value' | 'onChange'>) {
	const [text, type] = useTyped(value, String, String)
	return (
		<input
			{...rest}
			value={text}
			onChange={(event) => {
				type(event.target.value)
				onText(event.target.value)
			}}
		/>
	)
}
/** The same, labelled. */
export function TypedField({
	label,
	problem,
	hint,
	className,
	...input
}: Frame & Omit<React.ComponentProps<typeof TypedInput>, 'className'>) {
	return (
		<FieldFrame label={label} problem={problem} hint={hint} className={className}>
			{(around) => <TypedInput className="input" {...around} {...input} />}
		</FieldFrame>
	)
}

/** A labelled day. */
export function DayField({
	label,
	problem,
	hint,
	className,
	...input
}: Frame & Omit<React.ComponentProps<typeof DayInput>, 'className'>) {
	return (
		<FieldFrame label={label} problem={problem} hint={hint} className={className}>
			{(around) => <DayInput {...around} {...input} />}
		</FieldFrame>
	)
}

/** A labelled time of day. */
export function ClockField({
	label,
	problem,
	hint,
	className,
	...input
}: Frame & Omit<React.ComponentProps<typeof ClockInput>, 'className'>) {
	return (
		<FieldFrame label={label} problem={problem} hint={hint} className={className}>
			{(around) => <ClockInput {...around} {...input} />}
		</FieldFrame>
	)
}
