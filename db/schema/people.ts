import { char, decimal, index, int, mysqlTable, primaryKey, foreignKey, unique } from 'drizzle-orm/mysql-core'
import type { AthleteType } from '../../core/vocabulary/words'
import type { Units } from '../../core/words/units'
import { code, day, exact, instant, uuid, words } from './columns'

export const ROLES = ['coach', 'assistant', 'clinician', 'athlete', 'guardian'] as const
/** Roles of one athlete: themselves, or who is responsible for them. */
export const OF_ONE_ATHLETE: ReadonlySet<string> = new Set(['athlete', 'guardian'])
export type Role = (typeof ROLES)[number]

export const club = mysqlTable('club', {
	id: uuid('id').primaryKey(),
	name: words('name').notNull(),
	timeZone: code('time_zone', 64).notNull(),
	createdAt: instant('created_at').notNull(),
	/** Words about somebody's health go by themselves after so many months; null: they are kept. */
	healthNotesMonths: int('health_notes_months'),
})

/** Who can sign in. The address is unique over all clubs, because it is all that a sign-in names. */
export const person = mysqlTable(
	'person',
	{
		clubId: uuid('club_id')
			.notNull()
			.references(() => club.id),
		id: uuid('id').notNull(),
		/** Canonical (`canonicalAddress`): one spelling of one address, compared byte by byte. */
		email: exact('email', 254).notNull(),
		name: words('name').notNull(),
		role: code<Role>('role', 20).notNull(),
		passwordHash: words('password_hash', 255).notNull(),
		/** Set when the person is an athlete of the club. */
		athleteId: uuid('athlete_id'),
		createdAt: instant('created_at').notNull(),
		/** Taken off: signs in no more, and what they wrote stays theirs. */
		leftAt: instant('left_at'),
		/** How lengths and masses are typed by and shown to this person. */
		units: code<Units>('units', 10).notNull().default('metric'),
	},
	(t) => [primaryKey({ columns: [t.clubId, t.id] }), unique('person_email').on(t.email)],
)

/** Server-side sign-in sessions; only a hash of the cookie's token is kept. */
export const signIn = mysqlTable(
	'sign_in',
	{
		tokenHash: char('token_hash', { length: 64 }).primaryKey(),
		clubId: uuid('club_id').notNull(),
		personId: uuid('person_id').notNull(),
		createdAt: instant('created_at').notNull(),
		/** The day it ends however much it is used. */
		expiresAt: instant('expires_at').notNull(),
		/** Last used, to the hour; null before the first time that is noted. */
		seenAt: instant('seen_at'),
		/** What it is signed in on, in words. */
		device: words('device', 60).notNull().default(''),
	},
	(t) => [
		foreignKey({
			name: 'sign_in_person',
			columns: [t.clubId, t.personId],
			foreignColumns: [person.clubId, person.id],
		}).onDelete('cascade'),
		index('sign_in_expires').on(t.expiresAt),
	],
)

/** A browser somebody has signed in on: a stranger's wrong passwords do not lock it out. */
export const knownDevice = mysqlTable(
	'known_device',
	{
		tokenHash: char('token_hash', { length: 64 }).notNull(),
		clubId: uuid('club_id').notNull(),
		personId: uuid('person_id').notNull(),
		createdAt: instant('created_at').notNull(),
	},
	(t) => [
		primaryKey({ columns: [t.tokenHash, t.personId] }),
		foreignKey({
			name: 'known_device_person',
			columns: [t.clubId, t.personId],
			foreignColumns: [person.clubId, person.id],
		}).onDelete('cascade'),
	],
)

/** Who did what with the club's keys and data; rows are added and never changed. */
export const DEEDS = [
	'signed-in',
	'password-changed',
	'password-link',
	'password-reset',
	'invited',
	'joined',
	'link-withdrawn',
	'role-changed',
	'taken-off',
	'let-in',
	'cleared',
	'exported',
	'erased',
	'imported',
	'notes-kept',
] as const
export type Deed = (typeof DEEDS)[number]
export const deed = mysqlTable(
	'deed',
	{
		clubId: uuid('club_id')
			.notNull()
			.references(() => club.id),
		id: uuid('id').notNull(),
		at: instant('at').notNull(),
		personId: uuid('person_id').notNull(),
		what: code<Deed>('what', 20).notNull(),
		/** Whom or what it was about, by name; never a word of health. */
		about: words('about', 200).notNull().default(''),
	},
	(t) => [primaryKey({ columns: [t.clubId, t.id] }), index('deed_at').on(t.clubId, t.at)],
)

/** Failed tries by hashed address; it stands before any club is known, so it names none. */
export const signInFailure = mysqlTable('sign_in_failure', {
	keyHash: char('key_hash', { length: 64 }).primaryKey(),
	failures: int('failures').notNull(),
	lastFailedAt: instant('last_failed_at').notNull(),
})

export const invitation = mysqlTable(
	'invitation',
	{
		clubId: uuid('club_id')
			.notNull()
			.references(() => club.id),
		id: uuid('id').notNull(),
		tokenHash: char('token_hash', { length: 64 }).notNull(),
		role: code<Role>('role', 20).notNull(),
		/** The athlete an athlete's or guardian's invitation is for. */
		athleteId: uuid('athlete_id'),
		/** Somebody who is here already: the link is for a new password. */
		personId: uuid('person_id'),
		createdBy: uuid('created_by').notNull(),
		createdAt: instant('created_at').notNull(),
		expiresAt: instant('expires_at').notNull(),
		usedAt: instant('used_at'),
	},
	(t) => [primaryKey({ columns: [t.clubId, t.id] }), unique('invitation_token').on(t.tokenHash)],
)

export const athlete = mysqlTable(
	'athlete',
	{
		clubId: uuid('club_id')
			.notNull()
			.references(() => club.id),
		id: uuid('id').notNull(),
		legLengthMm: int('leg_length_mm'),
		/** How they are built, by the coach; null where nothing stands out. */
		type: code<AthleteType>('type', 10),
		/** Not there for a while, from a day to a last one or until it is said otherwise. */
		/** Erased: nameless since, and nothing more is taken of them. */
		erasedAt: instant('erased_at'),
		awayFrom: day('away_from'),
		awayUntil: day('away_until'),
		massKg: decimal('mass_kg', { precision: 4, scale: 1, mode: 'number' }),
		createdAt: instant('created_at').notNull(),
	},
	(t) => [primaryKey({ columns: [t.clubId, t.id] })],
)

/** Names and birth dates live only here, so that forgetting a person is deleting this row. */
export const athleteIdentity = mysqlTable(
	'athlete_identity',
	{
		clubId: uuid('club_id').notNull(),
		athleteId: uuid('athlete_id').notNull(),
		name: words('name').notNull(),
		birthDate: day('birth_date'),
		/** Whom to call, and how. */
		emergencyContact: words('emergency_contact'),
	},
	(t) => [
		primaryKey({ columns: [t.clubId, t.athleteId] }),
		foreignKey({
			name: 'identity_athlete',
			columns: [t.clubId, t.athleteId],
			foreignColumns: [athlete.clubId, athlete.id],
		}),
	],
)
