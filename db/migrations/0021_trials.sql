CREATE TABLE IF NOT EXISTS `trial` (
	`club_id` uuid NOT NULL,
	`id` uuid NOT NULL,
	`squad_id` uuid NOT NULL,
	`question` varchar(200) NOT NULL,
	`kind` varchar(20) character set ascii collate ascii_bin NOT NULL,
	`plan` json NOT NULL,
	`opened_by` uuid NOT NULL,
	`opened_at` datetime(3) NOT NULL,
	`closed_at` datetime(3),
	CONSTRAINT `trial_club_id_id_pk` PRIMARY KEY(`club_id`,`id`)
);
--> statement-breakpoint
CREATE TABLE IF NOT EXISTS `trial_answer` (
	`club_id` uuid NOT NULL,
	`trial_id` uuid NOT NULL,
	`athlete_id` uuid NOT NULL,
	`helps` boolean NOT NULL,
	CONSTRAINT `trial_answer_club_id_trial_id_athlete_id_pk` PRIMARY KEY(`club_id`,`trial_id`,`athlete_id`)
);
--> statement-breakpoint
CREATE TABLE IF NOT EXISTS `trial_session` (
	`club_id` uuid NOT NULL,
	`trial_id` uuid NOT NULL,
	`session_id` uuid NOT NULL,
	`entries` json NOT NULL,
	`conditions` json NOT NULL,
	CONSTRAINT `trial_session_club_id_trial_id_session_id_pk` PRIMARY KEY(`club_id`,`trial_id`,`session_id`)
);
--> statement-breakpoint
ALTER TABLE `trial` ADD CONSTRAINT `trial_squad` FOREIGN KEY IF NOT EXISTS `trial_squad` (`club_id`,`squad_id`) REFERENCES `squad`(`club_id`,`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `trial_answer` ADD CONSTRAINT `answer_of_trial` FOREIGN KEY IF NOT EXISTS `answer_of_trial` (`club_id`,`trial_id`) REFERENCES `trial`(`club_id`,`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `trial_session` ADD CONSTRAINT `trial_with_session` FOREIGN KEY IF NOT EXISTS `trial_with_session` (`club_id`,`trial_id`) REFERENCES `trial`(`club_id`,`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `trial_session` ADD CONSTRAINT `session_of_trial` FOREIGN KEY IF NOT EXISTS `session_of_trial` (`club_id`,`session_id`) REFERENCES `session`(`club_id`,`id`) ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
CREATE INDEX IF NOT EXISTS `trial_by_squad` ON `trial` (`club_id`,`squad_id`);--> statement-breakpoint
CREATE INDEX IF NOT EXISTS `answer_by_athlete` ON `trial_answer` (`club_id`,`athlete_id`);--> statement-breakpoint
CREATE INDEX IF NOT EXISTS `trial_of_session` ON `trial_session` (`club_id`,`session_id`);