-- What a ladder had swapped for pain becomes a report of the athlete's: the region is to be spared until it was asked about. Said twice it counts once.
INSERT INTO `care_event` (`club_id`, `id`, `athlete_id`, `session_id`, `drill_id`, `kind`, `region`, `side`, `score`, `red_flag`, `asked`, `day`, `note`, `is_void`, `author_id`, `received_at`)
SELECT `s`.`club_id`, UUID(), `s`.`athlete_id`, NULL, NULL, 'pain', JSON_VALUE(`s`.`state`, '$.substitute.region'), NULL, 3, FALSE, FALSE,
	MIN(JSON_VALUE(`s`.`state`, '$.substitute.since')), 'swapped on a ladder before', FALSE,
	(SELECT MIN(`p`.`id`) FROM `person` `p` WHERE `p`.`club_id` = `s`.`club_id`), MAX(`s`.`updated_at`)
FROM `ladder_state` `s`
WHERE JSON_VALUE(`s`.`state`, '$.substitute.region') IS NOT NULL
	AND COALESCE(JSON_VALUE(`s`.`state`, '$.substitute.cause'), 'pain') = 'pain'
GROUP BY `s`.`club_id`, `s`.`athlete_id`, JSON_VALUE(`s`.`state`, '$.substitute.region');
--> statement-breakpoint
-- Closures, restrictions and worries are the athlete's; on a ladder stays only a variation after a plateau.
UPDATE `ladder_state` SET `state` = JSON_SET(`state`, '$.substitute', NULL)
WHERE JSON_VALUE(`state`, '$.substitute.drillId') IS NOT NULL AND COALESCE(JSON_VALUE(`state`, '$.substitute.cause'), 'pain') <> 'plateau';
--> statement-breakpoint
UPDATE `ladder_state` SET `state` = JSON_REMOVE(`state`, '$.closed') WHERE JSON_CONTAINS_PATH(`state`, 'one', '$.closed');
