ALTER TABLE `entry` ADD COLUMN IF NOT EXISTS `rest` json;--> statement-breakpoint
ALTER TABLE `entry` ADD COLUMN IF NOT EXISTS `sides` json;--> statement-breakpoint
ALTER TABLE `entry` ADD COLUMN IF NOT EXISTS `pieces` json;--> statement-breakpoint
ALTER TABLE `entry` ADD COLUMN IF NOT EXISTS `carried` json;--> statement-breakpoint
ALTER TABLE `entry` ADD COLUMN IF NOT EXISTS `aid` json;--> statement-breakpoint
ALTER TABLE `line` ADD COLUMN IF NOT EXISTS `rest` json;--> statement-breakpoint
ALTER TABLE `line` ADD COLUMN IF NOT EXISTS `sides` json;--> statement-breakpoint
ALTER TABLE `line` ADD COLUMN IF NOT EXISTS `pieces` json;--> statement-breakpoint
ALTER TABLE `line` ADD COLUMN IF NOT EXISTS `carried` json;--> statement-breakpoint
ALTER TABLE `line` ADD COLUMN IF NOT EXISTS `aid` json;--> statement-breakpoint
-- One number was the rest between sets, and between reps in one set or where the family rests after each;
-- core/vocabulary/older.ts reads kept documents alike. A rebound from a box rests 8 s between reps.
-- The next migration takes rest_s away: run again after that, there is nothing left to carry over.
SET @two_rests = (SELECT IF(COUNT(*) = 0, 'DO 0', '
UPDATE `entry` SET `rest` = JSON_OBJECT(
	''repsS'', CASE
		WHEN JSON_VALUE(`dose`, ''$.sets'') <= 1 OR `family` IN (''sprint'', ''agility'', ''throw'') THEN `rest_s`
		WHEN `drill_id` IN (''depth-jump'', ''double-depth-jump'', ''low-box-rebound'') THEN 8
		ELSE 0 END,
	''setsS'', `rest_s`) WHERE `rest` IS NULL') FROM information_schema.columns WHERE table_schema = DATABASE() AND table_name = 'entry' AND column_name = 'rest_s');--> statement-breakpoint
EXECUTE IMMEDIATE @two_rests;--> statement-breakpoint
SET @two_rests = (SELECT IF(COUNT(*) = 0, 'DO 0', '
UPDATE `line` JOIN `entry` ON `entry`.`club_id` = `line`.`club_id` AND `entry`.`id` = `line`.`entry_id`
SET `line`.`rest` = JSON_OBJECT(
	''repsS'', CASE
		WHEN JSON_VALUE(`line`.`dose`, ''$.sets'') <= 1 OR `entry`.`family` IN (''sprint'', ''agility'', ''throw'') THEN `line`.`rest_s`
		WHEN `line`.`drill_id` IN (''depth-jump'', ''double-depth-jump'', ''low-box-rebound'') THEN 8
		ELSE 0 END,
	''setsS'', `line`.`rest_s`) WHERE `line`.`rest` IS NULL') FROM information_schema.columns WHERE table_schema = DATABASE() AND table_name = 'line' AND column_name = 'rest_s');--> statement-breakpoint
EXECUTE IMMEDIATE @two_rests;--> statement-breakpoint
ALTER TABLE `entry` MODIFY COLUMN `rest` json NOT NULL;--> statement-breakpoint
ALTER TABLE `line` MODIFY COLUMN `rest` json NOT NULL;
