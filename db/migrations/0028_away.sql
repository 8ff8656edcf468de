ALTER TABLE `athlete` ADD COLUMN IF NOT EXISTS `away_from` date;--> statement-breakpoint
ALTER TABLE `athlete` ADD COLUMN IF NOT EXISTS `away_until` date;