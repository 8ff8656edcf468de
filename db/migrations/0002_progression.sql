CREATE TABLE IF NOT EXISTS `acknowledgement` (
	`club_id` uuid NOT NULL,
	`id` uuid NOT NULL,
	`session_id` uuid NOT NULL,
	`rule` varchar(5) character set ascii collate ascii_bin NOT NULL,
	`sentence` varchar(500) NOT NULL,
	`reason` varchar(500) NOT NULL,
	`person_id` uuid NOT NULL,
	`at` datetime(3) NOT NULL,
	CONSTRAINT `acknowledgement_club_id_id_pk` PRIMARY KEY(`club_id`,`id`)
);
--> statement-breakpoint
CREATE TABLE IF NOT EXISTS `care_record` (
	`club_id` uuid NOT NULL,
	`id` uuid NOT NULL,
	`athlete_id` uuid NOT NULL,
	`kind` varchar(20) character set ascii collate ascii_bin NOT NULL,
	`region` varchar(20) character set ascii collate ascii_bin,
	`pattern` varchar(20) character set ascii collate ascii_bin,
	`drill_id` varchar(40) character set ascii collate ascii_bin,
	`note` varchar(500) NOT NULL,
	`from_day` date NOT NULL,
	`set_by` varchar(200) NOT NULL,
	`set_by_role` varchar(200) NOT NULL,
	`recorded_by` uuid NOT NULL,
	`recorded_at` datetime(3) NOT NULL,
	`ended_on` date,
	`ended_by` varchar(200),
	`ended_by_role` varchar(200),
	`end_recorded_by` uuid,
	`end_recorded_at` datetime(3),
	CONSTRAINT `care_record_club_id_id_pk` PRIMARY KEY(`club_id`,`id`)
);
--> statement-breakpoint
CREATE TABLE IF NOT EXISTS `ladder_move` (
	`club_id` uuid NOT NULL,
	`id` uuid NOT NULL,
	`athlete_id` uuid NOT NULL,
	`ladder_id` varchar(40) character set ascii collate ascii_bin NOT NULL,
	`state_before` json NOT NULL,
	`state_after` json NOT NULL,
	`reason` varchar(500) NOT NULL,
	`person_id` uuid NOT NULL,
	`at` datetime(3) NOT NULL,
	CONSTRAINT `ladder_move_club_id_id_pk` PRIMARY KEY(`club_id`,`id`)
);
--> statement-breakpoint
CREATE TABLE IF NOT EXISTS `outside_load` (
	`club_id` uuid NOT NULL,
	`id` uuid NOT NULL,
	`athlete_id` uuid NOT NULL,
	`kind` varchar(20) character set ascii collate ascii_bin NOT NULL,
	`day` date NOT NULL,
	`start_time` char(5) NOT NULL,
	`minutes` int NOT NULL,
	`rpe` decimal(3,1),
	`hard_running` boolean NOT NULL,
	`hard_cutting` boolean NOT NULL,
	`is_void` boolean NOT NULL,
	`recorded_by` uuid NOT NULL,
	`recorded_at` datetime(3) NOT NULL,
	CONSTRAINT `outside_load_club_id_id_pk` PRIMARY KEY(`club_id`,`id`),
	CONSTRAINT `outside_once` UNIQUE(`club_id`,`athlete_id`,`kind`,`day`,`start_time`)
);
--> statement-breakpoint
ALTER TABLE `verdict` MODIFY COLUMN `sentence` varchar(1000) NOT NULL;--> statement-breakpoint
ALTER TABLE `athlete` ADD COLUMN IF NOT EXISTS `mass_kg` decimal(4,1);--> statement-breakpoint
ALTER TABLE `library_document` ADD COLUMN IF NOT EXISTS `written_by` uuid;--> statement-breakpoint
ALTER TABLE `squad` ADD COLUMN IF NOT EXISTS `focus` json;--> statement-breakpoint
ALTER TABLE `session` ADD COLUMN IF NOT EXISTS `surface` varchar(20) character set ascii collate ascii_bin;--> statement-breakpoint
ALTER TABLE `acknowledgement` ADD CONSTRAINT `acknowledged_session` FOREIGN KEY IF NOT EXISTS `acknowledged_session` (`club_id`,`session_id`) REFERENCES `session`(`club_id`,`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `care_record` ADD CONSTRAINT `care_athlete` FOREIGN KEY IF NOT EXISTS `care_athlete` (`club_id`,`athlete_id`) REFERENCES `athlete`(`club_id`,`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `ladder_move` ADD CONSTRAINT `move_athlete` FOREIGN KEY IF NOT EXISTS `move_athlete` (`club_id`,`athlete_id`) REFERENCES `athlete`(`club_id`,`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `outside_load` ADD CONSTRAINT `outside_athlete` FOREIGN KEY IF NOT EXISTS `outside_athlete` (`club_id`,`athlete_id`) REFERENCES `athlete`(`club_id`,`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
CREATE INDEX IF NOT EXISTS `acknowledged_by_session` ON `acknowledgement` (`club_id`,`session_id`);--> statement-breakpoint
CREATE INDEX IF NOT EXISTS `care_by_athlete` ON `care_record` (`club_id`,`athlete_id`);--> statement-breakpoint
CREATE INDEX IF NOT EXISTS `move_by_athlete` ON `ladder_move` (`club_id`,`athlete_id`);--> statement-breakpoint
CREATE INDEX IF NOT EXISTS `outside_by_athlete` ON `outside_load` (`club_id`,`athlete_id`,`day`);