ALTER TABLE `entry` DROP COLUMN IF EXISTS `rest_s`;--> statement-breakpoint
ALTER TABLE `line` DROP COLUMN IF EXISTS `rest_s`;