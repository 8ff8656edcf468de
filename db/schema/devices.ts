import { char, foreignKey, index, int, mysqlTable, primaryKey } from 'drizzle-orm/mysql-core'
import { code, instant, jsonOf, uuid, words } from './columns'
import { club } from './people'

/** A code that pairs devices with a club for an hour; one stands at a time, kept as a hash. */
export const pairingCode = mysqlTable(
	'pairing_code',
	{
		clubId: uuid('club_id')
			.notNull()
			.primaryKey()
			.references(() => club.id),
		codeHash: char('code_hash', { length: 64 }).notNull(),
		expiresAt: instant('expires_at').notNull(),
	},
	(t) => [index('pairing_by_code').on(t.codeHash)],
)

/** A gate set, a mat or a ball sensor that may post for the club. */
export const device = mysqlTable(
	'device',
	{
		clubId: uuid('club_id')
			.notNull()
			.references(() => club.id),
		id: uuid('id').notNull(),
		kind: code<'gates' | 'mat' | 'ball'>('kind', 20).notNull(),
		name: words('name', 60).notNull(),
		tokenHash: char('token_hash', { length: 64 }).notNull(),
		pairedAt: instant('paired_at').notNull(),
		lastSeenAt: instant('last_seen_at'),
		/** Device clock behind the server, ms, as of the last batch. */
		offsetMs: int('offset_ms'),
		unpairedAt: instant('unpaired_at'),
	},
	(t) => [primaryKey({ columns: [t.clubId, t.id] }), index('device_by_token').on(t.tokenHash)],
)

/** What a device saw, as it saw it; `at` is its time put right by its clock's offset. Rows are never changed. */
export const deviceReading = mysqlTable(
	'device_reading',
	{
		clubId: uuid('club_id').notNull(),
		id: uuid('id').notNull(),
		deviceId: uuid('device_id').notNull(),
		kind: code<'beam' | 'mat' | 'ball'>('kind', 20).notNull(),
		at: instant('at').notNull(),
		deviceTime: instant('device_time').notNull(),
		receivedAt: instant('received_at').notNull(),
		value: jsonOf<Record<string, unknown>>('value').notNull(),
		contentHash: char('content_hash', { length: 64 }).notNull(),
	},
	(t) => [
		primaryKey({ columns: [t.clubId, t.id] }),
		foreignKey({ name: 'reading_device', columns: [t.clubId, t.deviceId], foreignColumns: [device.clubId, device.id] }),
		index('reading_by_arrival').on(t.clubId, t.receivedAt),
		index('reading_by_time').on(t.clubId, t.at),
	],
)
