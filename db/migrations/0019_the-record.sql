CREATE TABLE IF NOT EXISTS `named_cause` (
	`club_id` uuid NOT NULL,
	`athlete_id` uuid NOT NULL,
	`session_id` uuid NOT NULL,
	`cause` varchar(20) character set ascii collate ascii_bin NOT NULL,
	`person_id` uuid NOT NULL,
	`at` datetime(3) NOT NULL,
	CONSTRAINT `named_cause_club_id_athlete_id_session_id_cause_pk` PRIMARY KEY(`club_id`,`athlete_id`,`session_id`,`cause`)
);
--> statement-breakpoint
ALTER TABLE `outside_load` ADD COLUMN IF NOT EXISTS `lifts` json;--> statement-breakpoint
ALTER TABLE `named_cause` ADD CONSTRAINT `named_cause_athlete` FOREIGN KEY IF NOT EXISTS `named_cause_athlete` (`club_id`,`athlete_id`) REFERENCES `athlete`(`club_id`,`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `named_cause` ADD CONSTRAINT `named_cause_session` FOREIGN KEY IF NOT EXISTS `named_cause_session` (`club_id`,`session_id`) REFERENCES `session`(`club_id`,`id`) ON DELETE no action ON UPDATE no action;