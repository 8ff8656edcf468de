import { useRef } from 'react'

/** Rows that are pasted, or read out of a file into the same box, where they are seen. */
export function PasteOrFile({
	label,
	placeholder,
	text,
	isShort,
}: {
	label: string
	placeholder: string
	text: string
	isShort: boolean
}) {
	const area = useRef<HTMLTextAreaElement>(null)
	return (
		<>
			<div className="field">
				<label htmlFor="list">{label}</label>
				<textarea
					ref={area}
					id="list"
					name="text"
					rows={isShort ? 5 : 9}
					className="input font-mono text-[14px]"
					spellCheck={false}
					wrap="off"
					placeholder={placeholder}
					defaultValue={text}
				/>
			</div>
			<label className="field">
				<span className="label">Or its file</span>
				<input
					type="file"
					accept=".csv,.tsv,.txt,text/csv,text/plain"
					className="input"
					onChange={(event) => {
						const file = event.currentTarget.files?.[0]
						void file?.text().then((read) => {
							if (area.current) area.current.value = read
						})
					}}
				/>
			</label>
		</>
	)
}
