CREATE TABLE IF NOT EXISTS `session_mean` (
	`club_id` uuid NOT NULL,
	`athlete_id` uuid NOT NULL,
	`mark_key` varchar(190) character set ascii collate ascii_bin NOT NULL,
	`session_id` uuid NOT NULL,
	`day` date NOT NULL,
	`n` int NOT NULL,
	`mean` double NOT NULL,
	`squares` double NOT NULL,
	`best` double NOT NULL,
	`unusual` boolean NOT NULL,
	CONSTRAINT `session_mean_club_id_athlete_id_mark_key_session_id_pk` PRIMARY KEY(`club_id`,`athlete_id`,`mark_key`,`session_id`)
);
--> statement-breakpoint
ALTER TABLE `mark` ADD COLUMN IF NOT EXISTS `kept` boolean DEFAULT false NOT NULL;--> statement-breakpoint
ALTER TABLE `mark` ADD COLUMN IF NOT EXISTS `mark_key` varchar(190) character set ascii collate ascii_bin;--> statement-breakpoint
ALTER TABLE `mark` ADD COLUMN IF NOT EXISTS `set_aside` boolean DEFAULT false NOT NULL;--> statement-breakpoint
ALTER TABLE `session_mean` ADD CONSTRAINT `session_mean_session` FOREIGN KEY IF NOT EXISTS `session_mean_session` (`club_id`,`session_id`) REFERENCES `session`(`club_id`,`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `session_mean` ADD CONSTRAINT `session_mean_athlete` FOREIGN KEY IF NOT EXISTS `session_mean_athlete` (`club_id`,`athlete_id`) REFERENCES `athlete`(`club_id`,`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
CREATE INDEX IF NOT EXISTS `session_mean_by_session` ON `session_mean` (`club_id`,`session_id`,`athlete_id`);--> statement-breakpoint
CREATE INDEX IF NOT EXISTS `session_mean_by_day` ON `session_mean` (`club_id`,`athlete_id`,`day`);--> statement-breakpoint
CREATE INDEX IF NOT EXISTS `mark_set_aside` ON `mark` (`club_id`,`set_aside`,`athlete_id`);