/** What a device that was signed out from elsewhere says of what it held. */
export const TAKEN_OFF =
	'This device was signed out from elsewhere, and what it held of squads was taken off it. What was logged here and not sent waits for whoever logged it.'
