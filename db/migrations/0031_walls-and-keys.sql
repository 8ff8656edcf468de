CREATE TABLE IF NOT EXISTS `deed` (
	`club_id` uuid NOT NULL,
	`id` uuid NOT NULL,
	`at` datetime(3) NOT NULL,
	`person_id` uuid NOT NULL,
	`what` varchar(20) character set ascii collate ascii_bin NOT NULL,
	`about` varchar(200) NOT NULL DEFAULT '',
	CONSTRAINT `deed_club_id_id_pk` PRIMARY KEY(`club_id`,`id`)
);
--> statement-breakpoint
CREATE TABLE IF NOT EXISTS `known_device` (
	`token_hash` char(64) NOT NULL,
	`club_id` uuid NOT NULL,
	`person_id` uuid NOT NULL,
	`created_at` datetime(3) NOT NULL,
	CONSTRAINT `known_device_token_hash_person_id_pk` PRIMARY KEY(`token_hash`,`person_id`)
);
--> statement-breakpoint
ALTER TABLE `person` MODIFY COLUMN `email` varchar(254) character set utf8mb4 collate utf8mb4_nopad_bin NOT NULL;--> statement-breakpoint
ALTER TABLE `invitation` ADD COLUMN IF NOT EXISTS `person_id` uuid;--> statement-breakpoint
ALTER TABLE `sign_in` ADD COLUMN IF NOT EXISTS `seen_at` datetime(3);--> statement-breakpoint
ALTER TABLE `sign_in` ADD COLUMN IF NOT EXISTS `device` varchar(60) DEFAULT '' NOT NULL;--> statement-breakpoint
ALTER TABLE `deed` ADD CONSTRAINT `deed_club_id_club_id_fk` FOREIGN KEY IF NOT EXISTS `deed_club_id_club_id_fk` (`club_id`) REFERENCES `club`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `known_device` ADD CONSTRAINT `known_device_person` FOREIGN KEY IF NOT EXISTS `known_device_person` (`club_id`,`person_id`) REFERENCES `person`(`club_id`,`id`) ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
CREATE INDEX IF NOT EXISTS `deed_at` ON `deed` (`club_id`,`at`);