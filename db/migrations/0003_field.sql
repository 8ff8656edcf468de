CREATE TABLE IF NOT EXISTS `device` (
	`club_id` uuid NOT NULL,
	`id` uuid NOT NULL,
	`kind` varchar(20) character set ascii collate ascii_bin NOT NULL,
	`name` varchar(60) NOT NULL,
	`token_hash` char(64) NOT NULL,
	`paired_at` datetime(3) NOT NULL,
	`last_seen_at` datetime(3),
	`offset_ms` int,
	`unpaired_at` datetime(3),
	CONSTRAINT `device_club_id_id_pk` PRIMARY KEY(`club_id`,`id`)
);
--> statement-breakpoint
CREATE TABLE IF NOT EXISTS `device_reading` (
	`club_id` uuid NOT NULL,
	`id` uuid NOT NULL,
	`device_id` uuid NOT NULL,
	`kind` varchar(20) character set ascii collate ascii_bin NOT NULL,
	`at` datetime(3) NOT NULL,
	`device_time` datetime(3) NOT NULL,
	`received_at` datetime(3) NOT NULL,
	`value` json NOT NULL,
	`content_hash` char(64) NOT NULL,
	CONSTRAINT `device_reading_club_id_id_pk` PRIMARY KEY(`club_id`,`id`)
);
--> statement-breakpoint
CREATE TABLE IF NOT EXISTS `pairing_code` (
	`club_id` uuid NOT NULL,
	`code_hash` char(64) NOT NULL,
	`expires_at` datetime(3) NOT NULL,
	CONSTRAINT `pairing_code_club_id` PRIMARY KEY(`club_id`)
);
--> statement-breakpoint
ALTER TABLE `decision` MODIFY COLUMN `athlete_id` uuid;--> statement-breakpoint
ALTER TABLE `mark` ADD COLUMN IF NOT EXISTS `source` uuid;--> statement-breakpoint
ALTER TABLE `mark` ADD COLUMN IF NOT EXISTS `as_drill_version` int;--> statement-breakpoint
ALTER TABLE `device` ADD CONSTRAINT `device_club_id_club_id_fk` FOREIGN KEY IF NOT EXISTS `device_club_id_club_id_fk` (`club_id`) REFERENCES `club`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `device_reading` ADD CONSTRAINT `reading_device` FOREIGN KEY IF NOT EXISTS `reading_device` (`club_id`,`device_id`) REFERENCES `device`(`club_id`,`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `pairing_code` ADD CONSTRAINT `pairing_code_club_id_club_id_fk` FOREIGN KEY IF NOT EXISTS `pairing_code_club_id_club_id_fk` (`club_id`) REFERENCES `club`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
CREATE INDEX IF NOT EXISTS `device_by_token` ON `device` (`token_hash`);--> statement-breakpoint
CREATE INDEX IF NOT EXISTS `reading_by_arrival` ON `device_reading` (`club_id`,`received_at`);--> statement-breakpoint
CREATE INDEX IF NOT EXISTS `reading_by_time` ON `device_reading` (`club_id`,`at`);--> statement-breakpoint
CREATE INDEX IF NOT EXISTS `pairing_by_code` ON `pairing_code` (`code_hash`);