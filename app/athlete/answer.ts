import type { Overtaken } from '../ui/meanwhile-note'

/** What the page says of the last form that was sent. */
export interface AthleteAnswer {
	problems: Record<string, string>
	region: string
	meanwhile?: Overtaken
	/** Which form somebody else has saved meanwhile: name and birth date, the mass, the type, whom to call, or a family's level. */
	which?: string
	/** What a change of squads or of days away did to the sessions ahead. */
	did?: string
}
