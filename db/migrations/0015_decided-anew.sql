ALTER TABLE `verdict` ADD COLUMN IF NOT EXISTS `turn` int DEFAULT 0 NOT NULL;--> statement-breakpoint
ALTER TABLE `verdict` ADD UNIQUE INDEX IF NOT EXISTS `verdict_turn` (`club_id`,`session_id`,`athlete_id`,`ladder_id`,`turn`);--> statement-breakpoint
ALTER TABLE `verdict` DROP INDEX IF EXISTS `verdict_once`;
