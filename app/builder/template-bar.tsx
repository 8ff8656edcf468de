import { memo, useRef, useState } from 'react'
import { useFetcher } from 'react-router'
import type { Library } from '#core/vocabulary/library'
import type { SessionTemplate } from '#core/vocabulary/template'
import type { SessionEntry } from '#core/vocabulary/entry'
import type { SessionDraft } from '#core/vocabulary/session'
import { useSubmission } from '../ui/post-form'
import { entriesOfTemplate, templateOf } from './sheet-entries'

export interface KeptTemplate {
	id: string
	name: string
	content: SessionTemplate
}

/** Keeps the sheet for another day, and brings a kept one back; also as a file that anybody can read. */
export const TemplateBar = memo(function TemplateBar({
	draft,
	library,
	templates,
	onUse,
}: {
	draft: SessionDraft
	library: Library
	templates: KeptTemplate[]
	onUse: (entries: SessionEntry[]) => void
}) {
	const keeper = useFetcher<{ kept?: string; problem?: string; template?: SessionTemplate }>()
	const submission = useSubmission(keeper.state)
	const file = useRef<HTMLInputElement>(null)
	const [said, setSaid] = useState<string | null>(null)
	const own = templateOf(draft, library)
	const bring = (template: SessionTemplate) => {
		const { entries, unknown } = entriesOfTemplate(template, library)
		if (entries.length > 0) onUse(entries)
		setSaid(
			unknown.length === 0
				? `${template.name} stands on the sheet.`
				: `Not in this club’s library and left out: ${unknown.join(', ')}.`,
		)
	}
	const read = async (chosen: File | undefined) => {
		if (!chosen) return
		const answer = await fetch('/sessions/templates', {
			method: 'POST',
			headers: { 'content-type': 'application/json' },
			body: await chosen.text(),
		}).catch(() => null)
		const checked = answer
			? ((await answer.json().catch(() => null)) as { template?: SessionTemplate; problem?: string } | null)
			: null
		if (checked?.template) bring(checked.template)
		else setSaid(checked?.problem ?? 'The file could not be checked; nothing has changed.')
		if (file.current) file.current.value = ''
	}
	return (
		<section className="mt-6" aria-label="Templates">
			<h2>Templates</h2>
			<div className="mt-1 flex flex-wrap gap-2">
				<button
					type="button"
					className="btn btn-quiet"
					disabled={own === null || keeper.state !== 'idle'}
					onClick={() =>
						own &&
						void keeper.submit(
							{ submission, template: JSON.stringify(own) },
							{ method: 'post', action: '/sessions/templates' },
						)
					}
				>
					Keep this one
				</button>
				{own && (
					<a
						className="btn btn-quiet"
						download={`${own.name.toLowerCase().replace(/[^a-z0-9]+/g, '-')}.json`}
						href={`data:application/json;charset=utf-8,${encodeURIComponent(JSON.stringify(own, null, '\t'))}`}
					>
						As a file
					</a>
				)}
				<button type="button" className="btn btn-quiet" onClick={() => file.current?.click()}>
					From a file
				</button>
				<input
					ref={file}
					type="file"
					accept="application/json,.json"
					className="sr-only"
					tabIndex={-1}
					aria-label="Template file"
					onChange={(event) => void read(event.target.files?.[0])}
				/>
			</div>
			{templates.length > 0 && (
				<ul className="mt-1">
					{templates.map((template) => (
						<li key={template.id} className="rule flex items-center justify-between gap-2 py-1">
							<span className="min-w-0 truncate">
								{template.name} <span className="dim">{template.content.minutes} min</span>
							</span>
							<span className="flex gap-1">
								<button
									type="button"
									className="btn btn-quiet"
									aria-label={`Use ${template.name}`}
									onClick={() => bring(template.content)}
								>
									Use
								</button>
								<button
									type="button"
									className="btn btn-quiet"
									aria-label={`Forget ${template.name}`}
									onClick={() =>
										void keeper.submit(
											{ submission, forget: template.id },
											{ method: 'post', action: '/sessions/templates' },
										)
									}
								>
									Forget
								</button>
							</span>
						</li>
					))}
				</ul>
			)}
			{(said ?? keeper.data?.problem ?? (keeper.data?.kept && `Kept as ${keeper.data.kept}.`)) && (
				<p className="mt-1 text-[14px]" role="status">
					{said ?? keeper.data?.problem ?? `Kept as ${keeper.data?.kept}.`}
				</p>
			)}
		</section>
	)
})
