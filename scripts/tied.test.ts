import { spawn, spawnSync } from 'node:child_process'
import { expect, it } from 'vitest'

const alive = (pid: number) => spawnSync('ps', ['-o', 'stat=', '-p', String(pid)], { encoding: 'utf8' }).stdout.trim()
const until = async (is: () => boolean) => {
	for (let i = 0; i < 200 && !is(); i++) await new Promise((resolve) => setTimeout(resolve, 25))
	return is()
}
/** A node process that ties a sleeping one to itself and says both process ids. */
async function parentOfSleeper(more = ''): Promise<{ parent: number; sleeper: number; printed: () => string }> {
	const code = `import { onEnd, spawnTied } from ${JSON.stringify(new URL('./tied.mjs', import.meta.url).href)}
		${more}
		console.log(spawnTied('sleep', ['60'], { stdio: 'ignore' }).pid)`
	const child = spawn(process.execPath, ['--input-type=module', '-e', code], { stdio: ['ignore', 'pipe', 'inherit'] })
	let printed = ''
	child.stdout.on('data', (chunk: Buffer) => (printed += chunk.toString()))
	expect(await until(() => /\d+\n/.test(printed))).toBe(true)
	return { parent: child.pid!, sleeper: Number(/\d+/.exec(printed)![0]), printed: () => printed }
}

it.each(['SIGKILL', 'SIGTERM'] as const)('what is tied ends with its parent on %s', async (signal) => {
	const { parent, sleeper } = await parentOfSleeper()
	expect(alive(sleeper)).not.toBe('')
	process.kill(parent, signal)
	expect(await until(() => alive(sleeper) === '')).toBe(true)
})

it.each(['SIGTERM', 'SIGHUP', 'SIGINT'] as const)('%s asks for the end once', async (signal) => {
	const { parent, printed } = await parentOfSleeper(
		`let times = 0; onEnd(() => { times += 1; setTimeout(() => { console.log('ended', times); process.exit(0) }, 200) })`,
	)
	process.kill(parent, signal)
	await new Promise((resolve) => setTimeout(resolve, 60))
	process.kill(parent, signal)
	expect(await until(() => printed().includes('ended'))).toBe(true)
	expect(printed()).toContain('ended 1')
})
