import pino from 'pino'

/** Server log; never holds names, marks or health data. */
export const log = pino(
	{ level: process.env.LOG_LEVEL ?? 'warn', base: undefined },
	pino.destination({ fd: 2, sync: true }),
)
