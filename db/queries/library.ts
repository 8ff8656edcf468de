import { createHash } from 'node:crypto'
import { and, desc, eq, isNotNull, isNull, max, sql } from 'drizzle-orm'
import { canonicalJson } from '../../core/events/canonical-json'
import { drillFromKept, ladderFromKept, schoolFromKept } from '../../core/vocabulary/older'
import { STARTER_LIBRARY } from '../../core/library/starter-library'
import type { Drill } from '../../core/vocabulary/drill'
import type { Ladder } from '../../core/vocabulary/ladder'
import type { Library } from '../../core/vocabulary/library'
import type { School } from '../../core/vocabulary/school'
import type { Theme } from '../../core/vocabulary/theme'
import { bulkInsertOnce } from '../bulk-insert'
import type { ClubScope, Queryable } from '../connect'
import { club } from '../schema/people'
import { libraryDocument } from '../schema/squads'

export type DocumentKind = 'drill' | 'ladder' | 'school' | 'theme'
type Document = Drill | Ladder | School | Theme
export const hashOf = (value: unknown): string => createHash('sha256').update(canonicalJson(value)).digest('hex')

interface Shipped {
	kind: DocumentKind
	content: Document
	contentHash: string
}
let documents: readonly Shipped[] | undefined
/** The documents the program ships with; their hashes are worked out once, not for every club. */
const shipped = (): readonly Shipped[] =>
	(documents ??= (
		[
			['drill', STARTER_LIBRARY.drills],
			['ladder', STARTER_LIBRARY.ladders],
			['school', STARTER_LIBRARY.schools],
			['theme', STARTER_LIBRARY.themes],
		] as const
	).flatMap(([kind, of]) =>
		Object.values<Document>(of).map((content) => ({ kind, content, contentHash: hashOf(content) })),
	))

/**
 * Gives a club the documents the program ships with. Documents never change: one that differs
 * without a new version number is refused, because verdicts and lines cite it.
 */
export async function installLibrary({ db, clubId }: ClubScope, now: Date): Promise<void> {
	const known = await db
		.select({
			kind: libraryDocument.kind,
			id: libraryDocument.id,
			version: libraryDocument.version,
			hash: libraryDocument.contentHash,
		})
		.from(libraryDocument)
		.where(and(eq(libraryDocument.clubId, clubId), isNull(libraryDocument.writtenBy)))
	const hashes = new Map(known.map((row) => [`${row.kind}/${row.id}/${row.version}`, row.hash]))
	const missing = shipped().filter(({ kind, content, contentHash }) => {
		const before = hashes.get(`${kind}/${content.id}/${content.version}`)
		if (before !== undefined && before !== contentHash)
			throw new Error(
				`${kind} ${content.id} version ${content.version} differs from the one this club already uses: a change needs a new version number`,
			)
		return before === undefined
	})
	if (missing.length === 0) return
	await bulkInsertOnce(
		db,
		libraryDocument,
		missing.map(({ kind, content, contentHash }) => ({
			clubId,
			kind,
			id: content.id,
			version: content.version,
			contentHash,
			content,
			createdAt: now,
		})),
	)
}

/** Gives every club what a newer version of the program ships with; run once at the start. */
export async function installLibraryEverywhere(db: Queryable, now: Date): Promise<void> {
	for (const { id } of await db.select({ id: club.id }).from(club)) await installLibrary({ db, clubId: id }, now)
}

/** A club's documents, read into what is used: the newest of each, and every drill by "id/version". */
interface Documents {
	library: Library
	drills: ReadonlyMap<string, Drill>
}
/** Documents never change: what was read stands as long as the same ones are kept. By club, the last ones asked for. */
const read = new Map<string, Documents & { of: string }>()
const MOST_CLUBS = 100

