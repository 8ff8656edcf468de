CREATE TABLE IF NOT EXISTS `taken_off` (
	`club_id` uuid NOT NULL,
	`id` uuid NOT NULL,
	`title` varchar(200) NOT NULL,
	`session_ids` json NOT NULL,
	`rows` json NOT NULL,
	`person_id` uuid NOT NULL,
	`at` datetime(3) NOT NULL,
	CONSTRAINT `taken_off_club_id_id_pk` PRIMARY KEY(`club_id`,`id`)
);
--> statement-breakpoint
ALTER TABLE `taken_off` ADD CONSTRAINT `taken_off_club_id_club_id_fk` FOREIGN KEY IF NOT EXISTS `taken_off_club_id_club_id_fk` (`club_id`) REFERENCES `club`(`id`) ON DELETE no action ON UPDATE no action;