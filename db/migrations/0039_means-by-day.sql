DROP INDEX IF EXISTS `session_mean_by_day` ON `session_mean`;--> statement-breakpoint
DROP INDEX IF EXISTS `session_mean_bests` ON `session_mean`;--> statement-breakpoint
CREATE INDEX IF NOT EXISTS `session_mean_by_day` ON `session_mean` (`club_id`,`athlete_id`,`day`,`mark_key`,`session_id`,`n`,`mean`,`squares`,`best`,`unusual`);--> statement-breakpoint
CREATE INDEX IF NOT EXISTS `session_mean_bests` ON `session_mean` (`club_id`,`athlete_id`,`mark_key`,`best`,`day`);