async function readDocuments({ db, clubId }: ClubScope): Promise<Documents> {
	const own = eq(libraryDocument.clubId, clubId)
	// Written in a transaction that ends in nothing, a document is none: counted alone another could pass for it.
	const [kept] = await db
		.select({
			of: sql<string>`concat(count(*), '/', bit_xor(crc32(concat(${libraryDocument.kind}, ${libraryDocument.id}, ${libraryDocument.contentHash}))))`,
		})
		.from(libraryDocument)
		.where(own)
	const of = kept?.of ?? ''
	const known = read.get(clubId)
	if (known?.of === of) return known
	const rows = await db
		.select({
			kind: libraryDocument.kind,
			id: libraryDocument.id,
			version: libraryDocument.version,
			content: libraryDocument.content,
		})
		.from(libraryDocument)
		.where(own)
		.orderBy(libraryDocument.id, libraryDocument.version)
	const library: Library = { drills: {}, ladders: {}, schools: {}, themes: {} }
	const drills = new Map<string, Drill>()
	for (const row of rows) {
		if (row.kind === 'drill') {
			const drill = drillFromKept(row.content as Drill)
			library.drills[row.id] = drill
			drills.set(`${row.id}/${row.version}`, drill)
		} else if (row.kind === 'ladder') library.ladders[row.id] = ladderFromKept(row.content as Ladder)
		else if (row.kind === 'school') library.schools[row.id] = schoolFromKept(row.content as School)
		else library.themes[row.id] = row.content as Theme
	}
	// Shared by all who ask: whoever wants another library makes one.
	for (const one of [library, library.drills, library.ladders, library.schools, library.themes]) Object.freeze(one)
	read.delete(clubId)
	read.set(clubId, { of, library, drills })
	if (read.size > MOST_CLUBS) read.delete(read.keys().next().value!)
	return { library, drills }
}

/** The newest version of each document; not to be changed. */
export const readLibrary = async (scope: ClubScope): Promise<Library> => (await readDocuments(scope)).library

/** Drills by "id/version", every version of the ids, for lines that cite an older one. */
export async function readDrills(scope: ClubScope, ids: string[]): Promise<ReadonlyMap<string, Drill>> {
	if (ids.length === 0) return new Map()
	const asked = new Set(ids)
	const { drills } = await readDocuments(scope)
	return new Map([...drills].filter(([, { id }]) => asked.has(id)))
}

/** The newest version of a document with who wrote it, null for what the program brought; whoever writes one next waits. */
export async function newestDocument({ db, clubId }: ClubScope, kind: DocumentKind, id: string) {
	const [row] = await db
		.select()
		.from(libraryDocument)
		.where(and(eq(libraryDocument.clubId, clubId), eq(libraryDocument.kind, kind), eq(libraryDocument.id, id)))
		.orderBy(desc(libraryDocument.version))
		.limit(1)
		.for('update')
	if (!row) return null
	const content: Document =
		kind === 'drill'
			? drillFromKept(row.content as Drill)
			: kind === 'ladder'
				? ladderFromKept(row.content as Ladder)
				: kind === 'school'
					? schoolFromKept(row.content as School)
					: (row.content as Theme)
	return { content, writtenBy: row.writtenBy, createdAt: row.createdAt }
}

/** Documents a club writes itself are numbered from here, so that they stay newer than what the program ships with. */
const OWN_VERSIONS_FROM = 1000

/** Keeps a document of the club's own as the next version of its id; returns the version. */
export async function insertOwnDocument(
	{ db, clubId }: ClubScope,
	kind: DocumentKind,
	content: Document,
	writtenBy: string,
	now: Date,
): Promise<number> {
	const [row] = await db
		.select({ version: max(libraryDocument.version) })
		.from(libraryDocument)
		.where(and(eq(libraryDocument.clubId, clubId), eq(libraryDocument.kind, kind), eq(libraryDocument.id, content.id)))
		.for('update')
	const version = Math.max(row?.version ?? 0, OWN_VERSIONS_FROM) + 1
	const stored = { ...content, version }
	await db.insert(libraryDocument).values({
		clubId,
		kind,
		id: content.id,
		version,
		contentHash: hashOf(stored),
		content: stored,
		writtenBy,
		createdAt: now,
	})
	return version
}
/** Ids of documents somebody of the club has written or changed. */
export async function ownDocuments({ db, clubId }: ClubScope): Promise<Set<string>> {
	const rows = await db
		.select({ kind: libraryDocument.kind, id: libraryDocument.id })
		.from(libraryDocument)
		.where(and(eq(libraryDocument.clubId, clubId), isNotNull(libraryDocument.writtenBy)))
	return new Set(rows.map((row) => `${row.kind}/${row.id}`))
}
