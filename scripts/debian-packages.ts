import { spawnSync } from 'node:child_process'
import { existsSync } from 'node:fs'
import { PlainError } from './plain-error'

const works = (command: string, ...args: string[]) => spawnSync(command, args, { stdio: 'ignore' }).status === 0

/** The first of the given programs that is there. */
export const firstExisting = (...files: string[]): string | null => files.find((file) => existsSync(file)) ?? null

/** Installs Debian packages where that is permitted without asking for a password; otherwise says the command to run. */
export function installDebianPackages(packages: string[], why: string): void {
	const command = `apt-get install -y --no-install-recommends ${packages.join(' ')}`
	const root = process.getuid?.() === 0
	const sudo = !root && works('sudo', '-n', 'true')
	if (!existsSync('/usr/bin/apt-get') || (!root && !sudo)) {
		throw new PlainError(
			`${why} is missing. Install it and start again:\n\n    sudo apt-get update && sudo ${command}\n`,
		)
	}
	console.log(`Installing ${packages.join(', ')} from Debian's packages …`)
	const prefix = sudo ? ['sudo', '-n'] : []
	const run = (line: string) => {
		const [program = '', ...args] = [...prefix, ...line.split(' ')]
		// No service of the package's own is wanted: ours runs on its own directory and port.
		return (
			spawnSync(program, args, {
				stdio: ['ignore', 'ignore', 'inherit'],
				env: { ...process.env, DEBIAN_FRONTEND: 'noninteractive', RUNLEVEL: '1' },
			}).status === 0
		)
	}
	if (!run('apt-get update -q') || !run(command)) {
		throw new PlainError(
			`${why} could not be installed. Run this by hand and start again:\n\n    ${sudo ? 'sudo ' : ''}${command}\n`,
		)
	}
}
