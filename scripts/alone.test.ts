import { spawnSync } from 'node:child_process'
import { existsSync, mkdtempSync, rmSync, writeFileSync } from 'node:fs'
import os from 'node:os'
import path from 'node:path'
import { setTimeout as wait } from 'node:timers/promises'
import { afterEach, beforeEach, describe, expect, it } from 'vitest'
import { alone } from './alone.mjs'

let folder: string
beforeEach(() => {
	folder = mkdtempSync(path.join(os.tmpdir(), 'alone-'))
})
afterEach(() => rmSync(folder, { recursive: true, force: true }))

describe('what only one command may do at a time', () => {
	it('is done by one after the other, whatever is done beside it by another name', async () => {
		const said: string[] = []
		const work = (name: string) => async () => {
			said.push(`${name} begins`)
			await wait(150)
			said.push(`${name} ends`)
			return name
		}
		const both = await Promise.all([alone('build', work('a'), folder), alone('build', work('b'), folder)])
		expect(both).toEqual(['a', 'b'])
		expect(said).toEqual(['a begins', 'a ends', 'b begins', 'b ends'])
		said.length = 0
		await Promise.all([alone('build', work('a'), folder), alone('install', work('b'), folder)])
		expect(said.slice(0, 2)).toEqual(['a begins', 'b begins'])
	})
	it('leaves no mark, also when it fails', async () => {
		await expect(alone('build', () => Promise.reject(new Error('no room')), folder)).rejects.toThrow('no room')
		expect(existsSync(path.join(folder, 'build'))).toBe(false)
		expect(await alone('build', () => Promise.resolve(1), folder)).toBe(1)
	})
	it('is not held up by a command that was killed in the middle', async () => {
		const gone = spawnSync(process.execPath, ['-e', 'process.stdout.write(String(process.pid))'], { encoding: 'utf8' })
		writeFileSync(path.join(folder, 'build'), gone.stdout)
		expect(await alone('build', () => Promise.resolve(1), folder)).toBe(1)
	})
})
