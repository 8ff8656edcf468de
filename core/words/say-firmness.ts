import type { Firmness } from '../vocabulary/words'

const NAMES: Record<Firmness, string> = {
	published: 'published',
	'common practice': 'common practice',
	'our setting': 'house rule',
}
/** What each of the words means, for whoever asks. */
export const FIRMNESS_MEANS =
	'Published: from research, named in the method. Common practice: what coaches do, without a source. House rule: a number of the club’s school, which can be set otherwise there.'

/** How firm a rule or a number is, as people read it; lines kept from before name it likewise. */
export const sayFirmness = (firmness: string): string =>
	Object.hasOwn(NAMES, firmness) ? NAMES[firmness as Firmness] : firmness
