CREATE TABLE IF NOT EXISTS `measurement` (
	`club_id` uuid NOT NULL,
	`id` uuid NOT NULL,
	`athlete_id` uuid NOT NULL,
	`author_id` uuid NOT NULL,
	`taken_on` date NOT NULL,
	`calculation` varchar(40) character set ascii collate ascii_bin NOT NULL,
	`method` varchar(20) character set ascii collate ascii_bin NOT NULL,
	`input` json NOT NULL,
	`replaces_id` uuid,
	`is_void` boolean NOT NULL,
	`content_hash` char(64) NOT NULL,
	`received_at` datetime(3) NOT NULL,
	CONSTRAINT `measurement_club_id_id_pk` PRIMARY KEY(`club_id`,`id`)
);
--> statement-breakpoint
ALTER TABLE `measurement` ADD CONSTRAINT `measurement_athlete` FOREIGN KEY IF NOT EXISTS `measurement_athlete` (`club_id`,`athlete_id`) REFERENCES `athlete`(`club_id`,`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
CREATE INDEX IF NOT EXISTS `measurement_by_athlete` ON `measurement` (`club_id`,`athlete_id`,`taken_on`);--> statement-breakpoint
CREATE INDEX IF NOT EXISTS `measurement_replaces` ON `measurement` (`club_id`,`replaces_id`);