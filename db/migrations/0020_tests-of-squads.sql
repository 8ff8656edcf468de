CREATE TABLE IF NOT EXISTS `battery` (
	`club_id` uuid NOT NULL,
	`id` uuid NOT NULL,
	`squad_id` uuid NOT NULL,
	`name` varchar(80) NOT NULL,
	`every` varchar(10) character set ascii collate ascii_bin NOT NULL,
	`items` json NOT NULL,
	`retired` boolean NOT NULL,
	`made_by` uuid NOT NULL,
	`made_at` datetime(3) NOT NULL,
	CONSTRAINT `battery_club_id_id_pk` PRIMARY KEY(`club_id`,`id`)
);
--> statement-breakpoint
CREATE TABLE IF NOT EXISTS `battery_session` (
	`club_id` uuid NOT NULL,
	`battery_id` uuid NOT NULL,
	`session_id` uuid NOT NULL,
	CONSTRAINT `battery_session_club_id_battery_id_session_id_pk` PRIMARY KEY(`club_id`,`battery_id`,`session_id`)
);
--> statement-breakpoint
ALTER TABLE `battery` ADD CONSTRAINT `battery_squad` FOREIGN KEY IF NOT EXISTS `battery_squad` (`club_id`,`squad_id`) REFERENCES `squad`(`club_id`,`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `battery_session` ADD CONSTRAINT `battery_of_session` FOREIGN KEY IF NOT EXISTS `battery_of_session` (`club_id`,`battery_id`) REFERENCES `battery`(`club_id`,`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `battery_session` ADD CONSTRAINT `session_of_battery` FOREIGN KEY IF NOT EXISTS `session_of_battery` (`club_id`,`session_id`) REFERENCES `session`(`club_id`,`id`) ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
CREATE INDEX IF NOT EXISTS `battery_by_squad` ON `battery` (`club_id`,`squad_id`);