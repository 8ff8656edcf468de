ALTER TABLE `measurement` ADD COLUMN IF NOT EXISTS `mark_id` uuid;--> statement-breakpoint
CREATE INDEX IF NOT EXISTS `measurement_of_mark` ON `measurement` (`club_id`,`mark_id`);