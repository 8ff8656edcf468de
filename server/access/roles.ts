import type { Role } from '../../db/schema/people'

/** What may be asked of the club; the table of who may do what. */
export type Permission =
	| 'plan:read'
	| 'plan:write'
	| 'verdict:read'
	| 'verdict:write'
	| 'marks:read'
	| 'marks:write'
	| 'marks:write-today'
	| 'pain:write'
	| 'pain:read'
	| 'clearance:record'
	| 'care:write'
	| 'people:write'

const PERMISSIONS: Record<Role, readonly Permission[]> = {
	coach: [
		'plan:read',
		'plan:write',
		'verdict:read',
		'verdict:write',
		'marks:read',
		'marks:write',
		'pain:write',
		'pain:read',
		'clearance:record',
		'care:write',
		'people:write',
	],
	// An assistant reports pain but reads only which part to spare.
	assistant: ['plan:read', 'verdict:read', 'marks:read', 'marks:write-today', 'pain:write'],
	clinician: ['plan:read', 'verdict:read', 'marks:read', 'pain:write', 'pain:read', 'clearance:record', 'care:write'],
	// Own lines, own marks, own pain: checked against the person's athlete wherever it is used.
	athlete: [],
	// What the athlete of a minor may: to read all of them, to report, to say that they are well again.
	guardian: [],
}

export const may = (role: Role, permission: Permission): boolean => PERMISSIONS[role].includes(permission)
