-- Made before the old ones go: a foreign key always needs one of them.
CREATE INDEX IF NOT EXISTS `line_by_session_athlete` ON `line` (`club_id`,`session_id`,`current`,`athlete_id`);--> statement-breakpoint
CREATE INDEX IF NOT EXISTS `observation_by_session_athlete` ON `observation` (`club_id`,`session_id`,`athlete_id`);--> statement-breakpoint
DROP INDEX IF EXISTS `line_by_session` ON `line`;--> statement-breakpoint
DROP INDEX IF EXISTS `observation_by_session` ON `observation`;