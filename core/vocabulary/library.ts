import type { Drill } from './drill'
import type { Ladder } from './ladder'
import type { School } from './school'
import type { Theme } from './theme'

/** What a club works with: the newest version of each document, by id. */
export interface Library {
	drills: Record<string, Drill>
	ladders: Record<string, Ladder>
	schools: Record<string, School>
	themes: Record<string, Theme>
}
