CREATE TABLE IF NOT EXISTS `place_address` (
	`club_id` uuid NOT NULL,
	`place` varchar(200) NOT NULL,
	`address` varchar(300) NOT NULL,
	`changed_by` uuid NOT NULL,
	`changed_at` datetime(3) NOT NULL,
	CONSTRAINT `place_address_club_id_place_pk` PRIMARY KEY(`club_id`,`place`)
);
--> statement-breakpoint
ALTER TABLE `athlete_identity` ADD COLUMN IF NOT EXISTS `emergency_contact` varchar(200);--> statement-breakpoint
ALTER TABLE `care_event` ADD COLUMN IF NOT EXISTS `moment` varchar(10) character set ascii collate ascii_bin;--> statement-breakpoint
ALTER TABLE `care_event` ADD COLUMN IF NOT EXISTS `withdrawn_by` uuid;--> statement-breakpoint
ALTER TABLE `care_event` ADD COLUMN IF NOT EXISTS `withdrawn_at` datetime(3);--> statement-breakpoint
ALTER TABLE `care_event` ADD COLUMN IF NOT EXISTS `withdrawn_reason` varchar(500);--> statement-breakpoint
ALTER TABLE `place_address` ADD CONSTRAINT `place_address_club_id_club_id_fk` FOREIGN KEY IF NOT EXISTS `place_address_club_id_club_id_fk` (`club_id`) REFERENCES `club`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
CREATE INDEX IF NOT EXISTS `verdict_by_day` ON `verdict` (`club_id`,`day`);