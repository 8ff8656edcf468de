CREATE TABLE IF NOT EXISTS `block` (
	`club_id` uuid NOT NULL,
	`id` uuid NOT NULL,
	`squad_id` uuid NOT NULL,
	`start_day` date NOT NULL,
	`weeks` int NOT NULL,
	`plan` json NOT NULL,
	`made_by` uuid NOT NULL,
	`made_at` datetime(3) NOT NULL,
	CONSTRAINT `block_club_id_id_pk` PRIMARY KEY(`club_id`,`id`)
);
--> statement-breakpoint
ALTER TABLE `entry` ADD COLUMN IF NOT EXISTS `lanes` int DEFAULT 1 NOT NULL;--> statement-breakpoint
ALTER TABLE `entry` ADD COLUMN IF NOT EXISTS `together` int DEFAULT 1 NOT NULL;--> statement-breakpoint
ALTER TABLE `session` ADD COLUMN IF NOT EXISTS `block_id` uuid;--> statement-breakpoint
ALTER TABLE `block` ADD CONSTRAINT `block_squad` FOREIGN KEY IF NOT EXISTS `block_squad` (`club_id`,`squad_id`) REFERENCES `squad`(`club_id`,`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
CREATE INDEX IF NOT EXISTS `block_by_squad` ON `block` (`club_id`,`squad_id`,`start_day`);--> statement-breakpoint
CREATE INDEX IF NOT EXISTS `session_by_block` ON `session` (`club_id`,`block_id`);