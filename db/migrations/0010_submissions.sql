CREATE TABLE IF NOT EXISTS `record_version` (
	`club_id` uuid NOT NULL,
	`kind` varchar(20) character set ascii collate ascii_bin NOT NULL,
	`record_id` varchar(64) character set ascii collate ascii_bin NOT NULL,
	`version` int NOT NULL,
	`changed_by` uuid NOT NULL,
	`changed_at` datetime(3) NOT NULL,
	CONSTRAINT `record_version_club_id_kind_record_id_pk` PRIMARY KEY(`club_id`,`kind`,`record_id`)
);
--> statement-breakpoint
CREATE TABLE IF NOT EXISTS `submission` (
	`club_id` uuid NOT NULL,
	`hash` char(64) NOT NULL,
	`at` datetime(3) NOT NULL,
	`status` int,
	`headers` json,
	`body` mediumblob,
	CONSTRAINT `submission_club_id_hash_pk` PRIMARY KEY(`club_id`,`hash`)
);
--> statement-breakpoint
CREATE INDEX IF NOT EXISTS `submission_by_time` ON `submission` (`club_id`,`at`);