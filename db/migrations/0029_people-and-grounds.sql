ALTER TABLE `person` ADD COLUMN IF NOT EXISTS `left_at` datetime(3);--> statement-breakpoint
ALTER TABLE `ground` ADD COLUMN IF NOT EXISTS `off` boolean DEFAULT false NOT NULL;