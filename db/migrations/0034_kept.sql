CREATE TABLE IF NOT EXISTS `change_count` (
	`club_id` varchar(40) character set ascii collate ascii_bin NOT NULL,
	`of` varchar(10) character set ascii collate ascii_bin NOT NULL,
	`n` bigint NOT NULL,
	CONSTRAINT `change_count_club_id_of_pk` PRIMARY KEY(`club_id`,`of`)
);
