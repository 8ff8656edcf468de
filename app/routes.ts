import { type RouteConfig, index, layout, route } from '@react-router/dev/routes'

export default [
	route('health', 'routes/health.ts'),
	route('sign-in', 'routes/sign-in.tsx'),
	route('sign-out', 'routes/sign-out.ts'),
	route('first', 'routes/first.tsx'),
	route('join/:token', 'routes/join.tsx'),
	layout('routes/signed-in.tsx', [
		index('routes/today.tsx'),
		route('squads', 'routes/squads.tsx'),
		route('athletes/:athleteId', 'routes/athlete.tsx'),
		route('plan', 'routes/plan.tsx'),
		route('sessions/new', 'routes/session-new.tsx'),
		route('sessions/:sessionId', 'routes/session-sheet.tsx'),
		route('sessions/:sessionId/change', 'routes/session-change.tsx'),
		route('sessions/:sessionId/review', 'routes/session-review.tsx'),
		route('review', 'routes/review.tsx'),
		route('bench', 'routes/bench.tsx'),
		route('bench/:tool', 'routes/bench-tool.tsx'),
		route('library', 'routes/library.tsx'),
		route('club', 'routes/club.tsx'),
	]),
	route('field/:sessionId', 'routes/field.tsx'),
	route('api/events', 'routes/api.events.ts'),
	route('api/measurements', 'routes/api.measurements.ts'),
] satisfies RouteConfig
