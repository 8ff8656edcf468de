import { readFileSync } from 'node:fs'
import { createSecureContext } from 'node:tls'
import { PlainError } from './plain-error'

/** Where and how the application is served, from the environment: the same for every process that serves it. */
export function webOptions() {
	return {
		host: process.env.HOST || '127.0.0.1',
		port: readPort(process.env.PORT),
		secure: readTls(),
		/** TRUST_PROXY=1: a proxy on this machine or network speaks TLS with people and plain HTTP with us. */
		behindTls: process.env.TRUST_PROXY === '1',
	}
}

function readPort(text: string | undefined): number {
	if (!text) return 4210
	const port = Number(text)
	if (!Number.isInteger(port) || port < 1 || port > 65535)
		throw new PlainError(`PORT: ${JSON.stringify(text)} is not a port; a whole number from 1 to 65535 is expected.`)
	return port
}

/** Both files or neither; a wrong one is said before anything is started. */
function readTls(): { cert: Buffer; key: Buffer } | null {
	const { TLS_CERT, TLS_KEY } = process.env
	if (!TLS_CERT && !TLS_KEY) return null
	if (!TLS_CERT || !TLS_KEY)
		throw new PlainError(
			'TLS_CERT and TLS_KEY belong together: the certificate and its key, both as paths to PEM files.',
		)
	try {
		const files = { cert: readFileSync(TLS_CERT), key: readFileSync(TLS_KEY) }
		createSecureContext(files)
		return files
	} catch (error) {
		throw new PlainError(`TLS_CERT and TLS_KEY cannot be used: ${(error as Error).message}.`)
	}
}
