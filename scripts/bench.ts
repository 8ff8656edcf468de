import { benchCareers } from '../benchmarks/careers'
import { benchCore } from '../benchmarks/core'
import { benchField } from '../benchmarks/field'
import { benchLoad } from '../benchmarks/load'
import { benchPages } from '../benchmarks/pages'
import { benchPair } from '../benchmarks/pair'
import { benchTyping } from '../benchmarks/typing'
import { PlainError } from './plain-error'
import { runCommand } from './run-command'

const PARTS: Record<string, () => void | Promise<void>> = {
	core: benchCore,
	field: benchField,
	pages: benchPages,
	load: benchLoad,
	careers: benchCareers,
	pair: benchPair,
	typing: benchTyping,
}

/** npm run bench -- [core|field|pages|load|careers|pair|typing …]: all of them when none is named. */
await runCommand(async () => {
	const asked = process.argv.slice(2)
	const unknown = asked.find((name) => !(name in PARTS))
	if (unknown !== undefined) throw new PlainError(`${unknown}: not known. ${Object.keys(PARTS).join(', ')} are.`)
	for (const name of asked.length > 0 ? asked : Object.keys(PARTS)) await PARTS[name]?.()
	process.exit(0)
})
