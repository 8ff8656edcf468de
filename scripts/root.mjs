import { existsSync } from 'node:fs'
import path from 'node:path'
import { fileURLToPath } from 'node:url'

/** The project's folder, from here or from a built file further down. */
export const ROOT = rootAbove(path.dirname(fileURLToPath(import.meta.url)))

/** @param {string} folder @returns {string} */
function rootAbove(folder) {
	return existsSync(path.join(folder, 'package-lock.json')) ? folder : rootAbove(path.dirname(folder))
}
