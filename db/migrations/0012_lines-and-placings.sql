ALTER TABLE `ladder_state` ADD COLUMN IF NOT EXISTS `trained_on` date;--> statement-breakpoint
ALTER TABLE `session` ADD COLUMN IF NOT EXISTS `lines_for` date;