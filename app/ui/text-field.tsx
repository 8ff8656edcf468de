import { useId } from 'react'

interface Props extends React.InputHTMLAttributes<HTMLInputElement> {
	label: string
	problem?: string | undefined
	hint?: string
}

/** A labelled input with the sentence about what is wrong beside it. */
export function TextField({ label, problem, hint, className = '', ...input }: Props) {
	const id = useId()
	return (
		<div className={`field ${className}`}>
			<label htmlFor={id}>{label}</label>
			<input
				id={id}
				className="input"
				aria-invalid={problem !== undefined}
				aria-describedby={problem || hint ? `${id}-say` : undefined}
				{...input}
			/>
			{(problem ?? hint) && (
				<p id={`${id}-say`} className={problem ? 'problem' : 'dim text-[13.5px]'}>
					{problem ?? hint}
				</p>
			)}
		</div>
	)
}
