-- Marks made after a weight came off were keyed as if it were worn: they are keyed anew at the next start.
UPDATE `mark` `m` JOIN `decision` `d` ON `d`.`club_id` = `m`.`club_id` AND `d`.`session_id` = `m`.`session_id` AND `d`.`athlete_id` = `m`.`athlete_id` AND `d`.`kind` = 'load-off' SET `m`.`mark_key` = NULL WHERE `m`.`kind` IN ('sprint', 'contact', 'height', 'distance', 'release');
