import { readFile, readdir, writeFile } from 'node:fs/promises'
import path from 'node:path'
import { promisify } from 'node:util'
import zlib, { constants } from 'node:zlib'

const brotli = promisify(zlib.brotliCompress)
const gzip = promisify(zlib.gzip)

/** Lays beside each script and style what is sent of it to a browser that unpacks: packed once, as small as it goes. */
export async function compressAssets(folder: string): Promise<void> {
	const names = (await readdir(folder)).filter((name) => /\.(js|css)$/.test(name))
	await Promise.all(
		names.map(async (name) => {
			const file = path.join(folder, name)
			const bytes = await readFile(file)
			await writeFile(
				`${file}.br`,
				await brotli(bytes, { params: { [constants.BROTLI_PARAM_SIZE_HINT]: bytes.length } }),
			)
			await writeFile(`${file}.gz`, await gzip(bytes, { level: constants.Z_BEST_COMPRESSION }))
		}),
	)
}
