CREATE TABLE IF NOT EXISTS `athlete` (
	`club_id` uuid NOT NULL,
	`id` uuid NOT NULL,
	`leg_length_mm` int,
	`created_at` datetime(3) NOT NULL,
	CONSTRAINT `athlete_club_id_id_pk` PRIMARY KEY(`club_id`,`id`)
);
--> statement-breakpoint
CREATE TABLE IF NOT EXISTS `athlete_identity` (
	`club_id` uuid NOT NULL,
	`athlete_id` uuid NOT NULL,
	`name` varchar(200) NOT NULL,
	`birth_date` date,
	CONSTRAINT `athlete_identity_club_id_athlete_id_pk` PRIMARY KEY(`club_id`,`athlete_id`)
);
--> statement-breakpoint
CREATE TABLE IF NOT EXISTS `club` (
	`id` uuid NOT NULL,
	`name` varchar(200) NOT NULL,
	`time_zone` varchar(64) character set ascii collate ascii_bin NOT NULL,
	`created_at` datetime(3) NOT NULL,
	CONSTRAINT `club_id` PRIMARY KEY(`id`)
);
--> statement-breakpoint
CREATE TABLE IF NOT EXISTS `invitation` (
	`club_id` uuid NOT NULL,
	`id` uuid NOT NULL,
	`token_hash` char(64) NOT NULL,
	`role` varchar(20) character set ascii collate ascii_bin NOT NULL,
	`athlete_id` uuid,
	`created_by` uuid NOT NULL,
	`created_at` datetime(3) NOT NULL,
	`expires_at` datetime(3) NOT NULL,
	`used_at` datetime(3),
	CONSTRAINT `invitation_club_id_id_pk` PRIMARY KEY(`club_id`,`id`),
	CONSTRAINT `invitation_token` UNIQUE(`token_hash`)
);
--> statement-breakpoint
CREATE TABLE IF NOT EXISTS `person` (
	`club_id` uuid NOT NULL,
	`id` uuid NOT NULL,
	`email` varchar(254) NOT NULL,
	`name` varchar(200) NOT NULL,
	`role` varchar(20) character set ascii collate ascii_bin NOT NULL,
	`password_hash` varchar(255) NOT NULL,
	`athlete_id` uuid,
	`created_at` datetime(3) NOT NULL,
	CONSTRAINT `person_club_id_id_pk` PRIMARY KEY(`club_id`,`id`),
	CONSTRAINT `person_email` UNIQUE(`email`)
);
--> statement-breakpoint
CREATE TABLE IF NOT EXISTS `sign_in` (
	`token_hash` char(64) NOT NULL,
	`club_id` uuid NOT NULL,
	`person_id` uuid NOT NULL,
	`created_at` datetime(3) NOT NULL,
	`expires_at` datetime(3) NOT NULL,
	CONSTRAINT `sign_in_token_hash` PRIMARY KEY(`token_hash`)
);
--> statement-breakpoint
CREATE TABLE IF NOT EXISTS `sign_in_failure` (
	`key_hash` char(64) NOT NULL,
	`failures` int NOT NULL,
	`last_failed_at` datetime(3) NOT NULL,
	CONSTRAINT `sign_in_failure_key_hash` PRIMARY KEY(`key_hash`)
);
--> statement-breakpoint
CREATE TABLE IF NOT EXISTS `athlete_level` (
	`club_id` uuid NOT NULL,
	`athlete_id` uuid NOT NULL,
	`family` varchar(20) character set ascii collate ascii_bin NOT NULL,
	`level` int NOT NULL,
	CONSTRAINT `athlete_level_club_id_athlete_id_family_pk` PRIMARY KEY(`club_id`,`athlete_id`,`family`)
);
--> statement-breakpoint
CREATE TABLE IF NOT EXISTS `ladder_state` (
	`club_id` uuid NOT NULL,
	`athlete_id` uuid NOT NULL,
	`ladder_id` varchar(40) character set ascii collate ascii_bin NOT NULL,
	`state` json NOT NULL,
	`as_of` date NOT NULL,
	`updated_at` datetime(3) NOT NULL,
	CONSTRAINT `ladder_state_club_id_athlete_id_ladder_id_pk` PRIMARY KEY(`club_id`,`athlete_id`,`ladder_id`)
);
--> statement-breakpoint
CREATE TABLE IF NOT EXISTS `library_document` (
	`club_id` uuid NOT NULL,
	`kind` varchar(10) character set ascii collate ascii_bin NOT NULL,
	`id` varchar(40) character set ascii collate ascii_bin NOT NULL,
	`version` int NOT NULL,
	`content_hash` char(64) NOT NULL,
	`content` json NOT NULL,
	`created_at` datetime(3) NOT NULL,
	CONSTRAINT `library_document_club_id_kind_id_version_pk` PRIMARY KEY(`club_id`,`kind`,`id`,`version`)
);
--> statement-breakpoint
CREATE TABLE IF NOT EXISTS `squad` (
	`club_id` uuid NOT NULL,
	`id` uuid NOT NULL,
	`name` varchar(200) NOT NULL,
	`school_id` varchar(40) character set ascii collate ascii_bin NOT NULL,
	`school_version` int NOT NULL,
	`phase` varchar(20) character set ascii collate ascii_bin NOT NULL,
	`training_days` json NOT NULL,
	`start_time` char(5) NOT NULL,
	`place` varchar(200) NOT NULL,
	CONSTRAINT `squad_club_id_id_pk` PRIMARY KEY(`club_id`,`id`)
);
--> statement-breakpoint
CREATE TABLE IF NOT EXISTS `squad_member` (
	`club_id` uuid NOT NULL,
	`squad_id` uuid NOT NULL,
	`athlete_id` uuid NOT NULL,
	`since` date NOT NULL,
	CONSTRAINT `squad_member_club_id_squad_id_athlete_id_pk` PRIMARY KEY(`club_id`,`squad_id`,`athlete_id`)
);
--> statement-breakpoint
CREATE TABLE IF NOT EXISTS `entry` (
	`club_id` uuid NOT NULL,
	`id` uuid NOT NULL,
	`session_id` uuid NOT NULL,
	`part` varchar(60) NOT NULL,
	`family` varchar(20) character set ascii collate ascii_bin NOT NULL,
	`position` int NOT NULL,
	`drill_id` varchar(40) character set ascii collate ascii_bin NOT NULL,
	`drill_version` int NOT NULL,
	`ladder_id` varchar(40) character set ascii collate ascii_bin,
	`dose` json NOT NULL,
	`parameters` json NOT NULL,
	`rest_s` int NOT NULL,
	`dose_factor` decimal(3,2) NOT NULL,
	`retired` boolean NOT NULL,
	CONSTRAINT `entry_club_id_id_pk` PRIMARY KEY(`club_id`,`id`)
);
--> statement-breakpoint
CREATE TABLE IF NOT EXISTS `line` (
	`club_id` uuid NOT NULL,
	`id` uuid NOT NULL,
	`session_id` uuid NOT NULL,
	`entry_id` uuid NOT NULL,
	`athlete_id` uuid NOT NULL,
	`version` int NOT NULL,
	`current` boolean NOT NULL,
	`origin` varchar(20) character set ascii collate ascii_bin NOT NULL,
	`blocked` varchar(200),
	`drill_id` varchar(40) character set ascii collate ascii_bin,
	`drill_version` int,
	`ladder_id` varchar(40) character set ascii collate ascii_bin,
	`rung_id` varchar(40) character set ascii collate ascii_bin,
	`dose` json NOT NULL,
	`parameters` json NOT NULL,
	`rest_s` int NOT NULL,
	`change` json,
	`would_be` varchar(200),
	`created_at` datetime(3) NOT NULL,
	CONSTRAINT `line_club_id_id_pk` PRIMARY KEY(`club_id`,`id`),
	CONSTRAINT `line_version` UNIQUE(`club_id`,`entry_id`,`athlete_id`,`version`)
);
--> statement-breakpoint
CREATE TABLE IF NOT EXISTS `session` (
	`club_id` uuid NOT NULL,
	`id` uuid NOT NULL,
	`squad_id` uuid NOT NULL,
	`day` date NOT NULL,
	`start_time` char(5) NOT NULL,
	`time_zone` varchar(64) character set ascii collate ascii_bin NOT NULL,
	`title` varchar(200) NOT NULL,
	`place` varchar(200) NOT NULL,
	`phase` varchar(20) character set ascii collate ascii_bin NOT NULL,
	`planned_minutes` int NOT NULL,
	`started_at` datetime(3),
	`reviewed_at` datetime(3),
	CONSTRAINT `session_club_id_id_pk` PRIMARY KEY(`club_id`,`id`)
);
--> statement-breakpoint
CREATE TABLE IF NOT EXISTS `session_athlete` (
	`club_id` uuid NOT NULL,
	`session_id` uuid NOT NULL,
	`athlete_id` uuid NOT NULL,
	`position` int NOT NULL,
	CONSTRAINT `session_athlete_club_id_session_id_athlete_id_pk` PRIMARY KEY(`club_id`,`session_id`,`athlete_id`)
);
--> statement-breakpoint
CREATE TABLE IF NOT EXISTS `decision` (
	`club_id` uuid NOT NULL,
	`id` uuid NOT NULL,
	`session_id` uuid NOT NULL,
	`athlete_id` uuid NOT NULL,
	`author_id` uuid NOT NULL,
	`device_id` uuid NOT NULL,
	`device_seq` int NOT NULL,
	`device_time` datetime(3) NOT NULL,
	`received_at` datetime(3) NOT NULL,
	`replaces_id` uuid,
	`is_void` boolean NOT NULL,
	`content_hash` char(64) NOT NULL,
	`kind` varchar(20) character set ascii collate ascii_bin NOT NULL,
	`value` json NOT NULL,
	`entry_id` uuid,
	`line_id` uuid,
	CONSTRAINT `decision_club_id_id_pk` PRIMARY KEY(`club_id`,`id`)
);
--> statement-breakpoint
CREATE TABLE IF NOT EXISTS `mark` (
	`club_id` uuid NOT NULL,
	`id` uuid NOT NULL,
	`session_id` uuid NOT NULL,
	`athlete_id` uuid NOT NULL,
	`author_id` uuid NOT NULL,
	`device_id` uuid NOT NULL,
	`device_seq` int NOT NULL,
	`device_time` datetime(3) NOT NULL,
	`received_at` datetime(3) NOT NULL,
	`replaces_id` uuid,
	`is_void` boolean NOT NULL,
	`content_hash` char(64) NOT NULL,
	`kind` varchar(20) character set ascii collate ascii_bin NOT NULL,
	`value` json NOT NULL,
	`entry_id` uuid NOT NULL,
	`line_id` uuid NOT NULL,
	`set_no` int NOT NULL,
	`rep_no` int NOT NULL,
	`side` varchar(5) character set ascii collate ascii_bin,
	`drill_id` varchar(40) character set ascii collate ascii_bin NOT NULL,
	`start` varchar(20) character set ascii collate ascii_bin,
	`distance_m` decimal(8,3),
	`time_s` decimal(8,4),
	`method` varchar(20) character set ascii collate ascii_bin,
	`counts` json NOT NULL,
	CONSTRAINT `mark_club_id_id_pk` PRIMARY KEY(`club_id`,`id`)
);
--> statement-breakpoint
CREATE TABLE IF NOT EXISTS `observation` (
	`club_id` uuid NOT NULL,
	`id` uuid NOT NULL,
	`session_id` uuid NOT NULL,
	`athlete_id` uuid NOT NULL,
	`author_id` uuid NOT NULL,
	`device_id` uuid NOT NULL,
	`device_seq` int NOT NULL,
	`device_time` datetime(3) NOT NULL,
	`received_at` datetime(3) NOT NULL,
	`replaces_id` uuid,
	`is_void` boolean NOT NULL,
	`content_hash` char(64) NOT NULL,
	`kind` varchar(20) character set ascii collate ascii_bin NOT NULL,
	`value` json NOT NULL,
	`entry_id` uuid,
	`line_id` uuid,
	`set_no` int,
	`rep_no` int,
	`side` varchar(5) character set ascii collate ascii_bin,
	CONSTRAINT `observation_club_id_id_pk` PRIMARY KEY(`club_id`,`id`)
);
--> statement-breakpoint
CREATE TABLE IF NOT EXISTS `clearance` (
	`club_id` uuid NOT NULL,
	`id` uuid NOT NULL,
	`athlete_id` uuid NOT NULL,
	`region` varchar(20) character set ascii collate ascii_bin NOT NULL,
	`cleared_by` varchar(200) NOT NULL,
	`cleared_by_role` varchar(200) NOT NULL,
	`cleared_on` date NOT NULL,
	`recorded_by` uuid NOT NULL,
	`recorded_at` datetime(3) NOT NULL,
	CONSTRAINT `clearance_club_id_id_pk` PRIMARY KEY(`club_id`,`id`)
);
--> statement-breakpoint
CREATE TABLE IF NOT EXISTS `verdict` (
	`club_id` uuid NOT NULL,
	`id` uuid NOT NULL,
	`session_id` uuid NOT NULL,
	`athlete_id` uuid NOT NULL,
	`ladder_id` varchar(40) character set ascii collate ascii_bin NOT NULL,
	`day` date NOT NULL,
	`proposed` varchar(20) character set ascii collate ascii_bin NOT NULL,
	`decided` varchar(20) character set ascii collate ascii_bin NOT NULL,
	`reason` varchar(500),
	`sentence` varchar(500) NOT NULL,
	`judgement` json NOT NULL,
	`state_before` json NOT NULL,
	`state_after` json NOT NULL,
	`input` json NOT NULL,
	`input_hash` char(64) NOT NULL,
	`rules_version` int NOT NULL,
	`decided_by` uuid NOT NULL,
	`decided_at` datetime(3) NOT NULL,
	CONSTRAINT `verdict_club_id_id_pk` PRIMARY KEY(`club_id`,`id`),
	CONSTRAINT `verdict_once` UNIQUE(`club_id`,`session_id`,`athlete_id`,`ladder_id`)
);
--> statement-breakpoint
ALTER TABLE `athlete` ADD CONSTRAINT `athlete_club_id_club_id_fk` FOREIGN KEY IF NOT EXISTS `athlete_club_id_club_id_fk` (`club_id`) REFERENCES `club`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `athlete_identity` ADD CONSTRAINT `identity_athlete` FOREIGN KEY IF NOT EXISTS `identity_athlete` (`club_id`,`athlete_id`) REFERENCES `athlete`(`club_id`,`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `invitation` ADD CONSTRAINT `invitation_club_id_club_id_fk` FOREIGN KEY IF NOT EXISTS `invitation_club_id_club_id_fk` (`club_id`) REFERENCES `club`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `person` ADD CONSTRAINT `person_club_id_club_id_fk` FOREIGN KEY IF NOT EXISTS `person_club_id_club_id_fk` (`club_id`) REFERENCES `club`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `sign_in` ADD CONSTRAINT `sign_in_person` FOREIGN KEY IF NOT EXISTS `sign_in_person` (`club_id`,`person_id`) REFERENCES `person`(`club_id`,`id`) ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `athlete_level` ADD CONSTRAINT `level_athlete` FOREIGN KEY IF NOT EXISTS `level_athlete` (`club_id`,`athlete_id`) REFERENCES `athlete`(`club_id`,`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `ladder_state` ADD CONSTRAINT `state_athlete` FOREIGN KEY IF NOT EXISTS `state_athlete` (`club_id`,`athlete_id`) REFERENCES `athlete`(`club_id`,`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `library_document` ADD CONSTRAINT `library_document_club_id_club_id_fk` FOREIGN KEY IF NOT EXISTS `library_document_club_id_club_id_fk` (`club_id`) REFERENCES `club`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `squad` ADD CONSTRAINT `squad_club_id_club_id_fk` FOREIGN KEY IF NOT EXISTS `squad_club_id_club_id_fk` (`club_id`) REFERENCES `club`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `squad_member` ADD CONSTRAINT `member_squad` FOREIGN KEY IF NOT EXISTS `member_squad` (`club_id`,`squad_id`) REFERENCES `squad`(`club_id`,`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `squad_member` ADD CONSTRAINT `member_athlete` FOREIGN KEY IF NOT EXISTS `member_athlete` (`club_id`,`athlete_id`) REFERENCES `athlete`(`club_id`,`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `entry` ADD CONSTRAINT `entry_session` FOREIGN KEY IF NOT EXISTS `entry_session` (`club_id`,`session_id`) REFERENCES `session`(`club_id`,`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `line` ADD CONSTRAINT `line_entry` FOREIGN KEY IF NOT EXISTS `line_entry` (`club_id`,`entry_id`) REFERENCES `entry`(`club_id`,`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `line` ADD CONSTRAINT `line_athlete` FOREIGN KEY IF NOT EXISTS `line_athlete` (`club_id`,`athlete_id`) REFERENCES `athlete`(`club_id`,`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `session` ADD CONSTRAINT `session_club_id_club_id_fk` FOREIGN KEY IF NOT EXISTS `session_club_id_club_id_fk` (`club_id`) REFERENCES `club`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `session` ADD CONSTRAINT `session_squad` FOREIGN KEY IF NOT EXISTS `session_squad` (`club_id`,`squad_id`) REFERENCES `squad`(`club_id`,`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `session_athlete` ADD CONSTRAINT `attending_session` FOREIGN KEY IF NOT EXISTS `attending_session` (`club_id`,`session_id`) REFERENCES `session`(`club_id`,`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `session_athlete` ADD CONSTRAINT `attending_athlete` FOREIGN KEY IF NOT EXISTS `attending_athlete` (`club_id`,`athlete_id`) REFERENCES `athlete`(`club_id`,`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `decision` ADD CONSTRAINT `decision_session` FOREIGN KEY IF NOT EXISTS `decision_session` (`club_id`,`session_id`) REFERENCES `session`(`club_id`,`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `decision` ADD CONSTRAINT `decision_athlete` FOREIGN KEY IF NOT EXISTS `decision_athlete` (`club_id`,`athlete_id`) REFERENCES `athlete`(`club_id`,`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `mark` ADD CONSTRAINT `mark_session` FOREIGN KEY IF NOT EXISTS `mark_session` (`club_id`,`session_id`) REFERENCES `session`(`club_id`,`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `mark` ADD CONSTRAINT `mark_athlete` FOREIGN KEY IF NOT EXISTS `mark_athlete` (`club_id`,`athlete_id`) REFERENCES `athlete`(`club_id`,`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `observation` ADD CONSTRAINT `observation_session` FOREIGN KEY IF NOT EXISTS `observation_session` (`club_id`,`session_id`) REFERENCES `session`(`club_id`,`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `observation` ADD CONSTRAINT `observation_athlete` FOREIGN KEY IF NOT EXISTS `observation_athlete` (`club_id`,`athlete_id`) REFERENCES `athlete`(`club_id`,`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `clearance` ADD CONSTRAINT `clearance_athlete` FOREIGN KEY IF NOT EXISTS `clearance_athlete` (`club_id`,`athlete_id`) REFERENCES `athlete`(`club_id`,`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `verdict` ADD CONSTRAINT `verdict_session` FOREIGN KEY IF NOT EXISTS `verdict_session` (`club_id`,`session_id`) REFERENCES `session`(`club_id`,`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `verdict` ADD CONSTRAINT `verdict_athlete` FOREIGN KEY IF NOT EXISTS `verdict_athlete` (`club_id`,`athlete_id`) REFERENCES `athlete`(`club_id`,`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
CREATE INDEX IF NOT EXISTS `sign_in_expires` ON `sign_in` (`expires_at`);--> statement-breakpoint
CREATE INDEX IF NOT EXISTS `member_by_athlete` ON `squad_member` (`club_id`,`athlete_id`);--> statement-breakpoint
CREATE INDEX IF NOT EXISTS `entry_by_session` ON `entry` (`club_id`,`session_id`,`position`);--> statement-breakpoint
CREATE INDEX IF NOT EXISTS `line_by_session` ON `line` (`club_id`,`session_id`,`current`);--> statement-breakpoint
CREATE INDEX IF NOT EXISTS `line_by_athlete` ON `line` (`club_id`,`athlete_id`,`ladder_id`);--> statement-breakpoint
CREATE INDEX IF NOT EXISTS `session_by_day` ON `session` (`club_id`,`day`);--> statement-breakpoint
CREATE INDEX IF NOT EXISTS `session_by_squad` ON `session` (`club_id`,`squad_id`,`day`);--> statement-breakpoint
CREATE INDEX IF NOT EXISTS `attending_by_athlete` ON `session_athlete` (`club_id`,`athlete_id`);--> statement-breakpoint
CREATE INDEX IF NOT EXISTS `decision_by_session` ON `decision` (`club_id`,`session_id`);--> statement-breakpoint
CREATE INDEX IF NOT EXISTS `decision_replaces` ON `decision` (`club_id`,`replaces_id`);--> statement-breakpoint
CREATE INDEX IF NOT EXISTS `mark_by_session` ON `mark` (`club_id`,`session_id`);--> statement-breakpoint
CREATE INDEX IF NOT EXISTS `mark_by_athlete` ON `mark` (`club_id`,`athlete_id`,`session_id`);--> statement-breakpoint
CREATE INDEX IF NOT EXISTS `mark_replaces` ON `mark` (`club_id`,`replaces_id`);--> statement-breakpoint
CREATE INDEX IF NOT EXISTS `observation_by_session` ON `observation` (`club_id`,`session_id`);--> statement-breakpoint
CREATE INDEX IF NOT EXISTS `observation_by_athlete` ON `observation` (`club_id`,`athlete_id`,`kind`);--> statement-breakpoint
CREATE INDEX IF NOT EXISTS `observation_replaces` ON `observation` (`club_id`,`replaces_id`);--> statement-breakpoint
CREATE INDEX IF NOT EXISTS `verdict_by_athlete` ON `verdict` (`club_id`,`athlete_id`,`ladder_id`,`day`);