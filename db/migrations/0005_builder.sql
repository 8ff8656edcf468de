CREATE TABLE IF NOT EXISTS `ground` (
	`club_id` uuid NOT NULL,
	`id` uuid NOT NULL,
	`name` varchar(200) NOT NULL,
	`length_m` decimal(5,1) NOT NULL,
	`width_m` decimal(5,1) NOT NULL,
	`surface` varchar(20) character set ascii collate ascii_bin NOT NULL,
	CONSTRAINT `ground_club_id_id_pk` PRIMARY KEY(`club_id`,`id`)
);
--> statement-breakpoint
CREATE TABLE IF NOT EXISTS `layout` (
	`club_id` uuid NOT NULL,
	`session_id` uuid NOT NULL,
	`ground_id` uuid NOT NULL,
	`placements` json NOT NULL,
	`changed_at` datetime(3) NOT NULL,
	CONSTRAINT `layout_club_id_session_id_ground_id_pk` PRIMARY KEY(`club_id`,`session_id`,`ground_id`)
);
--> statement-breakpoint
CREATE TABLE IF NOT EXISTS `session_template` (
	`club_id` uuid NOT NULL,
	`id` uuid NOT NULL,
	`name` varchar(200) NOT NULL,
	`content` json NOT NULL,
	`made_by` uuid NOT NULL,
	`made_at` datetime(3) NOT NULL,
	CONSTRAINT `session_template_club_id_id_pk` PRIMARY KEY(`club_id`,`id`)
);
--> statement-breakpoint
ALTER TABLE `entry` ADD COLUMN IF NOT EXISTS `tuning` json;--> statement-breakpoint
ALTER TABLE `session` ADD COLUMN IF NOT EXISTS `role` varchar(10) character set ascii collate ascii_bin DEFAULT 'hard' NOT NULL;--> statement-breakpoint
ALTER TABLE `session` ADD COLUMN IF NOT EXISTS `share` decimal(3,2) DEFAULT 1 NOT NULL;--> statement-breakpoint
ALTER TABLE `ground` ADD CONSTRAINT `ground_club_id_club_id_fk` FOREIGN KEY IF NOT EXISTS `ground_club_id_club_id_fk` (`club_id`) REFERENCES `club`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `layout` ADD CONSTRAINT `layout_session` FOREIGN KEY IF NOT EXISTS `layout_session` (`club_id`,`session_id`) REFERENCES `session`(`club_id`,`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `layout` ADD CONSTRAINT `layout_ground` FOREIGN KEY IF NOT EXISTS `layout_ground` (`club_id`,`ground_id`) REFERENCES `ground`(`club_id`,`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `session_template` ADD CONSTRAINT `session_template_club_id_club_id_fk` FOREIGN KEY IF NOT EXISTS `session_template_club_id_club_id_fk` (`club_id`) REFERENCES `club`(`id`) ON DELETE no action ON UPDATE no action;