CREATE TABLE IF NOT EXISTS `care_event` (
	`club_id` uuid NOT NULL,
	`id` uuid NOT NULL,
	`athlete_id` uuid NOT NULL,
	`session_id` uuid,
	`drill_id` varchar(40) character set ascii collate ascii_bin,
	`kind` varchar(20) character set ascii collate ascii_bin NOT NULL,
	`region` varchar(20) character set ascii collate ascii_bin,
	`side` varchar(5) character set ascii collate ascii_bin,
	`score` int,
	`red_flag` boolean NOT NULL,
	`asked` boolean NOT NULL,
	`day` date NOT NULL,
	`note` varchar(500) NOT NULL,
	`is_void` boolean NOT NULL,
	`author_id` uuid NOT NULL,
	`received_at` datetime(3) NOT NULL,
	CONSTRAINT `care_event_club_id_id_pk` PRIMARY KEY(`club_id`,`id`)
);
--> statement-breakpoint
CREATE TABLE IF NOT EXISTS `work_day` (
	`club_id` uuid NOT NULL,
	`athlete_id` uuid NOT NULL,
	`family` varchar(20) character set ascii collate ascii_bin NOT NULL,
	`day` date NOT NULL,
	CONSTRAINT `work_day_club_id_athlete_id_family_day_pk` PRIMARY KEY(`club_id`,`athlete_id`,`family`,`day`)
);
--> statement-breakpoint
ALTER TABLE `clearance` ADD COLUMN IF NOT EXISTS `side` varchar(5) character set ascii collate ascii_bin;--> statement-breakpoint
ALTER TABLE `clearance` ADD COLUMN IF NOT EXISTS `role` varchar(20) character set ascii collate ascii_bin NOT NULL;--> statement-breakpoint
ALTER TABLE `clearance` ADD COLUMN IF NOT EXISTS `injury` boolean;--> statement-breakpoint
ALTER TABLE `care_event` ADD CONSTRAINT `care_event_athlete` FOREIGN KEY IF NOT EXISTS `care_event_athlete` (`club_id`,`athlete_id`) REFERENCES `athlete`(`club_id`,`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `work_day` ADD CONSTRAINT `work_day_athlete` FOREIGN KEY IF NOT EXISTS `work_day_athlete` (`club_id`,`athlete_id`) REFERENCES `athlete`(`club_id`,`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
CREATE INDEX IF NOT EXISTS `care_event_by_athlete` ON `care_event` (`club_id`,`athlete_id`,`day`);--> statement-breakpoint
-- What a role in words comes to. Who was no health professional never cleared anything: what they opened is closed again.
UPDATE `clearance` SET `role` = CASE
	WHEN `cleared_by_role` REGEXP '(?i)doctor|physician|surgeon|\\bdr\\b|\\bgp\\b' THEN 'doctor'
	WHEN `cleared_by_role` REGEXP '(?i)physio' THEN 'physiotherapist'
	WHEN `cleared_by_role` REGEXP '(?i)coach|trainer' THEN 'coach'
	WHEN `cleared_by_role` REGEXP '(?i)parent|mother|father|guardian' THEN 'guardian'
	WHEN `cleared_by_role` REGEXP '(?i)athlete|self' THEN 'athlete'
	ELSE 'clinician' END
WHERE `role` = '';
--> statement-breakpoint
-- What a ladder had closed stays closed for the athlete, beside what the reports themselves say: the stricter wins.
INSERT INTO `care_record` (`club_id`, `id`, `athlete_id`, `kind`, `region`, `note`, `from_day`, `set_by`, `set_by_role`, `recorded_by`, `recorded_at`)
SELECT `s`.`club_id`, UUID(), `s`.`athlete_id`, 'restriction', JSON_VALUE(`s`.`state`, '$.closed.region'), 'closed by a verdict',
	MIN(JSON_VALUE(`s`.`state`, '$.closed.since')), 'a verdict', 'coach', (SELECT MIN(`p`.`id`) FROM `person` `p` WHERE `p`.`club_id` = `s`.`club_id`), MAX(`s`.`updated_at`)
FROM `ladder_state` `s`
WHERE JSON_VALUE(`s`.`state`, '$.closed.region') IS NOT NULL
	AND NOT EXISTS (SELECT 1 FROM `care_record` `r` WHERE `r`.`club_id` = `s`.`club_id` AND `r`.`athlete_id` = `s`.`athlete_id` AND `r`.`kind` = 'restriction'
		AND `r`.`region` = JSON_VALUE(`s`.`state`, '$.closed.region') AND `r`.`ended_on` IS NULL)
GROUP BY `s`.`club_id`, `s`.`athlete_id`, JSON_VALUE(`s`.`state`, '$.closed.region');
--> statement-breakpoint
-- Days of work from every mark that stands.
INSERT IGNORE INTO `work_day` (`club_id`, `athlete_id`, `family`, `day`)
SELECT DISTINCT `m`.`club_id`, `m`.`athlete_id`, `d`.`family`, `s`.`day`
FROM `mark` `m`
JOIN `session` `s` ON `s`.`club_id` = `m`.`club_id` AND `s`.`id` = `m`.`session_id`
JOIN (SELECT `club_id`, `id`, MAX(JSON_VALUE(`content`, '$.family')) AS `family` FROM `library_document` WHERE `kind` = 'drill' GROUP BY `club_id`, `id`) `d`
	ON `d`.`club_id` = `m`.`club_id` AND `d`.`id` = `m`.`drill_id`
WHERE `m`.`kind` <> 'missed' AND `m`.`is_void` = 0
	AND NOT EXISTS (SELECT 1 FROM `mark` `r` WHERE `r`.`club_id` = `m`.`club_id` AND `r`.`replaces_id` = `m`.`id`);
