CREATE TABLE IF NOT EXISTS `held_correction` (
	`club_id` uuid NOT NULL,
	`id` uuid NOT NULL,
	`session_id` uuid NOT NULL,
	`replaces_id` uuid NOT NULL,
	`author_id` uuid NOT NULL,
	`received_at` datetime(3) NOT NULL,
	`content_hash` char(64) NOT NULL,
	`event` json NOT NULL,
	`refused` varchar(300),
	CONSTRAINT `held_correction_club_id_id_pk` PRIMARY KEY(`club_id`,`id`)
);
--> statement-breakpoint
ALTER TABLE `observation` MODIFY COLUMN `athlete_id` uuid;--> statement-breakpoint
ALTER TABLE `mark` ADD COLUMN IF NOT EXISTS `piece` int;--> statement-breakpoint
ALTER TABLE `mark` ADD COLUMN IF NOT EXISTS `carried` json;--> statement-breakpoint
ALTER TABLE `observation` ADD COLUMN IF NOT EXISTS `piece` int;--> statement-breakpoint
CREATE INDEX IF NOT EXISTS `held_by_target` ON `held_correction` (`club_id`,`replaces_id`);--> statement-breakpoint
CREATE INDEX IF NOT EXISTS `held_by_session` ON `held_correction` (`club_id`,`session_id`);